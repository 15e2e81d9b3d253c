import type { EpochDay } from '../calendar/day';
import { factorLog } from '../growth/sizeBelief';
import { VIGOUR_SD_LOG } from '../roots/vigour';
import type { Outlook } from '../weather/ensemble';
import { warmthFor, type Warmth } from '../weather/sums';
import { lotBeliefs } from './lotDraws';
import type { LearntFigure, LotTaught } from '../growth/learnt';
import type { LotFacts } from './lotFacts';

/** Days a lot must have been up before what it says of its kind is asked. */
export const TEACHES_AFTER_DAYS = 120;

/** What one lot’s records say of its species’ values, and the spread they were read with. */
export type Teaching = Partial<Record<LearntFigure, LotTaught & { priorSdLog: number }>>;

/**
 * What a lot that has had its season teaches. Lots that never were measured, or moved between homes, teach nothing: in one
 * home alone does a figure belong to a container.
 * @param facts with the species’ own values, not such as were learnt before
 */
export function teachingOf(
  facts: LotFacts,
  { outlook, warmth: usual }: { outlook: Outlook; warmth: Warmth },
  upOn: EpochDay | null,
): Teaching {
  const warmth = warmthFor(facts.species, outlook, usual);
  if (upOn === null || warmth.asOf - upOn < TEACHES_AFTER_DAYS || (facts.homes?.length ?? 1) > 1) return {};
  const { height, roots } = lotBeliefs(facts, outlook.site.latitudeDeg, warmth, upOn);
  const base = { lotId: facts.id, code: facts.code };
  const teaching: Teaching = {};
  if (facts.pulls.some((p) => p.day <= warmth.asOf))
    teaching.vigour = { ...base, logMean: roots.logMean, logSd: roots.logSd, priorSdLog: VIGOUR_SD_LOG };
  if (facts.sizes.some((s) => s.what === 'height' && s.day <= warmth.asOf)) {
    const { mean, sd } = factorLog(height.belief);
    teaching.height = { ...base, logMean: mean, logSd: sd, priorSdLog: facts.species.heightCm.sdLog };
  }
  return teaching;
}
