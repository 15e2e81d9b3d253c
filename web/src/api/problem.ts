import { say } from '@kauri/core';
import type { Problem } from '@kauri/core/contract';

/** The server answered, and said what is wrong. */
export class ProblemError extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail);
  }
  get kind(): string {
    return this.problem.type.replace('/problems/', '');
  }
}

/** The server did not answer at all. */
export class OfflineError extends Error {
  constructor() {
    super(say`Kauri’s server does not answer. What you typed is kept; try again when it is back.`);
  }
}

/** The sentence to show for any failure of a call. */
export function sentenceOf(error: unknown): string {
  if (error instanceof ProblemError) {
    const id =
      error.problem.status >= 500 && error.problem.requestId
        ? say` (request ${error.problem.requestId.slice(0, 8)})`
        : '';
    return error.problem.detail + id;
  }
  if (error instanceof Error) return error.message;
  return say`Something went wrong.`;
}

/** What is wrong with one field of what was sent, if the server said. */
export function fieldFault(error: unknown, path: string): string | null {
  if (!(error instanceof ProblemError)) return null;
  return (
    error.problem.fields?.find((field) => field.path === path || field.path.startsWith(`${path}.`))
      ?.message ?? null
  );
}
