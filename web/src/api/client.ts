import { t } from '@lingui/core/macro';
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
  /** The same as template and values; what an earlier version kept on the device has it in plain English alone. */
  message?: Schemas['Message'];
}

/** What the server said when it refused: an RFC 9457 problem document. */
export interface Problem {
  title?: string | null;
  detail?: string | null;
  status?: number | null;
  /** Which of the house's rules stands against it. */
  rule?: string;
  /** What is needed besides, such as a code. */
  needs?: string;
  /** What others wrote meanwhile. */
  theirs?: TheirChange[];
  /** How an input could be taken all the same. */
  questions?: Schemas['InputQuestion'][];
  /** The detail as template and values, where the server has it so. */
  says?: Schemas['Message'];
  errors?: { message: string; says: Schemas['Message']; pointer?: string; line?: number; column?: string }[];
}

/**
 * Who answered: the server; nobody (no network, or it does not run); or something on the way to it, such as a login page or a
 * proxy, which knows nothing of the call.
 */
export type AnsweredBy = 'server' | 'nobody' | 'something-else';

/** A refusal, with the server's own words as its message. */
export class ProblemError extends Error {
  constructor(
    readonly problem: Problem,
    readonly answeredBy: AnsweredBy = 'server',
  ) {
    super(problem.detail ?? problem.title ?? t`The server gave no reason.`);
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
  } catch (error) {
    // What arrived and is no JSON did not come from the server.
    if (error instanceof SyntaxError) throw somethingElse(200);
    throw new ProblemError(
      { detail: t`The server cannot be reached. Is it running? Nothing was changed.` },
      'nobody',
    );
  }
  const { response, data, error } = answer;
  if (response.ok) return data as T;
  if (typeof error === 'object' && error !== null) throw new ProblemError(error);
  throw somethingElse(response.status);
}

const somethingElse = (status: number) =>
  new ProblemError(
    {
      status,
      detail: t`Something between this device and the server answered (${String(status)}). Sign in where you are asked to, or ask whoever runs the network.`,
    },
    'something-else',
  );
