/** How a planted tree is found on a walk, and whether it lives. A dying one still lives, and is told apart. */
export const treeStates = {
  alive: { lives: true },
  'leader dead': { lives: true },
  dying: { lives: true },
  dead: { lives: false },
  missing: { lives: false },
} as const satisfies Record<string, { lives: boolean }>;
export type TreeState = keyof typeof treeStates;
export const treeStateNames = Object.keys(treeStates) as [TreeState, ...TreeState[]];

/** What a planted tree died of, as far as the walker can tell. */
export const deathCauses = [
  'drought',
  'heat',
  'browsed',
  'voles',
  'weeds',
  'waterlogged',
  'frost',
  'wind',
  'roots',
  'mown',
  'unknown',
] as const;
export type DeathCause = (typeof deathCauses)[number];

/** What ground trees are planted in. */
export const plantingGrounds = ['dry', 'moist', 'wet', 'rocky', 'shaded'] as const;
export type PlantingGround = (typeof plantingGrounds)[number];

/**
 * What stands about a planted tree, with how much warmer the air in it becomes at 800 W/m² and calm, °C: rules of thumb.
 */
export const guards = {
  none: { excessC: 0 },
  mesh: { excessC: 1 },
  'vented tube': { excessC: 6 },
  'closed tube': { excessC: 12 },
} as const satisfies Record<string, { excessC: number }>;
export type Guard = keyof typeof guards;
export const guardNames = Object.keys(guards) as [Guard, ...Guard[]];

export const stakes = ['none', 'flexible', 'rigid'] as const;
export type Stake = (typeof stakes)[number];

/** How many trees of a part of a planting a walk found in each state. */
export type Found = Record<TreeState, number>;

/** Trees a walk looked at, living and not. */
export function livingOf(found: Found): { alive: number; dead: number } {
  let [alive, dead] = [0, 0];
  for (const state of treeStateNames) {
    if (treeStates[state].lives) alive += found[state];
    else dead += found[state];
  }
  return { alive, dead };
}

export const noneFound = (): Found => ({ alive: 0, 'leader dead': 0, dying: 0, dead: 0, missing: 0 });
