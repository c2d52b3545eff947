import { Skeleton } from 'antd';
import { ProblemError } from '../api/client';
import { NotFound } from './NotFound';
import { Refusal } from './Refusal';

/** What of an answer counts here. */
interface Asked {
  error: Error | null;
  refetch: () => unknown;
}

/**
 * What stands where an answer is not there: that it is on its way, that what was asked for does not exist, or why it did not
 * come, with a way to try again.
 * @param of The answers that are needed; the first one that failed is told.
 * @param title What the page is about, and what is said of it where it failed.
 * @param missing What there is none of, where the server knows nothing of it.
 * @param as The page's frame; `part` stands within a page.
 */
export function Unready({
  of,
  title,
  failed = title,
  missing,
  as = 'page',
}: {
  of: readonly Asked[];
  title?: string;
  failed?: string | undefined;
  missing?: string;
  as?: 'page' | 'bench' | 'part';
}) {
  const asked = of.find((a) => a.error !== null);
  const error = asked?.error;
  if (missing && error instanceof ProblemError && error.problem.status === 404)
    return <NotFound what={missing} />;
  const heading = error ? failed : title;
  return (
    <div className={as === 'part' ? undefined : as} aria-busy={!error}>
      {heading && <h1>{heading}</h1>}
      {error ? <Refusal error={error} retry={() => void asked.refetch()} /> : <Skeleton active />}
    </div>
  );
}
