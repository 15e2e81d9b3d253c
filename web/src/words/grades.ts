import { say, inWords } from '@kauri/core';
import type { CullReason } from '@kauri/core';
import type { GradeScheme } from '@kauri/core/contract';

type Written = GradeScheme['grades'][number];

/** Heights of a grade as a grower writes them: “40–60”, “60+”, “under 40”. */
export function heightsWritten(
  { fromCm, toCm }: Pick<Written, 'fromCm' | 'toCm'>,
  shown: (cm: number) => number,
): string {
  const part = (cm: number) => String(Number(shown(cm).toFixed(1)));
  if (fromCm === null && toCm === null) return '';
  if (toCm === null) return `${part(fromCm!)}+`;
  return fromCm === null ? say`under ${part(toCm)}` : `${part(fromCm)}–${part(toCm)}`;
}

/** A collar as a grower writes it: “6 mm”, without a nought after the point. */
export const collarWritten = (shown: number, unit: string): string => `${Number(shown.toFixed(2))} ${unit}`;

const reasons: Record<CullReason, string> = inWords({
  small: 'too small',
  thin: 'too thin',
  roots: 'roots',
  stem: 'stem or crown',
  broken: 'broken',
  sick: 'sick',
});
/** Why a tree was culled, in a grower's words. */
export const cullWords = (why: CullReason): string => reasons[why];
