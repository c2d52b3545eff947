import createClient from 'openapi-fetch';
import type { components, paths } from './schema';

export type Schemas = components['schemas'];
export type QueueItem = Schemas['QueueItem'];
export type Urgency = Schemas['Urgency'];
export type Cause = Schemas['Cause'];
export type ServiceLevel = Schemas['ServiceLevel'];

/** What another device wrote about the same thing meanwhile. */
export interface TheirChange {
  by: string | null;
  madeAt: string;
  says: string;
}

/** What the server said when it refused: an RFC 9457 problem document. */
export interface Problem {
  title?: string | null;
  detail?: string | null;
  status?: number | null;
  /** Which of the house's rules stands against it. */
  rule?: string;
  /** What others wrote meanwhile. */
  theirs?: TheirChange[];
  errors?: { message: string; pointer?: string; line?: number; column?: string }[];
}

/** A refusal, with the server's own words as its message. */
export class ProblemError extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail ?? problem.title ?? 'The server gave no reason.');
  }
}

export const api = createClient<paths>({ baseUrl: '/' });

/** The data of an answer, or a thrown {@link ProblemError}. */
export async function unwrap<T>(
  call: Promise<{ data?: T; error?: unknown; response: Response }>,
): Promise<T> {
  let answer;
  try {
    answer = await call;
  } catch {
    throw new ProblemError({ detail: 'The server cannot be reached. Is it running? Nothing was changed.' });
  }
  if (!answer.response.ok) {
    const problem = answer.error as Problem | undefined;
    throw new ProblemError(
      typeof problem === 'object'
        ? problem
        : { detail: `The server answered ${String(answer.response.status)}.` },
    );
  }
  return answer.data as T;
}
