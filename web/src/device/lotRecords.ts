import type { AnswerOf, LotStamp } from '@kauri/core/contract';
import { OfflineError } from '../api/problem';
import type { Memory } from './memory';

type Records = AnswerOf<'lotRecords'>;

/**
 * Lots with their records: those that are as they were last seen from the device, the others from the server.
 * @param stamps every lot as the server last named it
 * @param ask the server
 * @returns with `older`, those that changed since but cannot be had as they are now
 * @throws OfflineError where nobody answers and one of them was never seen
 */
export async function lotRecords(
  memory: Memory | null,
  nurseryId: string,
  ids: readonly string[],
  stamps: ReadonlyMap<string, LotStamp>,
  ask: (ids: readonly string[]) => Promise<Records>,
): Promise<Records & { older?: ReadonlySet<string> }> {
  const known = (await memory?.recallLots(nurseryId, ids, stamps)) ?? { lots: [], evidence: [] };
  const here = new Set(known.lots.map(({ id }) => id));
  const wanted = ids.filter((id) => !here.has(id));
  if (!wanted.length) return known;
  const together = ({ lots, evidence }: Records): Records => ({
    lots: [...known.lots, ...lots],
    evidence: [...known.evidence, ...evidence],
  });
  try {
    const answer = await ask(wanted);
    memory?.keepLots(nurseryId, stamps, answer);
    return together(answer);
  } catch (error) {
    const older = error instanceof OfflineError ? await memory?.recallLots(nurseryId, wanted, null) : null;
    if (!older || older.lots.length < wanted.length) throw error;
    return { ...together(older), older: new Set(wanted) };
  }
}
