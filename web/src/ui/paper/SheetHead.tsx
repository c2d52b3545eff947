import { t } from '@lingui/core/macro';
import { Button } from 'antd';
import type { ReactNode } from 'react';
import { Link } from 'react-router';

/** The address of a QR code that leads to a place of this program. */
export function codeOf(path: string): string {
  return `/api/v1/qr.svg?text=${encodeURIComponent(`${location.origin}${path}`)}`;
}

/** The head of a printed sheet: what it is about, its code, and on the screen the way to the printer. */
export function SheetHead({
  jobId,
  title,
  more,
  children,
}: {
  jobId: number;
  title: string;
  more?: ReactNode;
  children: ReactNode;
}) {
  const place = `/bench/${String(jobId)}`;
  return (
    <>
      <div className="no-print bench-more">
        <Button type="primary" onClick={() => window.print()}>
          {t`Print`}
        </Button>
        {more}
        <Link to={place} className="sheet-back">{t`Back to the job`}</Link>
      </div>
      <header className="sheet-head">
        <div>
          <h1>{title}</h1>
          {children}
        </div>
        <img src={codeOf(place)} alt={t`QR code of job ${String(jobId)}`} width={100} height={100} />
      </header>
    </>
  );
}
