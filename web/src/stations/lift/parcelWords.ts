import { say, inWords } from '@kauri/core';
import type { Parcel } from '@kauri/core/contract';
import { usePreferences } from '../../stores/preferences';
import { count } from '../../words/numbers';
import { sizeWords } from '../plan/orderWords';

/** Trees in a bundle, as chosen; empty for loose trees, or those left in their trays. */
export type Bundle = '' | '10' | '25' | '50';
export const bundleOptions: readonly { value: Bundle; words: string }[] = inWords(
  [
    { value: '', words: 'loose, or in trays' },
    { value: '10', words: '10' },
    { value: '25', words: '25' },
    { value: '50', words: '50' },
  ],
  'words',
);

/** Trees of a parcel as bundles and what is left over: “4 bundles of 25 and 12”. */
export function bundleWords(trees: number, bundleOf: number | null): string {
  if (bundleOf === null) return say`loose`;
  const bundles = Math.floor(trees / bundleOf);
  const over = trees % bundleOf;
  if (bundles === 0) return say`less than a bundle`;
  const whole = bundles === 1 ? say`1 bundle of ${bundleOf}` : say`${count(bundles)} bundles of ${bundleOf}`;
  return over ? say`${whole} and ${count(over)}` : whole;
}

/** Words of a grade that say no more than its heights do. */
const ONLY_HEIGHTS = /^(?:[\d\s.,–\-+<>…]|under|below|over|above|and|up|to|cm|in)*$/;

/** What a parcel is called beside its lot's code: its heights in the grower's units, with what else its grade says. */
export function gradeWords(
  { grade, fromCm, toCm }: Pick<Parcel, 'grade' | 'fromCm' | 'toCm'>,
  shown: (cm: number) => number,
  unit: string,
): string {
  if (fromCm === null && toCm === null) return grade || say`not graded`;
  const heights = sizeWords({ fromCm, toCm }, shown, unit);
  return ONLY_HEIGHTS.test(grade) ? heights : `${grade} (${heights})`;
}

/** The same with the units of whoever looks. */
export function useGradeWords(): (parcel: Pick<Parcel, 'grade' | 'fromCm' | 'toCm'>) => string {
  const { shown, unit } = usePreferences();
  return (parcel) => gradeWords(parcel, (cm) => shown(cm, 'height'), unit('height'));
}
