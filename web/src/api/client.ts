import type {
  AnswerOf,
  BodyInputOf,
  ImportReport,
  ParamsOf,
  Problem,
  QueryInputOf,
  RouteName,
} from '@kauri/core/contract';
import { paths } from '@kauri/core/contract/paths';
import { OfflineError, ProblemError } from './problem';

interface Input<N extends RouteName> {
  params?: ParamsOf<N>;
  query?: QueryInputOf<N>;
  body?: BodyInputOf<N>;
}

/** Called when a call finds nobody signed in; resolves once somebody is, and the call is made again. */
let signInAgain: (() => Promise<void>) | null = null;
export function onSignedOut(handler: () => Promise<void>): void {
  signInAgain = handler;
}

export function addressOf<N extends RouteName>(
  name: N,
  { params, query }: Pick<Input<N>, 'params' | 'query'>,
): string {
  const path = paths[name][1].replace(/:(\w+)/g, (_, key: string) =>
    encodeURIComponent(String((params as Record<string, unknown>)[key])),
  );
  const pairs = Object.entries((query ?? {}) as Record<string, unknown>).filter(
    ([, value]) => value !== undefined && value !== null,
  );
  const search = new URLSearchParams(pairs.map(([key, value]) => [key, String(value)])).toString();
  return `/api${path}${search ? `?${search}` : ''}`;
}

/**
 * Calls a route of the contract.
 * @throws ProblemError with the server's sentence; OfflineError when it does not answer
 */
export async function call<N extends RouteName>(name: N, input: Input<N> = {}): Promise<AnswerOf<N>> {
  const response = await send(name, input, {
    headers: input.body === undefined ? {} : { 'content-type': 'application/json' },
    body: input.body === undefined ? undefined : JSON.stringify(input.body),
  });
  return (await response.json()) as AnswerOf<N>;
}

async function send<N extends RouteName>(name: N, input: Input<N>, init: RequestInit): Promise<Response> {
  for (let again = false; ; again = true) {
    let response: Response;
    try {
      response = await fetch(addressOf(name, input), {
        method: paths[name][0],
        credentials: 'same-origin',
        ...init,
      });
    } catch (error) {
      if (init.signal?.aborted) throw error;
      throw new OfflineError();
    }
    if (response.ok) return response;
    const problem = (await response.json().catch(() => null)) as Problem | null;
    if (problem === null) throw new OfflineError();
    if (problem.type === '/problems/signed-out' && signInAgain && !again) {
      await signInAgain();
      continue;
    }
    throw new ProblemError(problem);
  }
}

/** Sends a table and follows the import's stream to its report. */
export async function importTable<N extends 'importWeather' | 'importMeasurements'>(
  name: N,
  input: Required<Pick<Input<N>, 'params' | 'query'>>,
  file: Blob,
  signal: AbortSignal,
  onProgress: (share: number) => void,
): Promise<ImportReport> {
  const response = await send(name, input, { headers: { 'content-type': 'text/csv' }, body: file, signal });
  const reader = response.body!.pipeThrough(new TextDecoderStream()).getReader();
  let text = '';
  for (;;) {
    const { done, value } = await reader.read().catch((error: unknown) => {
      if (signal.aborted) throw error;
      throw new OfflineError();
    });
    if (done) break;
    text += value;
    const lines = text.split('\n');
    text = lines.pop()!;
    for (const line of lines) {
      const message = JSON.parse(line) as { progress?: number; report?: ImportReport; problem?: Problem };
      if (message.progress !== undefined) onProgress(message.progress);
      if (message.problem) throw new ProblemError(message.problem);
      if (message.report) return message.report;
    }
  }
  throw new OfflineError();
}
