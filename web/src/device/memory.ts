import type { AnswerOf, LotStamp } from '@kauri/core/contract';
import type { Device } from './device';

type Records = AnswerOf<'lotRecords'>;

/** What was last seen of the server, for when it cannot be asked. What the device has no room for is not remembered. */
export interface Memory {
  /** Remembers an answer as it came, and what the server calls it. */
  keep: (address: string, text: string, tag: string | null) => void;
  /** An answer as it was last seen, and when; null where it never was. */
  recall: (address: string) => Promise<{ text: string; at: number; tag: string | null } | null>;
  /** @param stamps of those that are as the server last named them; the others changed since, and are asked for again */
  keepLots: (nurseryId: string, stamps: ReadonlyMap<string, LotStamp>, records: Records) => void;
  /**
   * Lots as they were last seen.
   * @param stamps where given, only those that still are as they were
   */
  recallLots: (
    nurseryId: string,
    ids: readonly string[],
    stamps: ReadonlyMap<string, LotStamp> | null,
  ) => Promise<Records>;
  /** Resolves when all that was to be remembered is. */
  settled: () => Promise<void>;
}

export function memoryOf(device: Device, now: () => number = Date.now): Memory {
  const same = new Map<string, string>();
  let writing: Promise<unknown> = Promise.resolve();
  // One after another, behind what the page does; a device without room, or without a memory at all, is no fault.
  const behind = (work: () => Promise<unknown>) => {
    writing = writing.then(work).catch(() => undefined);
  };
  return {
    keep(address, text, tag) {
      if (same.get(address) === text) return;
      same.set(address, text);
      behind(() => device.answers.put({ address, at: now(), text, tag }));
    },
    async recall(address) {
      const kept = await device.answers.get(address).catch(() => undefined);
      return kept ? { text: kept.text, at: kept.at, tag: kept.tag } : null;
    },
    keepLots(nurseryId, stamps, { lots, evidence }) {
      const byLot = new Map(evidence.map((records) => [records.lotId, records]));
      const rows = lots.flatMap((row) => {
        const [stamp, records] = [stamps.get(row.id)?.stamp ?? '', byLot.get(row.id)];
        return records ? [{ nurseryId, id: row.id, stamp, row, evidence: records }] : [];
      });
      behind(() => device.lots.bulkPut(rows));
    },
    async recallLots(nurseryId, ids, stamps) {
      const kept = await device.lots
        .bulkGet(ids.map((id): [string, string] => [nurseryId, id]))
        .catch(() => []);
      const good = kept.flatMap((one) =>
        one && (stamps === null || (one.stamp !== '' && stamps.get(one.id)?.stamp === one.stamp))
          ? [one]
          : [],
      );
      return { lots: good.map(({ row }) => row), evidence: good.map(({ evidence }) => evidence) };
    },
    settled: async () => void (await writing),
  };
}
