import { Button } from 'antd';
import { Link, useRouteError } from 'react-router';
import { usePageTitle } from './usePageTitle';

/** A path that leads nowhere. */
export function NotFound({ what = 'this page' }: { what?: string }) {
  usePageTitle('Not found');
  return (
    <div className="page">
      <h1>There is no {what} here.</h1>
      <p className="quiet">The address may be mistyped, or it was renamed since.</p>
      <Link to="/">
        <Button type="primary">To Rounds</Button>
      </Link>
    </div>
  );
}

/** A page that broke: say so, and offer the way on. */
export function RouteBroken() {
  const error = useRouteError();
  return (
    <div className="page">
      <h1>This page broke.</h1>
      <p className="quiet">
        {error instanceof Error ? error.message : 'No reason was given.'} Nothing stored was touched.
      </p>
      <Button type="primary" onClick={() => window.location.reload()}>
        Load it again
      </Button>{' '}
      <Button href="/">To Rounds</Button>
    </div>
  );
}
