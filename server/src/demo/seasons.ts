import { seededRandom, seedFrom } from '@kauri/core';
import type { DemoLot } from './lot';

/** What was sown year after year: species, place, what in, seeds, height wanted, day of the northern spring. */
type Habit = readonly [
  species: string,
  place: string,
  home: DemoLot['in'],
  seeds: number,
  target: number,
  sown: readonly [month: number, day: number],
];

const bed = (density: number, area: number) => ({ density, area });
const trays = (container: string, n: number) => ({ container, trays: n });

// One a line.
// prettier-ignore
const habits: readonly Habit[] = [
  ['ALN', 'Bed 1', bed(200, 1.2), 700, 40, [4, 12]],
  ['CBE', 'Bed 1', bed(240, 1.2), 800, 25, [4, 6]],
  ['BPE', 'Bed 2', bed(300, 1.2), 1600, 35, [4, 10]],
  ['SOR', 'Bed 2', bed(240, 1.2), 700, 35, [3, 28]],
  ['ACA', 'Bed 3', bed(220, 1.4), 800, 30, [4, 2]],
  ['EEU', 'Bed 3', bed(240, 1.2), 640, 22, [4, 8]],
  ['AIN', 'Bed 4', bed(200, 1.4), 700, 40, [4, 14]],
  ['PSP', 'Bed 4', bed(240, 1.2), 600, 30, [4, 4]],
  ['BPU', 'Bed 7', bed(300, 1.4), 1700, 35, [4, 11]],
  ['CSA', 'Bed 7', bed(260, 1.2), 650, 30, [4, 9]],
  ['SCA', 'Bed 8', bed(220, 1.5), 1100, 45, [5, 26]],
  ['VOP', 'Bed 8', bed(260, 1.0), 560, 25, [4, 12]],
  ['CRA', 'Bed 9', bed(260, 1.4), 800, 35, [4, 3]],
  ['TCO', 'Bed 9', bed(200, 1.2), 700, 25, [4, 8]],
  ['ALN', 'Bed 10', bed(200, 1.6), 950, 40, [4, 16]],
  ['SOR', 'Bed 10', bed(240, 1.2), 720, 35, [3, 30]],
  ['BPE', 'Bed 11', bed(300, 0.5), 640, 35, [4, 12]],
  ['CBE', 'Bed 12', bed(240, 0.5), 300, 25, [4, 7]],
  ['ALN', 'Bench 1', trays('Tube 150 mL, racked', 4), 420, 30, [4, 8]],
  ['BPE', 'Bench 1', trays('Slit-wall cell 120 mL', 4), 700, 30, [4, 3]],
  ['SOR', 'Bench 1', trays('Slit-wall cell 200 mL', 4), 420, 25, [4, 6]],
  ['PTR', 'Bench 1', trays('Tube 150 mL, racked', 3), 420, 30, [6, 12]],
  ['SCA', 'Bench 1', trays('Deep tube 350 mL, racked', 4), 380, 40, [5, 22]],
  ['BPU', 'Bench 1', trays('Tube 150 mL, racked', 3), 560, 25, [5, 20]],
  ['PSY', 'Bench 2', trays('Slit-wall cell 120 mL', 4), 420, 12, [4, 9]],
  ['TCO', 'Bench 2', trays('Open-bottomed band 600 mL', 3), 240, 25, [4, 10]],
  ['IAQ', 'Bench 2', trays('Slit-wall cell 200 mL', 2), 260, 12, [4, 5]],
  ['EEU', 'Bench 2', trays('Tube 150 mL, racked', 3), 420, 22, [4, 8]],
  ['CSA', 'Bench 2', trays('Tube 150 mL, racked', 3), 380, 25, [4, 12]],
  ['AIN', 'Bench 2', trays('Slit-wall cell 200 mL', 3), 330, 40, [4, 12]],
  ['ALN', 'Bench 3', trays('Tube 110 mL, racked', 4), 460, 30, [4, 4]],
  ['BPE', 'Bench 3', trays('Tube 150 mL, racked', 3), 560, 30, [4, 6]],
  ['ACA', 'Bench 3', trays('Open-bottomed band 600 mL', 3), 220, 30, [4, 2]],
  ['CBE', 'Bench 3', trays('Slit-wall cell 200 mL', 3), 330, 25, [4, 4]],
  ['VOP', 'Bench 3', trays('Tube 150 mL, racked', 3), 380, 25, [4, 10]],
  ['JCO', 'Bench 3', trays('Deep tube 350 mL, racked', 3), 420, 12, [4, 12]],
];

/** Seasons told of before the present one. */
const PAST_SEASONS = [-1, -2, -3];
/** The year lots of the present season are numbered by. */
const PRESENT = 26;

/**
 * Three full seasons of the demo, counted, measured, pulled and lifted to the last tree: what the nursery's own values,
 * shares and rates are learnt from. Each lot has a vigour of its own, the same at every start.
 */
export const pastSeasons: readonly DemoLot[] = PAST_SEASONS.flatMap((season) =>
  habits.map(([species, place, home, seeds, target, sown], i): DemoLot => {
    const code = `${PRESENT + season}-${species}-${21 + i}`;
    const random = seededRandom(seedFrom(`season ${code}`));
    const [month, day] = sown;
    return {
      code,
      species,
      place,
      in: home,
      season,
      sown: [month, Math.max(1, Math.min(28, day + Math.round((random() - 0.5) * 8)))],
      seeds: Math.round((seeds * (0.9 + 0.2 * random())) / 10) * 10,
      target,
      vigour: 0.85 + 0.3 * random(),
      lifted: 1,
    };
  }),
);
