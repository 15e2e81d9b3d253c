import type { EpochDay } from '../calendar/day';

/** Where a lot's roots are: a cell of its own, or a share of a bed. */
export type Home =
  | {
      kind: 'container';
      name: string;
      cellMl: number;
      depthMm: number;
      airShare: number;
      /** Distance between neighbours when packed tight, mm; null for an open flat. */
      pitchMm?: number | null;
      /** Single cells that can be set apart. */
      spaceable?: boolean;
      /** What stands over it, against the open. */
      cover?: Cover;
      /** Light it has in the growing season, share of the open sky's; 1 where it is not known. */
      light?: number;
    }
  | {
      kind: 'bed';
      densityPerM2: number;
      settledDepthMm: number;
      airShare: number;
      /** Room for shoots under the lid, cm; null without one. */
      headroomCm: number | null;
      cover?: Cover;
      light?: number;
    };

/** How much warmer the nights' lowest and the days' highest are under a cover than in the open, °C. */
export interface Cover {
  lowC: number;
  highC: number;
}

/** A home from a day on. */
export interface HomeSpell {
  from: EpochDay;
  home: Home;
}

/** Medium a plant's roots have to themselves, mL. */
export function cellMlOf(home: Home): number {
  return home.kind === 'container' ? home.cellMl : (1e3 / home.densityPerM2) * home.settledDepthMm;
}

export function depthMmOf(home: Home): number {
  return home.kind === 'container' ? home.depthMm : home.settledDepthMm;
}

/** The home a lot stands in on a day; before it was sown, its first. */
export function homeAt(spells: readonly HomeSpell[], day: EpochDay): Home {
  return (spells.findLast((spell) => spell.from <= day) ?? spells[0]).home;
}

/** Medium a plant's roots have to themselves on a day, mL. */
export function cellMlAt(spells: readonly HomeSpell[], day: EpochDay): number {
  return cellMlOf(homeAt(spells, day));
}
