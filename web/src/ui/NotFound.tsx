import { t } from '@lingui/core/macro';
import { Button } from 'antd';
import { Link, useRouteError } from 'react-router';
import { usePageTitle } from './usePageTitle';

/** A path that leads nowhere. */
export function NotFound({ what }: { what?: string }) {
  usePageTitle(t`Not found`);
  return (
    <div className="page">
      <h1>{what ? t`There is no ${what} here.` : t`There is no page at this address.`}</h1>
      <p className="quiet">{t`It may be mistyped, or it was renamed since.`}</p>
      <Link to="/">
        <Button type="primary">{t`To Rounds`}</Button>
      </Link>
    </div>
  );
}

/** A page that broke: say so, and offer the way on. */
export function RouteBroken() {
  const error = useRouteError();
  return (
    <div className="page">
      <h1>{t`This page broke.`}</h1>
      <p className="quiet">
        {t`${error instanceof Error ? error.message : t`No reason was given.`} Nothing stored was touched.`}
      </p>
      <Button type="primary" onClick={() => window.location.reload()}>
        {t`Load it again`}
      </Button>{' '}
      <Button href="/">{t`To Rounds`}</Button>
    </div>
  );
}
