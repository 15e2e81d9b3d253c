import type { PhaseKind, School, SeedAct, Store, TestKind, CuttingKind } from '@kauri/core';
import type { LotRow } from '@kauri/core/contract';
import { shortDate, yearOf } from './dates';
import { count, percent } from './numbers';

export const storeWords: Record<Store, string> = {
  fridge: 'Dry, in the fridge',
  freezer: 'Dry, in the freezer',
  room: 'Dry, at room warmth',
  'cool-moist': 'Cool and moist',
  outdoors: 'Outdoors',
};
export const storageWords = {
  orthodox: 'keeps dry and cold for years',
  intermediate: 'keeps dry and cool for a year or a few',
  recalcitrant: 'dies if it dries; lasts a winter',
} as const;
export const testWords: Record<TestKind, string> = {
  germination: 'Germination test',
  cut: 'Cut test',
  float: 'Float test',
};
export const passedWords: Record<TestKind, string> = {
  germination: 'germinated',
  cut: 'sound',
  float: 'sank',
};
export const phaseWords: Record<PhaseKind, string> = {
  soak: 'soak',
  scarify: 'scarify',
  'hot-water': 'hot water',
  warm: 'warm, moist',
  cold: 'cold, moist',
  'dry-back': 'dry back',
};
export const schoolWords: Record<School, string> = {
  indoors: 'indoors, watched',
  tub: 'leaf-filled tub outdoors',
  sown: 'sown fresh in autumn',
};
export const cuttingWords: Record<CuttingKind, string> = {
  hard: 'hardwood',
  'semi-ripe': 'semi-ripe',
  soft: 'softwood',
  root: 'root',
};
/** How a lot was begun: «sown 2 Apr 2026». */
export const begunWords: Record<LotRow['origin'], string> = {
  seed: 'sown',
  cuttings: 'stuck',
  pricked: 'pricked out',
  layer: 'potted',
};
export const reasonWords = {
  received: 'received',
  tested: 'used in a test',
  treated: 'put under treatment',
  sown: 'sown',
  given: 'given away',
  'thrown-out': 'thrown out',
  counted: 'weighed anew',
} as const;

/** A protocol in a line: «soak 1 d, then cold 60 d». */
export function phasesWords(phases: readonly { kind: PhaseKind; days: number }[]): string {
  return phases.length
    ? phases.map((phase) => `${phaseWords[phase.kind]} ${phase.days} d`).join(', then ')
    : 'nothing, ready to sow';
}

/** A share with its band: «62 % (51 to 72)». */
export function shareBand({ mean, p10, p90 }: { mean: number; p10: number; p90: number }): string {
  return `${percent(mean)} (${Math.round(p10 * 100)} to ${Math.round(p90 * 100)})`;
}

/** What the Seed station asks for, with its reason. */
export function seedActWords(act: SeedAct, name: string, today: number): { title: string; reason: string } {
  const day = (value: number) => shortDate(value, yearOf(today));
  const f = act.figures;
  switch (act.rule) {
    case 'radicles-out':
      return {
        title: `Sow ${name} at once: radicles are out`,
        reason: `Seen ${day(f.since)}; sow by ${day(act.by!)}, root down, barely covered, mulch, cover against rodents.`,
      };
    case 'sow-batch':
      return {
        title: act.by! <= today ? `Sow ${name}: its treatment is done` : `Make ready to sow ${name}`,
        reason: `Done ${day(act.by!)} in the middle of the weather years; radicles within a week: ${percent(f.chance)}.`,
      };
    case 'check-batch':
      return {
        title: `Look for radicles in ${name}`,
        reason: `Chance that some show within a week: ${percent(f.chance)}.`,
      };
    case 'retest':
      return {
        title: `Test ${name} again`,
        reason: `About ${percent(f.alive)} alive, but it may be ${Math.round(f.low * 100)} or ${Math.round(f.high * 100)} %.`,
      };
    case 'likely-dead':
      return {
        title: `${name} is likely dead`,
        reason: `About ${percent(f.alive)} alive; below a tenth since ${day(f.since)}. Test it, or give the room to fresh seed.`,
      };
    case 'sever':
      return {
        title: `Sever and pot the layer ${name}`,
        reason: `By ${day(act.by!)}, so that it makes roots in its pot before frost.`,
      };
    case 'keep-on':
      return {
        title: `Keep the layer ${name} on its branch over winter`,
        reason: `The last day to sever it was ${day(f.severBy)}. Wrap the pouch against frost; sever in the new season.`,
      };
    case 'late-up':
      return {
        title: `Look at ${name}: it is late coming up`,
        reason: `${count(f.up)} up where ordinary seed would show ${count(Math.round(f.expected))}; about ${count(Math.round(f.final))} to come in all. Count, dig for seed, look for rot and mice.`,
      };
    case 'look-layer':
      return {
        title: `Look for roots in the layer ${name}`,
        reason: `Rooted in time for ${day(f.severBy)}: ${percent(f.chance)}.`,
      };
  }
}
