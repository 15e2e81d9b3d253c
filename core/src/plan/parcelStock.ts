import { say } from '../speech/say';
import type { EpochDay } from '../calendar/day';
import type { ColdStore, LiesIn } from '../lifting/storeClock';
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
  /** The cold store it lies in; null out of doors. */
  store: ColdStore | null;
  /** Trees in it that are set aside for nobody. */
  free: number;
}

/** Where a parcel lies, by which its trees keep. */
export const liesIn = ({ form, since, store }: Pick<LyingParcel, 'form' | 'since' | 'store'>): LiesIn => ({
  isBareRoot: form === 'bare-root',
  since,
  store,
});

/** Whether trees of a grade all have the size asked for; trees that were not graded have none that is known. */
const isWithin = (grade: SizeWanted, asked: SizeWanted): boolean =>
  (asked.fromCm === null || (grade.fromCm !== null && grade.fromCm >= asked.fromCm)) &&
  (asked.toCm === null || (grade.toCm !== null && grade.toCm <= asked.toCm));

/** Whether lifted trees are of the form and size that somebody asks for. */
export const parcelMeets = (
  parcel: SizeWanted & { form: TreeForm },
  asked: SizeWanted & { form: TreeForm },
): boolean => parcel.form === asked.form && isWithin(parcel, asked);

/**
 * What a parcel can be promised for: all that lies free in it, from today until it should have left.
 * @returns null where it cannot serve the ask at all
 */
export function promisableParcel(
  { id, lotId, code, speciesId, form, grade, fromCm, toCm, free }: LyingParcel,
  ask: Omit<PromiseAsk, 'on'>,
  from: EpochDay,
  until: EpochDay,
): PromisableLot | null {
  const serves = speciesId === ask.speciesId && free > 0 && parcelMeets({ form, fromCm, toCm }, ask);
  if (!serves || until < from) return null;
  return {
    id,
    lotId,
    code: grade ? say`${code}, ${grade} lifted` : say`${code}, lifted`,
    from,
    until,
    count: free,
    standing: free,
    likely: free,
    sure: true,
    holds: 1,
  };
}
