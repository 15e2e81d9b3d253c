import { sum, type Worked } from '../working/working';

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
}

/**
 * Volume of a cell: as stated, else a frustum between its top and bottom sections.
 * @returns mL
 */
export function containerVolume(c: ContainerValues): Worked<number> {
  if (!(c.topMm > 0 && c.bottomMm > 0 && c.depthMm > 0)) {
    throw new RangeError('A container needs a top, a bottom and a depth above 0.');
  }
  if (c.statedMl !== null) {
    return { value: c.statedMl, working: [{ what: 'Volume as stated', result: c.statedMl, unit: 'mL' }] };
  }
  const shape = c.section === 'square' ? 1 : Math.PI / 4;
  const [a, b] = [c.topMm ** 2 * shape, c.bottomMm ** 2 * shape];
  const value = ((c.depthMm / 3) * (a + b + Math.sqrt(a * b))) / 1000;
  return {
    value,
    working: [
      {
        what: 'Volume between top and bottom section',
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
        what: 'Air share of wall and base',
        expression: sum`(${wall} × ${c.wallOpenShare} + ${base} × ${c.baseOpenShare}) ÷ (${wall} + ${base})`,
        result: value,
        inputs: [
          { name: 'wall area', value: wall, unit: 'mm²', origin: 'choice' },
          { name: 'base area', value: base, unit: 'mm²', origin: 'choice' },
        ],
      },
    ],
  };
}

/** Cells on a square metre with trays side by side. */
export function cellsPerM2(c: ContainerValues): number {
  return c.cellsPerTray / ((c.trayLengthMm * c.trayWidthMm) / 1e6);
}

/** Starting containers: generic shapes, sizes in their ordinary ranges. */
export const startingContainers: readonly ContainerValues[] = [
  container('Tube 110 mL, racked', 'round', 38, 26, 140, 110, 0.06, 0.7, 98, 610, 305),
  container('Tube 150 mL, racked', 'round', 40, 28, 165, 150, 0.06, 0.7, 98, 610, 305),
  container('Deep tube 350 mL, racked', 'round', 50, 36, 250, 350, 0.05, 0.7, 50, 610, 305),
  container('Slit-wall cell 120 mL', 'square', 42, 32, 100, 120, 0.22, 0.6, 84, 600, 400),
  container('Slit-wall cell 200 mL', 'square', 50, 38, 115, 200, 0.24, 0.6, 60, 600, 400),
  container('Open-bottomed band 600 mL', 'square', 76, 70, 130, 600, 0, 0.85, 25, 400, 400),
  container('Ribbed vented pot 2 L', 'round', 150, 125, 145, 2000, 0.18, 0.4, 8, 640, 330),
];

function container(
  name: string,
  section: 'square' | 'round',
  topMm: number,
  bottomMm: number,
  depthMm: number,
  statedMl: number | null,
  wallOpenShare: number,
  baseOpenShare: number,
  cellsPerTray: number,
  trayLengthMm: number,
  trayWidthMm: number,
): ContainerValues {
  return {
    name,
    section,
    topMm,
    bottomMm,
    depthMm,
    statedMl,
    wallOpenShare,
    baseOpenShare,
    cellsPerTray,
    trayLengthMm,
    trayWidthMm,
  };
}
