import type { EpochDay } from '../calendar/day';
import type { LiftingWindow } from '../lifting/liftingWindow';
import type { SizeWanted, TreeForm } from './orderLine';
import type { PromiseAsk, PromisableLot } from './promisable';

/** Lifted trees of one grade that lie in the nursery. */
export interface LyingParcel extends SizeWanted {
  id: string;
  lotId: string;
  code: string;
  speciesId: string;
  form: TreeForm;
  grade: string;
  since: EpochDay;
  held: number;
}

/** Plugs and pots taken out of their places stand packed for so long at most, days; a rule of thumb. */
const PACKED_DAYS = 14;

/**
 * The last day on which a parcel can be promised: bare-root trees until buds are within two weeks in one year of ten, as if they
 * stood outside (cold delays them, which is not counted on); others, and where nothing rests, for two weeks.
 */
export function liesUntil(
  { form, since }: Pick<LyingParcel, 'form' | 'since'>,
  { bestBefore }: Pick<LiftingWindow, 'bestBefore'>,
): EpochDay {
  const packed = since + PACKED_DAYS;
  return form === 'bare-root' && Number.isFinite(bestBefore) ? Math.max(packed, bestBefore) : packed;
}

/** Whether trees of a grade all have the size asked for; trees that were not graded have none that is known. */
const isWithin = (grade: SizeWanted, asked: SizeWanted): boolean =>
  (asked.fromCm === null || (grade.fromCm !== null && grade.fromCm >= asked.fromCm)) &&
  (asked.toCm === null || (grade.toCm !== null && grade.toCm <= asked.toCm));

/**
 * What a parcel can be promised for: all that lies in it, from today until it should have left.
 * @returns null where it cannot serve the ask at all
 */
export function promisableParcel(
  { id, lotId, code, speciesId, form, grade, fromCm, toCm, held }: LyingParcel,
  ask: Omit<PromiseAsk, 'on'>,
  from: EpochDay,
  until: EpochDay,
): PromisableLot | null {
  const serves =
    speciesId === ask.speciesId && form === ask.form && held > 0 && isWithin({ fromCm, toCm }, ask);
  if (!serves || until < from) return null;
  return {
    id,
    lotId,
    code: grade ? `${code}, ${grade} lifted` : `${code}, lifted`,
    from,
    until,
    count: held,
    standing: held,
    likely: held,
    sure: true,
    holds: 1,
  };
}
