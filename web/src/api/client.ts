import { linesOf, speech } from '@kauri/core';
import type {
  AnswerOf,
  BodyInputOf,
  ImportReport,
  ParamsOf,
  Problem,
  QueryInputOf,
  RouteName,
} from '@kauri/core/contract';
import { PAGE_HEADER } from '@kauri/core/contract/changes';
import { paths } from '@kauri/core/contract/paths';
import type { Memory } from '../device/memory';
import { isFirstLook, orLastSeen } from './opening';
import { OfflineError, ProblemError } from './problem';

interface Input<N extends RouteName> {
  params?: ParamsOf<N>;
  query?: QueryInputOf<N>;
  body?: BodyInputOf<N>;
  /** Stops waiting for the answer. */
  signal?: AbortSignal;
  /** How long one attempt may take, ms; then nobody answered. */
  withinMs?: number;
}

/** Called when a call finds nobody signed in; resolves once somebody is, and the call is made again. */
let signInAgain: (() => Promise<void>) | null = null;
export function onSignedOut(handler: () => Promise<void>): void {
  signInAgain = handler;
}

/** What this person last saw, where the device remembers it; it may still be opening. */
let memory: Promise<Memory | null> | null = null;
export function rememberIn(device: Promise<Memory | null> | null): void {
  memory = device;
}

/** Told of each call whether the server answered it, and what time it is there, ms since 1970. */
let told: (answered: boolean, serverMs: number | null) => void = () => undefined;
export function onContact(handler: typeof told): void {
  told = handler;
}

/** Answers that are of the moment, or that the device remembers in another way. */
const notRemembered = new Set<RouteName>(['me', 'door', 'day', 'lotRecords']);
/** How long an answer that was seen before is waited for, ms; what was never seen is waited for as long as it takes. */
const PATIENCE_MS = 8_000;

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

/** What is asked in this turn of the page, by address. */
const asking = new Map<string, Promise<unknown>>();

/**
 * Calls a route of the contract. What was looked at before is shown as it was last seen where nobody answers. What
 * several parts of a page ask for in one turn is asked once, and all of them are given one answer.
 * @throws ProblemError with the server's sentence; OfflineError when it does not answer
 */
export function call<N extends RouteName>(name: N, input: Input<N> = {}): Promise<AnswerOf<N>> {
  if (paths[name][0] !== 'GET' || input.signal || input.withinMs) return ask(name, input);
  const address = addressOf(name, input);
  const same = asking.get(address) as Promise<AnswerOf<N>> | undefined;
  if (same) return same;
  const answer = ask(name, input);
  asking.set(address, answer);
  const isOver = () => asking.get(address) === answer && asking.delete(address);
  answer.then(isOver, isOver);
  setTimeout(isOver);
  return answer;
}

/** What the device may take to tell what it remembers before it is asked for without, ms. */
const AT_HAND_MS = 80;
const atHand = <T>(told: Promise<T>): Promise<T | undefined> =>
  Promise.race([
    told.catch(() => undefined),
    new Promise<undefined>((resolve) => setTimeout(resolve, AT_HAND_MS, undefined)),
  ]);
/** The server's word for an answer that is as it was. */
const SAME = 304;

async function ask<N extends RouteName>(name: N, input: Input<N>): Promise<AnswerOf<N>> {
  if (paths[name][0] !== 'GET' || !memory || notRemembered.has(name))
    return JSON.parse(await textOf(name, input));
  const [remembered, address] = [memory, addressOf(name, input)];
  const isFirst = isFirstLook(address);
  const seen = await atHand(remembered.then((device) => device?.recall(address)));
  const answered = send(name, input, seen?.tag ? { headers: { 'if-none-match': seen.tag } } : {}).then(
    async (response) => {
      const isSame = response.status === SAME && !!seen;
      const [text, tag] = isSame
        ? [seen.text, seen.tag]
        : [await wholeOf(response), response.headers.get('etag')];
      void remembered.then((device) => device?.keep(address, text, tag));
      return text;
    },
  );
  let late: ReturnType<typeof setTimeout>;
  const lastSeen = new Promise<string>((resolve) => {
    late = setTimeout(async () => {
      const kept = await (await remembered)?.recall(address);
      if (!kept) return;
      // Shown as it was last seen, and said so; what comes late brings all of it up to date.
      told(false, null);
      resolve(kept.text);
    }, PATIENCE_MS);
  });
  const isOver = () => clearTimeout(late);
  answered.then(isOver, isOver);
  const known = isFirst && seen ? { value: seen.text, at: seen.at } : null;
  try {
    return JSON.parse(await Promise.race([orLastSeen(name, answered, known), lastSeen]));
  } catch (error) {
    const kept = error instanceof OfflineError ? await (await remembered)?.recall(address) : null;
    if (!kept) throw error;
    return JSON.parse(kept.text);
  }
}

/**
 * What a route answers, as its text: a table it streams, or an answer still to be read.
 * @throws as {@link call}, except that nothing last seen is shown in its place
 */
export async function textOf<N extends RouteName>(name: N, input: Input<N>): Promise<string> {
  const response = await send(name, input, {
    headers: input.body === undefined ? {} : { 'content-type': 'application/json' },
    body: input.body === undefined ? undefined : JSON.stringify(input.body),
    signal: input.signal,
  });
  return wholeOf(response);
}
const wholeOf = (response: Response): Promise<string> =>
  response.text().catch(() => {
    throw new OfflineError();
  });

/** How long after the last key or touch a page is left alone, ms: what it asks then keeps no session awake. */
const ALONE_AFTER_MS = 5 * 60_000;
let lastTouchMs = 0;
if (typeof addEventListener === 'function')
  for (const kind of ['pointerdown', 'keydown', 'wheel', 'touchstart'])
    addEventListener(kind, () => (lastTouchMs = performance.now()), { capture: true, passive: true });
const idleHeader = (): Record<string, string> =>
  performance.now() - lastTouchMs > ALONE_AFTER_MS ? { 'x-kauri-idle': '1' } : {};

/** This page, by a name of its own: what it writes itself it need not fetch. */
export const PAGE = Math.random().toString(36).slice(2);

/** What is being read for as long as somebody is signed in here, and what becomes of it when they leave. */
let asked = { ends: new AbortController(), then: new Promise<never>(() => undefined) };

/**
 * Signs out: what is still being read is let go of, for it would only be refused; whoever waits for it waits until the
 * page is gone. Where signing out fails they are told that nobody answers. What is being written goes on to its end.
 */
export async function signOutBy<T>(act: () => Promise<T>): Promise<T> {
  let stays!: (reason: Error) => void;
  asked.then = new Promise<never>((_, reject) => (stays = reject));
  // Nobody may be waiting.
  asked.then.catch(() => undefined);
  asked.ends.abort();
  try {
    return await act();
  } catch (error) {
    asked = { ends: new AbortController(), then: new Promise<never>(() => undefined) };
    stays(new OfflineError());
    throw error;
  }
}

let writes = 0;
/** Counts what this page began to write, and had answered. */
export const written = () => writes;

async function send<N extends RouteName>(name: N, input: Input<N>, init: RequestInit): Promise<Response> {
  const isWrite = paths[name][0] !== 'GET';
  for (let again = false; ; again = true) {
    let response: Response;
    const mine = asked;
    if (isWrite) {
      writes++;
      asking.clear();
    }
    try {
      const signals = [
        init.signal,
        input.withinMs && AbortSignal.timeout(input.withinMs),
        !isWrite && mine.ends.signal,
      ].filter((s) => !!s);
      response = await fetch(addressOf(name, input), {
        method: paths[name][0],
        credentials: 'same-origin',
        ...init,
        headers: {
          ...(init.headers as Record<string, string> | undefined),
          ...idleHeader(),
          'Accept-Language': speech().tag,
          [PAGE_HEADER]: PAGE,
        },
        ...(signals.length ? { signal: AbortSignal.any(signals) } : {}),
      });
    } catch (error) {
      if (init.signal?.aborted) throw error;
      if (!isWrite && mine.ends.signal.aborted) return mine.then;
      told(false, null);
      throw new OfflineError();
    }
    if (isWrite) writes++;
    const isGood = response.ok || response.status === SAME;
    const problem = isGood ? null : ((await response.json().catch(() => null)) as Problem | null);
    const isKauri = isGood || problem !== null;
    told(isKauri, isKauri ? Date.parse(response.headers.get('date') ?? '') || null : null);
    if (isGood) return response;
    if (problem === null) throw new OfflineError();
    if (problem.type === '/problems/signed-out' && signInAgain && !again) {
      await signInAgain();
      continue;
    }
    throw new ProblemError(problem);
  }
}

/**
 * Listens to a caliper or height stick until it is stopped or switches itself off.
 * @param onReading each value as it is read, in mm or cm
 */
export async function listenTo(
  input: Required<Pick<Input<'instrument'>, 'params' | 'query'>>,
  signal: AbortSignal,
  onReading: (value: number) => void,
): Promise<void> {
  const response = await send('instrument', input, { signal });
  for await (const line of answerLines(response, signal)) {
    const { value } = JSON.parse(line) as AnswerOf<'instrument'>;
    if (value !== null) onReading(value);
  }
}

/** The lines of a streamed answer as they come; one that breaks off was cut from here, or there is no network. */
async function* answerLines(response: Response, signal: AbortSignal): AsyncGenerator<string> {
  const reader = response.body!.getReader();
  async function* parts() {
    for (;;) {
      const { done, value } = await reader.read().catch((error: unknown) => {
        if (signal.aborted) throw error;
        throw new OfflineError();
      });
      if (done) return;
      yield value;
    }
  }
  yield* linesOf(parts());
}

/** Sends a photo; sent again under its id, it is the same photo. */
export async function putPhoto(
  params: ParamsOf<'keepPhoto'>,
  photo: Blob,
  { signal, withinMs }: { signal?: AbortSignal; withinMs?: number } = {},
): Promise<AnswerOf<'keepPhoto'>> {
  const response = await send(
    'keepPhoto',
    { params, withinMs },
    { headers: { 'content-type': 'image/jpeg' }, body: photo, signal },
  );
  return (await response.json()) as AnswerOf<'keepPhoto'>;
}

/** Sends an archive and says how far it is; nothing is taken if it is stopped before it is whole. */
export function sendArchive(
  file: Blob,
  signal: AbortSignal,
  onProgress: (share: number) => void,
): Promise<AnswerOf<'bringIn'>> {
  // fetch does not tell how much of a body has gone out.
  return new Promise((resolve, reject) => {
    const request = new XMLHttpRequest();
    request.open('POST', addressOf('bringIn', {}));
    request.setRequestHeader('content-type', 'application/zip');
    request.upload.onprogress = ({ loaded, total }) => onProgress(total ? loaded / total : 0);
    request.upload.onload = () => onProgress(1);
    request.onerror = request.onabort = () => reject(new OfflineError());
    request.onload = () => {
      try {
        const answer: unknown = JSON.parse(request.responseText);
        if (request.status === 200) resolve(answer as AnswerOf<'bringIn'>);
        else reject(new ProblemError(answer as Problem));
      } catch {
        reject(new OfflineError());
      }
    };
    signal.addEventListener('abort', () => request.abort());
    request.send(file);
  });
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
  for await (const line of answerLines(response, signal)) {
    const message = JSON.parse(line) as { progress?: number; report?: ImportReport; problem?: Problem };
    if (message.progress !== undefined) onProgress(message.progress);
    if (message.problem) throw new ProblemError(message.problem);
    if (message.report) return message.report;
  }
  throw new OfflineError();
}
