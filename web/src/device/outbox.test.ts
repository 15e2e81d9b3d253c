import 'fake-indexeddb/auto';
import { Unfit, type HeldWrite } from '@kauri/core';
import fc from 'fast-check';
import { v7 as newId } from 'uuid';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { OfflineError, ProblemError } from '../api/problem';
import { Device, type KeptAct } from './device';
import { memoryOf } from './memory';
import { KEPT } from './keptAnswer';
import { NoRoomError, outbox, type OutboxTerms } from './outbox';

const nursery = newId();
const made = (id = newId(), counted = 60) => ({
  id,
  nurseryId: nursery,
  words: `${counted} counted.`,
  photo: null,
  form: null,
  write: {
    route: 'countEmergence',
    params: { nursery, lot: nursery },
    body: { id, on: '2026-11-24', counted, cause: null },
  } satisfies HeldWrite,
});
const problem = (status: number, kind = 'not-enough') =>
  new ProblemError({ type: `/problems/${kind}`, title: '', status, detail: `It is ${kind}.` });

const devices: Device[] = [];
const newDevice = () => {
  const device = new Device(newId());
  devices.push(device);
  return device;
};
afterEach(async () => {
  for (const device of devices.splice(0)) await device.delete();
});
/** An outbox whose server answers as told. */
function box(transmit: OutboxTerms['transmit'], more: Partial<OutboxTerms> = {}, device = newDevice()) {
  const terms = {
    device,
    transmit,
    taken: () => undefined,
    check: () => undefined,
    alone: <T>(work: () => Promise<T>) => work(),
    now: () => 0,
    patienceMs: 60_000,
    ...more,
  };
  return { ...outbox(terms), device, terms, left: () => device.acts.orderBy('seq').toArray() };
}
const wait = (): [Promise<unknown>, (answer: unknown) => void] => {
  let answer = (_: unknown) => {};
  return [new Promise((resolve) => (answer = resolve)), (given) => answer(given)];
};

describe('an act', () => {
  it('is kept before it is sent, answered by the server, and let go of once what it answered is taken in', async () => {
    const seen: number[] = [];
    const device = newDevice();
    const look = async () => void seen.push(await device.acts.count());
    const looked: Promise<void>[] = [];
    const mine = box(
      async () => {
        await look();
        return { lot: 'after' };
      },
      { taken: () => void looked.push(look()) },
      device,
    );
    expect(await mine.write(made())).toEqual({ lot: 'after' });
    await Promise.all(looked);
    expect(seen).toEqual([1, 1]);
    expect(await mine.left()).toEqual([]);
  });

  it('waits where nobody answers, with those after it, and all are sent in order, each once', async () => {
    let away = true;
    const sent: string[] = [];
    const mine = box(async (act) => {
      if (away) throw new OfflineError();
      sent.push(act.id);
      return {};
    });
    const acts = [made(), made(), made()];
    for (const act of acts) expect(await mine.write(act)).toBe(KEPT);
    expect((await mine.left()).map(({ id }) => id)).toEqual(acts.map(({ id }) => id));
    away = false;
    await mine.flush();
    expect(sent).toEqual(acts.map(({ id }) => id));
    expect(await mine.left()).toEqual([]);
  });

  it('that is refused while its sheet waits goes back to the sheet; nothing is kept', async () => {
    const mine = box(() => Promise.reject(problem(409)));
    await expect(mine.write(made())).rejects.toMatchObject({ problem: { status: 409 } });
    expect(await mine.left()).toEqual([]);
  });

  it('that is refused later stays with its sentence, and the rest goes on', async () => {
    let away = true;
    const [bad, good] = [made(), made()];
    const mine = box(async ({ id }) => {
      if (away) throw new OfflineError();
      if (id === bad.id) throw problem(409);
      return {};
    });
    await mine.write(bad);
    await mine.write(good);
    away = false;
    await mine.flush();
    const left = await mine.left();
    expect(left).toMatchObject([{ id: bad.id, state: 'refused', fault: { detail: 'It is not-enough.' } }]);
    // Mended, it is sent again.
    const sent = vi.fn(async (_: KeptAct) => ({}));
    const again = outbox({ ...mine.terms, transmit: sent });
    await again.retry(left[0].seq!, made(bad.id, 55).write);
    expect(sent.mock.calls[0][0].write.body).toMatchObject({ counted: 55 });
    expect(await mine.left()).toEqual([]);
  });

  it('waits through what passes by itself: too many at once, a server that starts', async () => {
    const answers = [problem(429), problem(503), null];
    const mine = box(async () => {
      const next = answers.shift();
      if (next) throw next;
      return {};
    });
    expect(await mine.write(made())).toBe(KEPT);
    await mine.flush();
    expect(await mine.left()).toHaveLength(1);
    await mine.flush();
    expect(await mine.left()).toEqual([]);
  });

  it('that cannot be, by what is known here, is refused at once where nobody else can be asked', async () => {
    const check = () => {
      throw new Unfit('71 trees to go, but 70 are there.');
    };
    const mine = box(() => Promise.reject(new OfflineError()), { check });
    await expect(mine.write(made())).rejects.toThrow('71 trees to go');
    expect(await mine.left()).toEqual([]);
    // Where the server can be asked, it is the one to say.
    const [answered] = [box(async () => ({ ok: true }), { check })];
    expect(await answered.write(made())).toEqual({ ok: true });
  });

  it('is told to be kept where the answer takes long; the refusal that comes then stays', async () => {
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] });
    try {
      const [answer, give] = wait();
      const began = wait();
      const mine = box(async () => {
        began[1](null);
        await answer;
        throw problem(409);
      });
      const writing = mine.write(made());
      await began[0];
      vi.advanceTimersByTime(60_000);
      expect(await writing).toBe(KEPT);
      give(null);
      await mine.flush();
      expect(await mine.left()).toMatchObject([{ state: 'refused' }]);
    } finally {
      vi.useRealTimers();
    }
  });

  it('made while others are being sent goes out with them', async () => {
    const [answer, give] = wait();
    const mine = box(() => answer);
    const [first, second] = [mine.write(made()), mine.write(made())];
    give('taken');
    expect(await Promise.all([first, second])).toEqual(['taken', 'taken']);
  });

  it('is taken back while it waits, and not once it is sent', async () => {
    const act = made();
    const mine = box(() => Promise.reject(new OfflineError()));
    await mine.write(act);
    expect(await mine.takeBack(act.id)).toBe(true);
    expect(await mine.takeBack(act.id)).toBe(false);
    expect(await mine.left()).toEqual([]);
  });

  it('on a device without room is sent at once or not at all', async () => {
    const full = newDevice();
    vi.spyOn(full, 'transaction').mockRejectedValue(new DOMException('full', 'QuotaExceededError'));
    expect(await box(async () => 'taken', {}, full).write(made())).toBe('taken');
    await expect(
      box(() => Promise.reject(new OfflineError()), {}, full).write(made()),
    ).rejects.toBeInstanceOf(NoRoomError);
  });

  it('is taken exactly once whatever the network does, in the order it was made', async () => {
    // What the network does to each sending: through, nobody answers, or the answer alone is lost.
    const weather = fc.array(fc.constantFrom('through', 'cut', 'answer lost'), {
      minLength: 40,
      maxLength: 40,
    });
    await fc.assert(
      fc.asyncProperty(weather, fc.integer({ min: 1, max: 12 }), async (days, count) => {
        const taken: string[] = [];
        const had = new Set<string>();
        const mine = box(async ({ id }) => {
          const now = days.shift() ?? 'through';
          if (now === 'cut') throw new OfflineError();
          // The server takes an id once and answers it again.
          if (!had.has(id)) taken.push(id);
          had.add(id);
          if (now === 'answer lost') throw new OfflineError();
          return {};
        });
        const acts = Array.from({ length: count }, () => made());
        for (const act of acts) await mine.write(act);
        for (let i = 0; i < 50 && (await mine.device.acts.count()); i++) await mine.flush();
        expect(taken).toEqual(acts.map(({ id }) => id));
        expect(await mine.left()).toEqual([]);
      }),
      { numRuns: 20 },
    );
  });
});

describe('what was seen', () => {
  const stamp = (word: string) => new Map([['a', { id: 'a', stamp: word } as never]]);
  const records = { lots: [{ id: 'a' }], evidence: [{ lotId: 'a' }] } as never;

  it('is recalled as it came; another build of Kauri does not see it, and acts stay', async () => {
    const device = newDevice();
    await device.tidy('one', 0);
    const memory = memoryOf(device, () => 5);
    memory.keep('/api/day', '{"today":"2026-11-24"}', '"a"');
    memory.keepLots(nursery, stamp('s'), records);
    await memory.settled();
    expect(await memory.recall('/api/day')).toEqual({
      text: '{"today":"2026-11-24"}',
      at: 5,
      tag: '"a"',
    });
    await box(() => Promise.reject(new OfflineError()), {}, device).write(made());
    await device.tidy('one', 10);
    expect(await memory.recall('/api/day')).not.toBeNull();
    await device.tidy('two', 10);
    expect(await memory.recall('/api/day')).toBeNull();
    expect((await memory.recallLots(nursery, ['a'], null)).lots).toEqual([]);
    expect(await device.acts.count()).toBe(1);
  });

  it('of a lot is given back while it is as it was, and any way where nobody can be asked', async () => {
    const memory = memoryOf(newDevice());
    memory.keepLots(nursery, stamp('s'), records);
    await memory.settled();
    expect(await memory.recallLots(nursery, ['a', 'b'], stamp('s'))).toEqual(records);
    expect((await memory.recallLots(nursery, ['a'], stamp('t'))).lots).toEqual([]);
    expect((await memory.recallLots(nursery, ['a'], null)).lots).toHaveLength(1);
    expect((await memory.recallLots(newId(), ['a'], null)).lots).toEqual([]);
    // Written to since: as it is now, but to be asked for again.
    memory.keepLots(nursery, new Map(), {
      ...(records as object),
      lots: [{ id: 'a', code: 'now' }],
    } as never);
    await memory.settled();
    expect((await memory.recallLots(nursery, ['a'], stamp(''))).lots).toEqual([]);
    expect((await memory.recallLots(nursery, ['a'], null)).lots).toMatchObject([{ code: 'now' }]);
  });
});
