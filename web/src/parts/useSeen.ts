import type { LotRow } from '@kauri/core/contract';
import { ProblemError } from '../api/problem';
import { useNursery } from '../stores/nursery';

/**
 * The stages some lots stood in when a sheet about them was opened. Where somebody moves one meanwhile, the server asks
 * before it keeps what was typed; once that has been said, keeping it again is meant for the lot as it stands.
 */
export function useSeen(rows: () => readonly LotRow[]) {
  const nursery = useNursery();
  const stages = new Map(rows().map((row) => [row.id, row.stage.id]));
  return {
    of: (lotId: string): string | undefined => stages.get(lotId),
    /** Takes in what a refusal said of a lot that was moved. */
    told(fault: unknown): void {
      if (!(fault instanceof ProblemError) || fault.kind !== 'moved-meanwhile') return;
      const now = fault.problem.current as LotRow;
      stages.set(now.id, now.stage.id);
      // Its lists and forecasts follow as well.
      nursery.catchUp().catch(() => undefined);
    },
  };
}
