import { dayOf, isoOf, type EpochDay } from '../calendar/day';
import { betaProduct, type Beta } from '../chance/beta';
import type { Evidence, LotRow, Species } from '../contract';
import { shootWarmth } from '../forecast/emergence';
import type { LotFacts } from '../forecast/lotFacts';
import { startOf } from '../species/startOf';
import type { EmergencePrior } from '../sowing/emergenceCurve';
import type { UpBy } from '../sowing/emergenceOutlook';

/** What is known of how a lot comes up. */
export interface RisingFacts {
  counts: UpBy[];
  sown: number;
  /** The lot, by which the day its warmth is counted from is found with the weather. */
  of: LotFacts;
  prior: EmergencePrior;
}

/**
 * How a lot comes up, as known on a day; null for one that was not sown or stuck here.
 * @param viability share alive in the bag it came from, where that is known
 */
export function risingFacts(
  row: Pick<LotRow, 'origin' | 'cutting'>,
  facts: LotFacts,
  evidence: Pick<Evidence, 'counts' | 'movements'>,
  species: Species,
  viability: Beta | null,
  day: EpochDay,
): RisingFacts | null {
  if (row.origin !== 'seed' && row.origin !== 'cuttings') return null;
  const iso = isoOf(day);
  const counts = evidence.counts.filter((c) => c.on <= iso);
  const movements = evidence.movements.filter((m) => m.on <= iso);
  const sown = movements.reduce((t, m) => t + (m.from === 'seed' && m.to === 'sown' ? m.count : 0), 0);
  if (sown === 0) return null;
  const rooting = row.cutting === null ? undefined : startOf(species).cuttings[row.cutting];
  return {
    counts: upBy({ counts, movements }),
    sown,
    of: facts,
    prior: rooting
      ? { final: rooting.take, half: rooting.rootDd }
      : {
          final: betaProduct([viability ?? species.values.viability, species.values.emergence]),
          half: shootWarmth(facts),
        },
  };
}

/** All ever up by each day something came up or was counted. */
export function upBy(evidence: Pick<Evidence, 'counts' | 'movements'>): UpBy[] {
  const days = new Map<string, number>();
  for (const { on } of evidence.counts) days.set(on, 0);
  const came = evidence.movements.filter(
    (m) => (m.from === 'sown' && m.to === 'standing') || (m.from === 'standing' && m.to === 'sown'),
  );
  for (const { on } of came) days.set(on, 0);
  return [...days.keys()].sort().map((on) => ({
    day: dayOf(on),
    up: Math.max(
      0,
      came.reduce((t, m) => t + (m.on <= on ? (m.to === 'standing' ? m.count : -m.count) : 0), 0),
    ),
  }));
}
