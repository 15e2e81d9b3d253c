import type { RootsMoving } from '@kauri/core';
import { say } from '@kauri/core';
import { typedNumber } from '../../parts/typed';
import { count } from '../../words/numbers';

/** What is counted of roots while a lot is moved on, in the order of the hands. */
export const rootsSeen = ['circling', 'teased', 'shaved', 'rejected'] as const;

/** What was seen of roots, as it is typed. */
export type TypedRoots = Record<keyof RootsMoving, string>;
export const blankRoots = (): TypedRoots => ({
  looked: '',
  circling: '',
  teased: '',
  shaved: '',
  rejected: '',
});

/** What was typed: blank counts are none, blank looked at is all that stand; null where nothing was typed. */
export function rootsTyped(typed: TypedRoots, standing: number): RootsMoving | null {
  if (Object.values(typed).every((text) => text.trim() === '')) return null;
  const whole = (text: string, blank: number) => (text.trim() === '' ? blank : typedNumber(text));
  return {
    looked: whole(typed.looked, standing),
    circling: whole(typed.circling, 0),
    teased: whole(typed.teased, 0),
    shaved: whole(typed.shaved, 0),
    rejected: whole(typed.rejected, 0),
  };
}

/** What roots looked like on the way, in a line of the records: “60 looked at: 9 circling, 7 teased”. */
export function rootsMovingWords(roots: RootsMoving): string {
  const words = {
    circling: say`${count(roots.circling)} circling`,
    teased: say`${count(roots.teased)} teased`,
    shaved: say`${count(roots.shaved)} shaved`,
    rejected: say`${count(roots.rejected)} rejected`,
  };
  const some = rootsSeen.filter((what) => roots[what] > 0).map((what) => words[what]);
  return say`${count(roots.looked)} looked at: ${some.join(', ') || say`none circling`}`;
}
