import { say } from '../speech/say';
import { Unfit } from '../working/unfit';
import { sum, type Worked } from '../working/working';

export const containerKinds = [
  'flat',
  'plug-closed',
  'plug-open',
  'plug-paper',
  'tube',
  'slit-cell',
  'band',
  'tree-pot',
  'ribbed-pot',
  'block',
  'fabric-bag',
  'round-pot',
] as const;
export type ContainerKind = (typeof containerKinds)[number];

/** A growing container (one cell, band or pot) and the tray or rack it stands in. SI units. */
export interface ContainerValues {
  name: string;
  section: 'square' | 'round';
  topMm: number;
  bottomMm: number;
  depthMm: number;
  /** Volume of medium as stated by its maker or measured, mL; null works it out from the sizes. */
  statedMl: number | null;
  /** Share of the side wall that is open to air or traps tips. */
  wallOpenShare: number;
  baseOpenShare: number;
  cellsPerTray: number;
  trayLengthMm: number;
  trayWidthMm: number;
  kind?: ContainerKind;
  /** Single cells that can be spread out; a block's cannot. */
  spaceable?: boolean;
  /** Of a tray or rack with its cells, in the nursery's money. */
  trayPrice?: number;
  /** Times it is used before it is thrown away. */
  uses?: number;
  /** What turns roots: air, fabric that traps tips, ribs to vents, or nothing. */
  wall?: 'air' | 'fabric' | 'ribs' | 'solid';
}

/**
 * Volume of a cell: as stated, else a frustum between its top and bottom sections.
 * @returns mL
 */
export function containerVolume(c: ContainerValues): Worked<number> {
  if (!(c.topMm > 0 && c.bottomMm > 0 && c.depthMm > 0)) {
    throw new Unfit(say`A container needs a top, a bottom and a depth above 0.`);
  }
  if (c.statedMl !== null) {
    return { value: c.statedMl, working: [{ what: say`Volume as stated`, result: c.statedMl, unit: 'mL' }] };
  }
  const shape = c.section === 'square' ? 1 : Math.PI / 4;
  const [a, b] = [c.topMm ** 2 * shape, c.bottomMm ** 2 * shape];
  const value = ((c.depthMm / 3) * (a + b + Math.sqrt(a * b))) / 1000;
  return {
    value,
    working: [
      {
        what: say`Volume between top and bottom section`,
        expression: sum`${c.depthMm} ÷ 3 × (${a} + ${b} + sqrt(${a} × ${b})) ÷ 1000`,
        result: value,
        unit: 'mL',
        source: 'Frustum of a pyramid or cone',
      },
    ],
  };
}

/**
 * Air share of a container: open or tip-trapping area over total wall-and-base area.
 * @returns share 0–1
 */
export function containerAirShare(c: ContainerValues): Worked<number> {
  const shape = c.section === 'square' ? 1 : Math.PI / 4;
  const slant = Math.hypot(c.depthMm, (c.topMm - c.bottomMm) / 2);
  const around = (c.section === 'square' ? 4 : Math.PI) * ((c.topMm + c.bottomMm) / 2);
  const wall = around * slant;
  const base = c.bottomMm ** 2 * shape;
  const value = (wall * c.wallOpenShare + base * c.baseOpenShare) / (wall + base);
  return {
    value,
    working: [
      {
        what: say`Air share of wall and base`,
        expression: sum`(${wall} × ${c.wallOpenShare} + ${base} × ${c.baseOpenShare}) ÷ (${wall} + ${base})`,
        result: value,
        inputs: [
          { name: say`wall area`, value: wall, unit: 'mm²', origin: 'choice' },
          { name: say`base area`, value: base, unit: 'mm²', origin: 'choice' },
        ],
      },
    ],
  };
}

/** Cells on a square metre with trays side by side. */
export function cellsPerM2(c: ContainerValues): number {
  return c.cellsPerTray / ((c.trayLengthMm * c.trayWidthMm) / 1e6);
}

/** Cells on a square metre when every second cell is taken out; null for a block that cannot be spread. */
export function cellsPerM2Spaced(c: ContainerValues): number | null {
  return (c.spaceable ?? c.cellsPerTray > 1) ? cellsPerM2(c) / 2 : null;
}

/** Whether a container has to be washed and disinfected between uses. */
export function washedBetweenUses(c: ContainerValues): boolean {
  return (c.uses ?? 1) > 1;
}
