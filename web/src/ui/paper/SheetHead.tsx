import { t } from '@lingui/core/macro';
import { Button } from 'antd';
import type { ReactNode } from 'react';
import { Link } from 'react-router';

/** The address of a QR code that leads to a place of this program. */
export function codeOf(path: string): string {
  return `/api/v1/qr.svg?text=${encodeURIComponent(`${location.origin}${path}`)}`;
}

/**
 * The head of a printed sheet: what it is about, its code, and on the screen the way to the printer.
 * @param place Where its code leads to.
 * @param backTo Where the way back leads to, where that is elsewhere.
 * @param back What the way back is called.
 * @param code What the code is, for those who do not see it.
 */
export function SheetHead({
  place,
  backTo = place,
  back,
  code,
  title,
  more,
  children,
}: {
  place: string;
  backTo?: string;
  back: string;
  code: string;
  title: string;
  more?: ReactNode;
  children: ReactNode;
}) {
  return (
    <>
      <div className="no-print bench-more">
        <Button type="primary" onClick={() => window.print()}>
          {t`Print`}
        </Button>
        {more}
        <Link to={backTo} className="sheet-back">
          {back}
        </Link>
      </div>
      <header className="sheet-head">
        <div>
          <h1>{title}</h1>
          {children}
        </div>
        <img src={codeOf(place)} alt={code} width={100} height={100} />
      </header>
    </>
  );
}
