import { say, inWords } from '@kauri/core';
import type {
  Criterion,
  DepthBand,
  LotVerdict,
  RootFigure,
  RootPath,
  RootSchool,
  SequentialCall,
  TapForm,
} from '@kauri/core';
import { percent, surely, several } from './numbers';

export const rootSchoolWords: Record<RootSchool, string> = inWords({
  structure: 'Structure first',
  fibre: 'Fibre first',
  depth: 'Depth first',
});
export const schoolSays: Record<RootSchool, string> = inWords({
  structure: 'Straight roots all round, some at the surface. A turned root stays turned: reject it now.',
  fibre: 'As many young tips as can be, a held plug, the taproot stopped early; shift every season.',
  depth: 'For dry or rocky ground: one long straight root, and fibre at its foot.',
});
export const pathWords: Record<RootPath, string> = inWords({
  straight: 'straight',
  steep: 'steep',
  wall: 'along the wall',
  circling: 'circling',
  kinked: 'kinked',
  ascending: 'ascending',
  j: 'J-shaped',
});
export const bandWords: Record<DepthBand, string> = inWords({ top: 'top', middle: 'middle', low: 'low' });
export const tapWords: Record<TapForm, string> = inWords({
  straight: 'straight down',
  stopped: 'stopped, branched',
  bent: 'bent or J',
  none: 'none',
});
export const callWords: Record<SequentialCall, string> = inWords({
  accept: 'Accept',
  reject: 'Reject',
  pull: 'Pull another',
});

interface FigureWords {
  words: string;
  show: (value: number) => string;
}
const whole = (value: number) => String(Math.round(value * 10) / 10);
export const figureWords: Record<RootFigure, FigureWords> = inWords(
  {
    laterals: { words: 'laterals', show: whole },
    largestGapDeg: { words: 'widest gap', show: (v) => `${Math.round(v)}°` },
    oneSided: { words: 'one-sidedness', show: (v) => v.toFixed(2) },
    straight: { words: 'straight', show: percent },
    straightTop: { words: 'straight near the surface', show: whole },
    turned: { words: 'turned by the wall', show: percent },
    steep: { words: 'steep', show: percent },
    tapSound: { words: 'taproot sound', show: (v) => (v >= 1 ? 'yes' : 'bent') },
    tapStraight: { words: 'taproot straight', show: (v) => (v >= 1 ? 'yes' : 'no') },
    fibre: { words: 'fibre, of 3', show: whole },
    fibreLow: { words: 'fibre in the lowest third, of 3', show: whole },
    surface: { words: 'roots on the outside, of 3', show: whole },
    tips: { words: 'white tips', show: (v) => (v >= 1 ? 'white' : v >= 0.5 ? 'some' : 'brown') },
    plug: { words: 'plug score, of 4', show: whole },
    nodules: { words: 'nodules, of 2', show: whole },
    sturdiness: { words: 'sturdiness, cm to mm', show: whole },
    shootRoot: { words: 'shoot to root', show: whole },
    qualityIndex: { words: 'quality index', show: (v) => v.toFixed(2) },
  },
  'words',
);

/** What a criterion asks: «at least 4», «2 to 3». */
export function boundWords({ figure, least, most }: Pick<Criterion, 'figure' | 'least' | 'most'>): string {
  const { show } = figureWords[figure];
  if (figure === 'tapSound' || figure === 'tapStraight') return least === null ? 'no' : 'yes';
  if (least !== null && most !== null) return say`${show(least)} to ${show(most)}`;
  if (least !== null) return say`at least ${show(least)}`;
  return most === null ? 'anything' : say`at most ${show(most)}`;
}

/** The decision on a lot’s roots. */
export function verdictWords({ sequential: s, passing }: LotVerdict): {
  headline: string;
  detail: string;
  urgent: boolean;
} {
  const band = say`${percent(passing.share)} pass; in the lot ${Math.round(passing.p10 * 100)} to ${Math.round(passing.p90 * 100)} % do, eight chances in ten.`;
  const capped = s.by === 'cap' ? say` The most plants were pulled, so the odds decide.` : '';
  switch (s.call) {
    case 'accept':
      return {
        headline: say`Accept: ${s.failing ? say`${s.failing} of ${s.pulled} fail` : say`all ${s.pulled} pass`}`,
        detail: say`${band}${capped} No more need be pulled.`,
        urgent: false,
      };
    case 'reject':
      return {
        headline: say`Reject: ${s.failing} of ${s.pulled} fail`,
        detail: say`${band}${capped} Shift, shave or cull before they go out; say what was done in the note.`,
        urgent: true,
      };
    case 'pull':
      return s.pulled === 0
        ? {
            headline: say`Pull a plant`,
            detail: say`${several(s.soonestAccept, 'good one')} in a row would accept the lot, ${several(s.soonestReject, 'bad one')} reject it. Take them from all over, not from the edge.`,
            urgent: false,
          }
        : {
            headline: say`Pull another: ${s.failing} of ${s.pulled} fail so far`,
            detail: say`${several(s.soonestAccept, 'good one')} more would accept it, ${several(s.soonestReject, 'bad one')} reject it. Good: ${surely(s.chanceGood)}, bad: ${surely(s.chanceBad)}.`,
            urgent: false,
          };
  }
}

/** What a pulled plug scores, 0 to 4. */
export const plugScoreWords: readonly string[] = inWords(['loose', 'crumbles', 'holds', 'tight', 'solid']);
/** How much fibre there is, 0 to 3. */
export const fibreWords: readonly string[] = inWords(['none', 'sparse', 'good', 'dense']);
/** How many long roots lie on the outside, 0 to 3. */
export const surfaceWords: readonly string[] = inWords(['clean', 'a few', 'many', 'matted']);
/** What is seen of a plant at a glance. */
export const seenWords = inWords({
  none: 'none',
  few: 'few',
  many: 'many',
  white: 'white',
  some: 'some',
  brown: 'brown',
  clean: 'clean',
  matted: 'matted',
  'all round': 'all round',
  gaps: 'gaps',
  'one-sided': 'one-sided',
  straight: 'straight',
  'some turned': 'some turned',
  'mostly turned': 'mostly turned',
} as const);
