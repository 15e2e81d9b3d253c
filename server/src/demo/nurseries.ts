import type { BedDesign } from '@kauri/core';
import type { Role } from '@kauri/core/contract';

/** A demo lot: what was sown where. Days are in the season year counted from `season` 0, this one. */
export interface DemoLot {
  code: string;
  species: string;
  place: string;
  /** Container and trays, or density and area. */
  in: { container: string; trays: number } | { density: number; area: number };
  season: number;
  /** Day sown, as month and day of the northern calendar; the south is half a year on. */
  sown: readonly [month: number, day: number];
  fresh?: true;
  seeds: number;
  target: number;
  vigour?: number;
  /** Nothing came up. */
  fails?: true;
  /** Lifted last winter: all of it, or a share. */
  lifted?: number;
  note?: string;
}

export interface DemoPlace {
  name: string;
  east: number;
  north: number;
  turned?: true;
  medium: number;
  bed?: Omit<BedDesign, 'schema'>;
  bench?: { lengthMm: number; widthMm: number };
}

export interface DemoNursery {
  name: string;
  placeName: string;
  latitudeDeg: number;
  longitudeDeg: number;
  elevationM: number;
  timeZone: string;
  weatherSeed: number;
  people: readonly { name: string; email: string; role: Role }[];
  places: readonly DemoPlace[];
  lots: readonly DemoLot[];
}

const mesh = { kind: 'mesh', openingMm: [12.7, 12.7], wireMm: 1.05 } as const;
const grid = { kind: 'mesh', openingMm: [150, 150], wireMm: 3.4 } as const;
const bearers = { kind: 'support', coveredShare: 0.06 } as const;

function bed(
  lengthMm: number,
  widthMm: number,
  tiers: string[],
  lidAboveRimMm: number | null,
  airGapMm = 90,
): Omit<BedDesign, 'schema'> {
  return {
    measured: 'outside',
    lengthMm,
    widthMm,
    tiers,
    layers: [mesh, grid, bearers],
    fillBelowRimMm: 30,
    ground: 'paving',
    airGapMm,
    lidAboveRimMm,
  };
}

/** The password of everyone in the demo; it is shown on the sign-in page. */
export const DEMO_PASSWORD = 'grow-young-trees';

export const demoNurseries: readonly DemoNursery[] = [
  {
    name: 'Withybeck Tree Yard',
    placeName: 'Merrowdale',
    latitudeDeg: 54.6,
    longitudeDeg: -2.4,
    elevationM: 185,
    timeZone: 'Europe/London',
    weatherSeed: 1854,
    people: [
      { name: 'Isla', email: 'isla@withybeck.example', role: 'grower' },
      { name: 'Orla', email: 'orla@withybeck.example', role: 'owner' },
      { name: 'Tam', email: 'tam@withybeck.example', role: 'crew' },
      { name: 'Wren', email: 'wren@withybeck.example', role: 'visitor' },
    ],
    // One a line.
    // prettier-ignore
    places: [
      { name: 'Bed 1', east: 6, north: 20, medium: 0, bed: bed(3000, 1200, ['50x200', '50x200'], 400) },
      { name: 'Bed 2', east: 6, north: 17.5, medium: 0, bed: bed(3000, 1200, ['50x200', '50x200'], 300) },
      { name: 'Bed 3', east: 11, north: 20, medium: 0, bed: bed(4800, 900, ['50x225'], 450) },
      { name: 'Bed 4', east: 11, north: 17.5, medium: 1, bed: bed(4800, 900, ['50x225'], null) },
      { name: 'Bed 5', east: 6, north: 15, medium: 0, bed: bed(1200, 600, ['50x200'], 300) },
      { name: 'Bed 6, shallow trial', east: 11, north: 15, medium: 2, bed: bed(2400, 900, ['50x150'], null, 40) },
      { name: 'Bench 1', east: 22, north: 14, turned: true, medium: 3, bench: { lengthMm: 7200, widthMm: 1550 } },
      { name: 'Bench 2', east: 25, north: 14, turned: true, medium: 3, bench: { lengthMm: 7200, widthMm: 1550 } },
    ],
    // One a line.
    // prettier-ignore
    lots: [
      { code: '26-QPE-01', species: 'QPE', place: 'Bed 1', in: { density: 240, area: 1.9 }, season: -1, sown: [10, 20], fresh: true, seeds: 620, target: 20, note: 'Acorns sown touching, caged the same day.' },
      { code: '26-QPE-02', species: 'QPE', place: 'Bed 1', in: { density: 180, area: 1.2 }, season: -1, sown: [10, 22], fresh: true, seeds: 300, target: 20 },
      { code: '26-BPE-01', species: 'BPE', place: 'Bed 2', in: { density: 300, area: 1.5 }, season: 0, sown: [4, 14], seeds: 1800, target: 40 },
      { code: '26-ALN-01', species: 'ALN', place: 'Bed 2', in: { density: 200, area: 1.6 }, season: 0, sown: [4, 16], seeds: 1200, target: 45, note: 'Reached the lid in summer.' },
      { code: '26-CRA-02', species: 'CRA', place: 'Bed 3', in: { density: 260, area: 1.4 }, season: -1, sown: [10, 28], fresh: true, seeds: 1100, target: 35, note: 'Two winters: warm, then cold.' },
      { code: '26-ACA-01', species: 'ACA', place: 'Bed 3', in: { density: 220, area: 2.0 }, season: -2, sown: [10, 30], fresh: true, seeds: 1300, target: 30 },
      { code: '25-SOR-01', species: 'SOR', place: 'Bed 4', in: { density: 240, area: 1.6 }, season: -1, sown: [3, 28], seeds: 900, target: 35, lifted: 1 },
      { code: '25-CBE-01', species: 'CBE', place: 'Bed 4', in: { density: 240, area: 1.2 }, season: -1, sown: [4, 4], seeds: 800, target: 25, lifted: 0.55, note: 'Slow ones held over for a second year.' },
      { code: '26-PSP-01', species: 'PSP', place: 'Bed 4', in: { density: 240, area: 1.3 }, season: -1, sown: [11, 2], fresh: true, seeds: 800, target: 30 },
      { code: '26-VOP-01', species: 'VOP', place: 'Bed 5', in: { density: 260, area: 0.28 }, season: 0, sown: [4, 12], seeds: 240, target: 25, fails: true, note: 'Old seed, three years in the shed.' },
      { code: '26-CSA-01', species: 'CSA', place: 'Bed 5', in: { density: 260, area: 0.26 }, season: 0, sown: [4, 12], seeds: 180, target: 25 },
      { code: '26-SCA-01', species: 'SCA', place: 'Bed 6, shallow trial', in: { density: 220, area: 1.8 }, season: 0, sown: [5, 26], seeds: 1400, target: 40 },
      { code: '26-ALN-07', species: 'ALN', place: 'Bench 1', in: { container: 'Tube 150 mL, racked', trays: 8 }, season: 0, sown: [4, 8], seeds: 1500, target: 30, vigour: 0.86 },
      { code: '25-ALN-02', species: 'ALN', place: 'Bench 2', in: { container: 'Tube 110 mL, racked', trays: 3 }, season: -1, sown: [4, 2], seeds: 620, target: 30, vigour: 1.1, note: 'Order fell through; still in small cells.' },
      { code: '26-SOR-03', species: 'SOR', place: 'Bench 1', in: { container: 'Slit-wall cell 200 mL', trays: 6 }, season: 0, sown: [4, 6], seeds: 640, target: 25, vigour: 0.95 },
      { code: '26-BPU-05', species: 'BPU', place: 'Bench 1', in: { container: 'Tube 150 mL, racked', trays: 5 }, season: 0, sown: [6, 20], seeds: 1500, target: 25 },
      { code: '26-TCO-01', species: 'TCO', place: 'Bench 2', in: { container: 'Open-bottomed band 600 mL', trays: 6 }, season: 0, sown: [4, 10], seeds: 480, target: 25 },
      { code: '26-PSY-04', species: 'PSY', place: 'Bench 2', in: { container: 'Slit-wall cell 120 mL', trays: 7 }, season: 0, sown: [4, 9], seeds: 720, target: 12 },
      { code: '25-JCO-01', species: 'JCO', place: 'Bench 2', in: { container: 'Deep tube 350 mL, racked', trays: 4 }, season: -1, sown: [4, 12], seeds: 900, target: 12, vigour: 0.6, note: 'Slow, in deep tubes.' },
      { code: '26-BPE-06', species: 'BPE', place: 'Bench 1', in: { container: 'Slit-wall cell 120 mL', trays: 5 }, season: 0, sown: [4, 3], seeds: 1300, target: 30, vigour: 0.87 },
      { code: '26-PTR-01', species: 'PTR', place: 'Bench 1', in: { container: 'Tube 150 mL, racked', trays: 4 }, season: 0, sown: [6, 12], seeds: 700, target: 30, vigour: 0.9 },
      { code: '26-SCA-02', species: 'SCA', place: 'Bench 1', in: { container: 'Deep tube 350 mL, racked', trays: 6 }, season: 0, sown: [5, 22], seeds: 560, target: 40, vigour: 1.1 },
      { code: '26-IAQ-01', species: 'IAQ', place: 'Bench 2', in: { container: 'Slit-wall cell 200 mL', trays: 3 }, season: 0, sown: [4, 5], seeds: 400, target: 12 },
      { code: '26-AIN-02', species: 'AIN', place: 'Bench 2', in: { container: 'Ribbed vented pot 2 L', trays: 6 }, season: 0, sown: [4, 12], seeds: 140, target: 50 },
      { code: '25-EEU-01', species: 'EEU', place: 'Bench 2', in: { container: 'Tube 150 mL, racked', trays: 3 }, season: -1, sown: [4, 8], seeds: 560, target: 22, lifted: 1 },
    ],
  },
  {
    name: 'Vivero Piedra Clara',
    placeName: 'Piedra Clara',
    latitudeDeg: -41.2,
    longitudeDeg: -71.4,
    elevationM: 780,
    timeZone: 'America/Argentina/Salta',
    weatherSeed: 4121,
    people: [
      { name: 'Nahuel', email: 'nahuel@piedraclara.example', role: 'owner' },
      { name: 'Aylen', email: 'aylen@piedraclara.example', role: 'crew' },
    ],
    // One a line.
    // prettier-ignore
    places: [
      { name: 'Cama 1', east: 2, north: 3, medium: 0, bed: bed(2400, 1200, ['50x200', '50x200'], 400) },
      { name: 'Cama 2', east: 6, north: 3, medium: 0, bed: bed(2400, 1200, ['50x200'], null) },
    ],
    // One a line.
    // prettier-ignore
    lots: [
      { code: '25-NPU-01', species: 'NPU', place: 'Cama 1', in: { density: 220, area: 1.3 }, season: -1, sown: [4, 10], seeds: 1100, target: 20 },
      { code: '26-NAN-01', species: 'NAN', place: 'Cama 1', in: { density: 240, area: 1.0 }, season: 0, sown: [4, 2], seeds: 1000, target: 20 },
      { code: '26-NDO-01', species: 'NDO', place: 'Cama 2', in: { density: 240, area: 1.8 }, season: 0, sown: [3, 20], seeds: 1500, target: 25 },
    ],
  },
];
