import { createPinia, setActivePinia } from 'pinia';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Memory } from '../device/memory';
import { useSaving } from '../parts/useSaving';
import { addressOf, call, importTable, onContact, onSignedOut, rememberIn, signOutBy } from './client';
import { fieldFault, OfflineError, ProblemError, sentenceOf } from './problem';

const problem = (status: number, kind: string, more = {}) =>
  new Response(
    JSON.stringify({ type: `/problems/${kind}`, title: 't', status, detail: `It is ${kind}.`, ...more }),
    { status },
  );
const nursery = '019aa5b0-7c00-7000-8000-000000000001';
const params = { nursery };

function answers(...responses: (Response | Error)[]) {
  const fetching = vi.fn(async (_address: string, _init: RequestInit) => {
    const next = responses.shift()!;
    if (next instanceof Error) throw next;
    return next;
  });
  vi.stubGlobal('fetch', fetching);
  return fetching;
}
afterEach(() => vi.unstubAllGlobals());

describe('a call', () => {
  it('goes to the route’s address, with what it is given', async () => {
    expect(addressOf('lots', { params, query: { after: 'a&b', limit: 5 } })).toBe(
      `/api/nurseries/${nursery}/lots?after=a%26b&limit=5`,
    );
    const fetching = answers(new Response('{"lots":[],"next":null}'));
    await expect(call('lots', { params })).resolves.toEqual({ lots: [], next: null });
    expect(fetching.mock.calls[0]).toMatchObject([`/api/nurseries/${nursery}/lots`, { method: 'GET' }]);
  });
  it('that several parts of a page make in one turn is asked once; after a write it is asked anew', async () => {
    const [lots, later] = ['{"lots":[],"next":null}', '{"lots":[],"next":"b"}'];
    const fetching = answers(
      new Response(lots),
      new Response('{}'),
      new Response(later),
      new Response(later),
    );
    const before = [call('lots', { params }), call('lots', { params })];
    const write = call('setPapers', { params, body: { version: 1, papers: { schema: 1, fields: [] } } });
    const after = call('lots', { params });
    const [one, other] = await Promise.all(before);
    expect(one).toBe(other);
    await write;
    await expect(after).resolves.toEqual({ lots: [], next: 'b' });
    // Answered, it is a thing of the past.
    await expect(call('lots', { params })).resolves.toEqual({ lots: [], next: 'b' });
    expect(fetching).toHaveBeenCalledTimes(4);
  });
  it('that is refused gives the server’s sentence, and the field', async () => {
    answers(
      problem(422, 'invalid', { fields: [{ path: 'stage.trays', message: 'Trays: a whole number.' }] }),
    );
    const error = await call('lots', { params }).catch((e: unknown) => e);
    expect(error).toBeInstanceOf(ProblemError);
    expect(sentenceOf(error)).toBe('It is invalid.');
    expect(fieldFault(error, 'stage')).toBe('Trays: a whole number.');
    expect(fieldFault(error, 'seeds')).toBeNull();
  });
  it('that fails inside names the request, so that it can be found', async () => {
    answers(problem(500, 'failed', { requestId: '0123456789abcdef' }));
    expect(sentenceOf(await call('lots', { params }).catch((e: unknown) => e))).toBe(
      'It is failed. (request 01234567)',
    );
  });
  it('that is not answered, or by something else than Kauri, says so', async () => {
    answers(new TypeError('fetch failed'), new Response('<html>', { status: 502 }));
    for (let i = 0; i < 2; i++) await expect(call('lots', { params })).rejects.toBeInstanceOf(OfflineError);
  });
  it('that reads is let go of at signing out, one that writes goes on; where that fails, nobody answered it', async () => {
    let answer!: (response: Response) => void;
    const fetching = vi.fn(
      (address: string, { signal }: RequestInit) =>
        new Promise<Response>((resolve, reject) => {
          if (address.endsWith('/sign-out')) resolve(problem(503, 'down'));
          if (address.endsWith('/papers')) answer = resolve;
          signal?.addEventListener('abort', () => reject(signal.reason));
        }),
    );
    vi.stubGlobal('fetch', fetching);
    const under = call('lots', { params });
    const written = call('setPapers', { params, body: { version: 1, papers: { schema: 1, fields: [] } } });
    const out = signOutBy(() => call('signOut', { body: {} }));
    await expect(out).rejects.toBeInstanceOf(ProblemError);
    await expect(under).rejects.toBeInstanceOf(OfflineError);
    answer(new Response('{"version":2}'));
    await expect(written).resolves.toEqual({ version: 2 });
    expect((fetching.mock.calls[0][1].signal as AbortSignal).aborted).toBe(true);
    // Whoever stays asks on.
    answers(new Response('{"lots":[],"next":null}'));
    await expect(call('lots', { params })).resolves.toEqual({ lots: [], next: null });
  });
  describe('that was made before', () => {
    const seen = new Map<string, { text: string; tag: string | null }>();
    const memory: Memory = {
      keep: (address, text, tag) => void seen.set(address, { text, tag }),
      recall: async (address) => (seen.has(address) ? { ...seen.get(address)!, at: 0 } : null),
      keepLots: () => undefined,
      recallLots: async () => ({ lots: [], evidence: [] }),
      settled: async () => undefined,
    };
    const told = vi.fn();
    beforeEach(() => {
      seen.clear();
      told.mockClear();
      rememberIn(Promise.resolve(memory));
      onContact(told);
    });
    afterEach(() => {
      rememberIn(null);
      onContact(() => undefined);
      vi.useRealTimers();
    });
    const page = '{"lots":[],"next":null}';

    it('is answered as it was last seen where nobody answers; a refusal, and what was never seen, are not', async () => {
      answers(new Response(page), new TypeError('fetch failed'), problem(403, 'not-yours'), new TypeError());
      await call('lots', { params });
      await expect(call('lots', { params })).resolves.toEqual({ lots: [], next: null });
      expect(told.mock.calls.map(([answered]) => answered)).toEqual([true, false]);
      await expect(call('lots', { params })).rejects.toThrow('It is not-yours.');
      await expect(call('orders', { params })).rejects.toBeInstanceOf(OfflineError);
    });

    it('is asked for by what the server called it, and told the same it is shown from the device', async () => {
      const [first, later] = [
        new Response(page, { headers: { etag: '"one"' } }),
        new Response('{"lots":[],"next":"b"}', { headers: { etag: '"two"' } }),
      ];
      const fetching = answers(first, new Response(null, { status: 304 }), later);
      const sent = () => (fetching.mock.lastCall![1].headers as Record<string, string>)['if-none-match'];
      await call('lots', { params });
      expect(sent()).toBeUndefined();
      await expect(call('lots', { params })).resolves.toEqual({ lots: [], next: null });
      expect(sent()).toBe('"one"');
      expect(told).toHaveBeenLastCalledWith(true, null);
      await expect(call('lots', { params })).resolves.toEqual({ lots: [], next: 'b' });
      expect(seen.get(addressOf('lots', { params }))?.tag).toBe('"two"');
    });

    it('and is answered late is shown as it was last seen meanwhile, and said to be so', async () => {
      vi.useFakeTimers();
      seen.set(addressOf('lots', { params }), { text: page, tag: null });
      let answer = (_: Response) => {};
      vi.stubGlobal('fetch', () => new Promise<Response>((resolve) => (answer = resolve)));
      const asked = call('lots', { params });
      await vi.advanceTimersByTimeAsync(8_000);
      await expect(asked).resolves.toEqual({ lots: [], next: null });
      expect(told).toHaveBeenLastCalledWith(false, null);
      answer(new Response('{"lots":[],"next":"a"}'));
      await vi.advanceTimersByTimeAsync(0);
      expect(told).toHaveBeenLastCalledWith(true, null);
      expect(seen.get(addressOf('lots', { params }))?.text).toContain('"a"');
    });
  });

  it('made by nobody waits until somebody has signed in, and is made again once', async () => {
    const fetching = answers(
      problem(401, 'signed-out'),
      new Response('{"lots":[],"next":null}'),
      problem(401, 'signed-out'),
      problem(401, 'signed-out'),
    );
    const signedIn = vi.fn(async () => undefined);
    onSignedOut(signedIn);
    await call('lots', { params });
    expect(signedIn).toHaveBeenCalledTimes(1);
    expect(fetching).toHaveBeenCalledTimes(2);
    await expect(call('lots', { params })).rejects.toMatchObject({ kind: 'signed-out' });
    expect(fetching).toHaveBeenCalledTimes(4);
  });
});

describe('an import', () => {
  const query = {
    check: 'true',
    date: 0,
    tMin: 1,
    tMax: 2,
    dateOrder: 'iso',
    temperature: 'C',
    rainUnit: 'mm',
  } as const;
  const report = { lines: 2, good: 2, bad: 0, issues: [], first: null, last: null, gaps: [], stored: false };
  const stream = (...chunks: string[]) =>
    new Response(
      new ReadableStream({
        start(controller) {
          for (const chunk of chunks) controller.enqueue(new TextEncoder().encode(chunk));
          controller.close();
        },
      }),
    );
  const send = (seen: number[] = []) =>
    importTable('importWeather', { params, query }, new Blob(['x']), new AbortController().signal, (p) =>
      seen.push(p),
    );

  it('follows the stream to its report, however it is cut', async () => {
    const text = `{"progress":0.25}\n{"progress":0.5}\n${JSON.stringify({ report })}\n`;
    for (const at of [1, 12, 18, 30, text.length - 1]) {
      const seen: number[] = [];
      answers(stream(text.slice(0, at), text.slice(at)));
      await expect(send(seen)).resolves.toEqual(report);
      expect(seen).toEqual([0.25, 0.5]);
    }
  });
  it('that fails on its way gives the sentence, and one cut off says so', async () => {
    const late = { type: '/problems/too-large', title: '', status: 413, detail: 'Too large.' };
    answers(
      stream('{"progress":0.5}\n', `${JSON.stringify({ problem: late })}\n`),
      stream('{"progress":0.5}\n'),
    );
    await expect(send()).rejects.toThrow('Too large.');
    await expect(send()).rejects.toBeInstanceOf(OfflineError);
  });
});

describe('saving', () => {
  it('keeps its id until it is taken, takes a new one for other words after a refusal, and never saves twice at once', async () => {
    setActivePinia(createPinia());
    const { save, sentence, busy } = useSaving('test');
    const ids: string[] = [];
    const attempt = (body: object, outcome: () => Promise<string>) =>
      save(body, (id) => {
        ids.push(id);
        return outcome();
      });
    const refuse = () =>
      Promise.reject(new ProblemError({ type: '/problems/x', title: '', status: 422, detail: 'No.' }));
    const lose = () => Promise.reject(new OfflineError());
    const take = () => Promise.resolve('taken');
    expect(await attempt({ a: 1 }, lose)).toBeNull();
    expect(sentence()).toContain('does not answer');
    // The same again, even with other words: the first may have been taken.
    expect(await attempt({ a: 1 }, refuse)).toBeNull();
    expect(sentence()).toBe('No.');
    expect(await attempt({ a: 1 }, refuse)).toBeNull();
    expect(await attempt({ a: 2 }, take)).toBe('taken');
    expect(sentence()).toBeNull();
    expect(await attempt({ a: 2 }, take)).toBe('taken');
    expect(ids[1]).toBe(ids[0]);
    expect(ids[2]).toBe(ids[0]);
    expect(ids[3]).not.toBe(ids[2]);
    expect(ids[4]).not.toBe(ids[3]);

    let release = () => undefined as void;
    const slow = attempt({ a: 3 }, () => new Promise((resolve) => (release = () => resolve('slow'))));
    expect(busy.value).toBe(true);
    expect(await attempt({ a: 3 }, take)).toBeNull();
    release();
    expect(await slow).toBe('slow');
  });
});
