import { word } from '../speech/say';
import { formatQuantity, type UnitSystem } from '../units/units';
import type { ContainerKind, ContainerValues } from './container';

/** Starting containers: generic shapes, sizes in their ordinary ranges, prices of the order of a tray's. */
// One a line: a table to read across.
// prettier-ignore
export const startingContainers: readonly ContainerValues[] = [
  container('Tube 110 mL, racked', 'tube', 'round', 38, 26, 140, 110, 0.06, 0.7, 98, 610, 305, true, 32, 8, 'ribs'),
  container('Tube 150 mL, racked', 'tube', 'round', 40, 28, 165, 150, 0.06, 0.7, 98, 610, 305, true, 38, 8, 'ribs'),
  container('Deep tube 350 mL, racked', 'tube', 'round', 50, 36, 250, 350, 0.05, 0.7, 50, 610, 305, true, 36, 8, 'ribs'),
  container('Slit-wall cell 120 mL', 'slit-cell', 'square', 42, 32, 100, 120, 0.22, 0.6, 84, 600, 400, false, 12, 6, 'air'),
  container('Slit-wall cell 200 mL', 'slit-cell', 'square', 50, 38, 115, 200, 0.24, 0.6, 60, 600, 400, false, 13, 6, 'air'),
  container('Open-bottomed band 600 mL', 'band', 'square', 76, 70, 130, 600, 0, 0.85, 25, 400, 400, true, 9, 2, 'solid'),
  container('Ribbed vented pot 2 L', 'ribbed-pot', 'round', 150, 125, 145, 2000, 0.18, 0.4, 8, 640, 330, true, 14, 5, 'ribs'),
  container('Open flat', 'flat', 'square', 430, 420, 60, 9000, 0, 0.1, 1, 540, 350, false, 3, 6, 'solid'),
  container('Open-meshed flat', 'flat', 'square', 430, 420, 80, 12500, 0, 0.6, 1, 540, 350, false, 5, 6, 'air'),
  container('Closed plug tray 40 mL', 'plug-closed', 'square', 36, 26, 50, 40, 0, 0.12, 104, 540, 310, false, 4, 3, 'solid'),
  container('Open-walled plug tray 60 mL', 'plug-open', 'square', 38, 30, 70, 60, 0.35, 0.6, 84, 540, 310, false, 9, 6, 'air'),
  container('Paper-wrapped plug 70 mL', 'plug-paper', 'round', 40, 40, 60, 70, 0.8, 0.9, 84, 600, 400, false, 11, 1, 'air'),
  container('Tube 50 mL, racked', 'tube', 'round', 28, 20, 120, 50, 0.05, 0.7, 200, 610, 305, true, 40, 8, 'ribs'),
  container('Tube 200 mL, racked', 'tube', 'round', 42, 30, 205, 200, 0.06, 0.7, 72, 610, 305, true, 36, 8, 'ribs'),
  container('Deep square tree pot 1.6 L', 'tree-pot', 'square', 76, 64, 340, 1600, 0, 0.5, 16, 400, 400, true, 20, 4, 'ribs'),
  container('Deep square tree pot 4 L', 'tree-pot', 'square', 108, 92, 400, 4000, 0, 0.5, 9, 400, 400, true, 24, 4, 'ribs'),
  container('Root-pruning block 100 mL', 'block', 'square', 44, 34, 75, 100, 0.3, 0.7, 54, 560, 380, false, 10, 6, 'air'),
  container('Fabric bag 5 L', 'fabric-bag', 'round', 200, 200, 165, 5000, 0.95, 0.95, 6, 640, 430, true, 15, 2, 'fabric'),
  container('Fabric bag 12 L', 'fabric-bag', 'round', 270, 270, 215, 12000, 0.95, 0.95, 2, 560, 280, true, 8, 2, 'fabric'),
  container('Round pot 3 L', 'round-pot', 'round', 190, 145, 150, 3000, 0, 0.06, 6, 600, 400, true, 6, 3, 'solid'),
];

/** The same containers, named by what a nursery in some units reads: cubic inches, and gallons from a gallon up. */
export function containersIn(units: UnitSystem): readonly ContainerValues[] {
  if (units === 'metric') return startingContainers;
  return startingContainers.map((values) => ({
    ...values,
    name: values.name.replace(/([\d.]+) (mL|L)\b/, (_, figure: string, unit: string) => {
      const ml = Number(figure) * (unit === 'L' ? 1000 : 1);
      return ml >= GALLON_ML
        ? formatQuantity(ml / 1000, 'volume', 'us')
        : formatQuantity(ml, 'cell', 'us', 0);
    }),
  }));
}
const GALLON_ML = 3785;

function container(
  name: string,
  kind: ContainerKind,
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
  spaceable: boolean,
  trayPrice: number,
  uses: number,
  wall: ContainerValues['wall'],
): ContainerValues {
  return {
    get name() {
      return word(name);
    },
    kind,
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
    spaceable,
    trayPrice,
    uses,
    wall,
  };
}
