import type { Parcel } from '@kauri/core/contract';
import { count } from '../../words/numbers';

/** Trees in a bundle, as chosen; empty for loose trees, or those left in their trays. */
export type Bundle = '' | '10' | '25' | '50';
export const bundleOptions: readonly { value: Bundle; words: string }[] = [
  { value: '', words: 'loose, or in trays' },
  { value: '10', words: '10' },
  { value: '25', words: '25' },
  { value: '50', words: '50' },
];

/** Trees of a parcel as bundles and what is left over: “4 bundles of 25 and 12”. */
export function bundleWords(trees: number, bundleOf: number | null): string {
  if (bundleOf === null) return 'loose';
  const bundles = Math.floor(trees / bundleOf);
  const over = trees % bundleOf;
  if (bundles === 0) return 'less than a bundle';
  const whole = bundles === 1 ? `1 bundle of ${bundleOf}` : `${count(bundles)} bundles of ${bundleOf}`;
  return over ? `${whole} and ${count(over)}` : whole;
}

/** What a parcel is called beside its lot's code. */
export const gradeWords = ({ grade }: Pick<Parcel, 'grade'>): string => grade || 'not graded';
