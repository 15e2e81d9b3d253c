import { say } from '@kauri/core';
import type { HeldWrite } from '@kauri/core';
import { OfflineError, ProblemError } from '../api/problem';
import type { Device, KeptAct } from './device';
import { KEPT } from './keptAnswer';

/** Problems that pass by themselves: the write waits, and is sent again. */
const passing = new Set([429, 502, 503, 504]);
const isPassing = (error: unknown) => error instanceof ProblemError && passing.has(error.problem.status);

/** An act with what the server answered. */
export interface Answered {
  act: Pick<KeptAct, 'id' | 'nurseryId' | 'write'> & { seq?: number };
  answer: unknown;
}

/** So many acts that nobody waits for are taken in at once: every list and forecast follows each time. */
const AT_ONCE = 25;

export interface OutboxTerms {
  device: Device;
  /** Sends one act. @throws ProblemError where it is refused, OfflineError where nobody answers */
  transmit: (act: KeptAct) => Promise<unknown>;
  /** Takes in what the server answered, before the acts are let go of here. */
  taken: (answered: readonly Answered[]) => void;
  /** @throws Unfit where a write cannot be, by what is known here: asked when nobody else can be */
  check: (write: HeldWrite) => void;
  /** Runs work while no other tab of this person does. */
  alone: <T>(work: () => Promise<T>) => Promise<T>;
  now: () => number;
  /** How long a sheet waits for an answer before it is told that its act is kept, ms. */
  patienceMs: number;
}

/**
 * Acts on their way to the server. Each is kept on the device first, then sent, one after another in the order they were made,
 * each once however often it is sent. One that is refused while its sheet is open goes back to the sheet; one refused later
 * stays, with the sentence, and the rest goes on.
 */
export function outbox({ device, transmit, taken, check, alone, now, patienceMs }: OutboxTerms) {
  interface Waiter {
    resolve: (answer: unknown) => void;
    reject: (error: unknown) => void;
  }
  /** Sheets that wait to hear of their act. */
  const waiters = new Map<string, Waiter>();
  let sending: Promise<void> | null = null;
  let again = false;

  const drop = (seq: number) => device.acts.delete(seq);
  const settle = (id: string, tell: (waiter: Waiter) => void) => {
    const waiter = waiters.get(id);
    waiters.delete(id);
    if (waiter) tell(waiter);
    return waiter !== undefined;
  };

  /** Sends what waits, in order, until there is none or nobody answers. @returns whether somebody did */
  async function send(): Promise<boolean> {
    let last = 0;
    let answered: Answered[] = [];
    // A tab that dies before what was answered is let go of sends it again: it is taken once.
    const takeIn = async () => {
      const these = answered;
      answered = [];
      if (!these.length) return;
      taken(these);
      // What is shown and the sheet that closes go together.
      for (const { act, answer } of these) settle(act.id, ({ resolve }) => resolve(answer));
      await device.acts.bulkDelete(these.map(({ act }) => act.seq!));
    };
    for (;;) {
      const act = await device.acts
        .where('seq')
        .above(last)
        .filter(({ state }) => state === 'waiting')
        .first();
      if (!act) {
        await takeIn();
        return true;
      }
      const seq = (last = act.seq!);
      try {
        answered.push({ act, answer: await transmit(act) });
        if (answered.length >= AT_ONCE || waiters.has(act.id)) await takeIn();
      } catch (error) {
        await takeIn();
        if (error instanceof ProblemError && !isPassing(error)) {
          if (waiters.has(act.id)) {
            await drop(seq);
            settle(act.id, ({ reject }) => reject(error));
          } else await device.acts.update(seq, { state: 'refused', fault: error.problem });
          continue;
        }
        if (error instanceof OfflineError || isPassing(error)) return false;
        throw error;
      }
    }
  }

  /** What became of the acts that sheets wait for, once the sending is over: most wait on. */
  async function tellWaiters(): Promise<void> {
    for (const id of [...waiters.keys()]) {
      const act = await device.acts.where('id').equals(id).first();
      if (act?.state === 'refused') {
        // Another tab sent it, and nobody there knew the sheet.
        await drop(act.seq!);
        settle(id, ({ reject }) => reject(new ProblemError(act.fault!)));
      } else if (act) {
        try {
          check(act.write);
          settle(id, ({ resolve }) => resolve(KEPT));
        } catch (error) {
          await drop(act.seq!);
          settle(id, ({ reject }) => reject(error));
        }
      } else settle(id, ({ resolve }) => resolve(KEPT));
    }
  }

  /** Sends what waits; asked while it is at it, it goes on to what came meanwhile. */
  function flush(): Promise<void> {
    if (sending) {
      again = true;
      return sending;
    }
    sending = (async () => {
      do {
        let answered = true;
        do {
          again = false;
          answered = await alone(send);
        } while (again && answered);
        // Sheets whose acts came after this are told once those were tried as well.
        await tellWaiters();
      } while (again);
    })().finally(() => (sending = null));
    return sending;
  }

  return {
    flush,

    /**
     * Keeps a write and sends it.
     * @returns the server’s answer, or KEPT where it waits on the device
     * @throws ProblemError where the server refuses it, Unfit where it cannot be by what is known here; nothing is kept then
     */
    async write(
      made: Pick<KeptAct, 'id' | 'nurseryId' | 'write' | 'words' | 'photo' | 'form'>,
    ): Promise<unknown> {
      const { id } = made;
      const act: KeptAct = { ...made, at: now(), state: 'waiting', fault: null };
      try {
        // Kept again under its id, after a lost tab or a mended refusal, it is the newer one that counts.
        await device.transaction('rw', device.acts, async () => {
          await device.acts.where('id').equals(id).delete();
          await device.acts.add(act);
        });
      } catch {
        return sendUnkept(act);
      }
      const answer = new Promise((resolve, reject) => waiters.set(id, { resolve, reject }));
      const timer = setTimeout(() => settle(id, ({ resolve }) => resolve(KEPT)), patienceMs);
      flush().catch((error: unknown) => settle(id, ({ reject }) => reject(error)));
      return answer.finally(() => clearTimeout(timer));
    },

    /** Takes back an act that the server does not have yet. @returns whether it was there still */
    takeBack: (id: string): Promise<boolean> =>
      alone(async () => (await device.acts.where('id').equals(id).delete()) > 0),

    /** Has a refused act sent again, as it is or as it was mended. */
    async retry(seq: number, mended?: HeldWrite): Promise<void> {
      await device.acts.update(seq, { state: 'waiting', fault: null, ...(mended ? { write: mended } : {}) });
      await flush();
    },
  };

  /** A device without room, or without a memory at all: sent at once or not at all. */
  async function sendUnkept(act: KeptAct): Promise<unknown> {
    try {
      const answer = await transmit(act);
      taken([{ act, answer }]);
      return answer;
    } catch (error) {
      if (error instanceof OfflineError) throw new NoRoomError();
      throw error;
    }
  }
}

/** Nobody answers, and the device cannot keep what was done. */
export class NoRoomError extends Error {
  constructor() {
    super(
      say`There is no network, and no room on this device to keep it. It was not kept: leave this sheet open, free some room or find the network, then try again.`,
    );
  }
}
