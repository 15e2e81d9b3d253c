import type { HeldWrite } from '@kauri/core';
import type { Evidence, LotRow, Problem } from '@kauri/core/contract';
import Dexie, { type Table } from 'dexie';

/** A write kept on this device until the server has it. */
export interface KeptAct {
  /** In the order it was made. */
  seq?: number;
  /** Of the write: sent again, it is taken once. */
  id: string;
  nurseryId: string;
  write: HeldWrite;
  /** Of `keepPhoto`; null of every other. */
  photo: Blob | null;
  /** What was done, as it is listed. */
  words: string;
  /** The sheet it was typed in, by its place in the browser, and what was typed: to mend what is refused. */
  form: { key: string; draft: unknown } | null;
  /** When, by this device’s clock. */
  at: number;
  /** Refused ones stay until they are mended or dropped; the rest goes on without them. */
  state: 'waiting' | 'refused';
  fault: Problem | null;
}

/** An answer of the server as it was last seen. */
interface KeptAnswer {
  address: string;
  at: number;
  text: string;
  /** What the server calls it, to be told when it is the same. */
  tag: string | null;
}

/** A lot as it was last seen. */
interface KeptLot {
  nurseryId: string;
  id: string;
  stamp: string;
  row: LotRow;
  evidence: Evidence;
}

/** Answers not seen again for so long are let go, days. */
const ANSWER_DAYS = 60;
const DAY_MS = 86_400_000;

/**
 * What one person’s browser keeps on this device: what they did and the server does not have yet, and what they last saw of
 * their nurseries. Each person has one of their own.
 */
export class Device extends Dexie {
  declare acts: Table<KeptAct, number>;
  declare answers: Table<KeptAnswer, string>;
  declare lots: Table<KeptLot, [string, string]>;
  declare facts: Table<{ name: string; value: string }, string>;

  constructor(readonly personId: string) {
    super(`kauri.${personId}`);
    this.version(1).stores({
      acts: '++seq, &id',
      answers: 'address, at',
      lots: '[nurseryId+id]',
      facts: 'name',
    });
  }

  /**
   * Lets go of what another build of Kauri saw, whose shape may be another, and of what was not seen for long. Acts stay.
   * @param build names the build that reads from here on
   */
  async tidy(build: string, now: number): Promise<void> {
    await this.transaction('rw', this.answers, this.lots, this.facts, async () => {
      if ((await this.facts.get('build'))?.value !== build) await this.forget();
      await this.facts.put({ name: 'build', value: build });
      await this.answers
        .where('at')
        .below(now - ANSWER_DAYS * DAY_MS)
        .delete();
    });
  }

  /** Lets go of everything seen; acts not sent yet stay. */
  async forget(): Promise<void> {
    await Promise.all([this.answers.clear(), this.lots.clear()]);
  }
}
