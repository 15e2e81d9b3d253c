import type { BedDesign, ElementKind, SiteElement } from '@kauri/core';
import type { Role } from '@kauri/core/contract';
import type { DemoSeedRoom } from './seed';
import type { DemoCare, DemoClimate, DemoEvent } from './growing';
import type { DemoLot } from './lot';
import { withybeckArrivals, type DemoArrival } from './arrivals';
import { piedraClaraPlantings, withybeckPlantings, type DemoPlanting } from './plantings';
import { piedraClaraOrders, withybeckOrders, type DemoOrder } from './orders';
import { pastSeasons } from './seasons';
import { piedraClaraSeed, withybeckSeed } from './seedRooms';

interface DemoPlace {
  name: string;
  east: number;
  north: number;
  angle?: number;
  medium: number;
  /** A kept design, by its name. */
  design?: string;
  bench?: { lengthMm: number; widthMm: number; ratedKg?: number };
  /** Of a bench's shape: standing-out ground or a heel-in bay. */
  as?: 'ground' | 'bay';
}

/** Something on the demo's site plan. */
type DemoElement = Omit<SiteElement, 'id' | 'kind'> & { kind: ElementKind };

export interface DemoNursery {
  name: string;
  placeName: string;
  latitudeDeg: number;
  longitudeDeg: number;
  elevationM: number;
  timeZone: string;
  /** What it speaks; English where left out. */
  language?: string;
  weatherSeed: number;
  people: readonly { name: string; email: string; role: Role }[];
  designs: Readonly<Record<string, Omit<BedDesign, 'schema'>>>;
  site: readonly DemoElement[];
  places: readonly DemoPlace[];
  /** A tap's bucket test, and the drip on beds. */
  water?: { litres: number; seconds: number };
  lots: readonly DemoLot[];
  seed: DemoSeedRoom;
  orders?: readonly DemoOrder[];
  arrivals?: readonly DemoArrival[];
  plantings?: readonly DemoPlanting[];
  /** A heat wave of the summer last gone by, or under way: its first day, and the highest of each of its days, °C. */
  heatWave?: { on: readonly [number, number]; maxC: readonly number[] };
  climate?: DemoClimate;
  care?: readonly DemoCare[];
  events?: readonly DemoEvent[];
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
    designs: {
      'Large, two tiers': bed(3000, 1200, ['50x200', '50x200'], 400),
      'Large, two tiers, low lid': bed(3000, 1200, ['50x200', '50x200'], 300),
      Long: bed(4800, 900, ['50x225'], 450),
      'Long, open': bed(4800, 900, ['50x225'], null),
      'Small module': bed(1200, 600, ['50x200'], 300),
      'Shallow trial': bed(2400, 900, ['50x150'], null, 40),
    },
    // One a line.
    // prettier-ignore
    site: [
      { kind: 'outline', name: 'Coach park', points: [[0, 0], [40, 0], [40, 28], [0, 28]] },
      { kind: 'surface', name: 'Paving', ground: 'paving', points: [[0, 6], [29, 6], [29, 28], [0, 28]] },
      { kind: 'surface', name: 'Gravel', ground: 'gravel', points: [[0, 0], [40, 0], [40, 6], [0, 6]] },
      { kind: 'building', name: 'Barn', heightM: 8, points: [[-9, 7], [-0.5, 7], [-0.5, 25], [-9, 25]] },
      { kind: 'trees', name: 'Sycamores', heightM: 14, passesInLeaf: 0.15, passesBare: 0.65, points: [[-6, 1], [2, -4], [10, -6]] },
      { kind: 'tunnel', name: 'Polytunnel', heightM: 3, passesInLeaf: 0.78, passesBare: 0.78, points: [[30, 9], [36, 9], [36, 27], [30, 27]] },
      { kind: 'shade', name: 'Shade tunnel', heightM: 2.4, passesInLeaf: 0.5, passesBare: 0.5, points: [[19, 18.5], [28.5, 18.5], [28.5, 26.5], [19, 26.5]] },
      { kind: 'cold-store', name: 'Cold store', heightM: 2.6, points: [[35.5, 1], [39.5, 1], [39.5, 5], [35.5, 5]] },
      { kind: 'standpipe', name: 'Standpipe', flowLpm: 14, points: [[18, 13.5]] },
      { kind: 'path', name: 'Main path', widthM: 1.2, main: true, points: [[17.5, 6.5], [17.5, 27]] },
      { kind: 'path', name: 'Bed path', widthM: 0.9, points: [[0.8, 16.7], [16.5, 16.7]] },
      { kind: 'fence', name: 'Deer fence', heightM: 2, points: [[0, 25.5], [0, 28], [40, 28], [40, 0], [0, 0]] },
    ],
    water: { litres: 10, seconds: 43 },
    // One a line.
    // prettier-ignore
    places: [
      { name: 'Bed 1', east: 1.5, north: 20, medium: 0, design: 'Large, two tiers' },
      { name: 'Bed 2', east: 1.5, north: 17.5, medium: 0, design: 'Large, two tiers, low lid' },
      { name: 'Bed 3', east: 11, north: 20, medium: 0, design: 'Long' },
      { name: 'Bed 4', east: 11, north: 17.5, medium: 1, design: 'Long, open' },
      { name: 'Bed 5', east: 1.5, north: 15, medium: 0, design: 'Small module' },
      { name: 'Bed 6, shallow trial', east: 6, north: 15, medium: 2, design: 'Shallow trial' },
      { name: 'Bed 7', east: 6, north: 20, medium: 0, design: 'Large, two tiers' },
      { name: 'Bed 8', east: 6, north: 17.5, medium: 0, design: 'Large, two tiers' },
      { name: 'Bed 9', east: 11, north: 22.5, medium: 0, design: 'Long' },
      { name: 'Bed 10', east: 11, north: 15, medium: 0, design: 'Long' },
      { name: 'Bed 11', east: 2.7, north: 15, medium: 0, design: 'Small module' },
      { name: 'Bed 12', east: 1.5, north: 14.4, medium: 0, design: 'Small module' },
      { name: 'Bed 13', east: 2.7, north: 14.4, medium: 0, design: 'Small module' },
      { name: 'Bed 14', east: 6, north: 22.5, medium: 0, design: 'Small module' },
      { name: 'Bench 1', east: 30.6, north: 9.6, angle: 90, medium: 3, bench: { lengthMm: 7200, widthMm: 1550, ratedKg: 1200 } },
      { name: 'Bench 2', east: 33.8, north: 9.6, angle: 90, medium: 3, bench: { lengthMm: 7200, widthMm: 1550, ratedKg: 1200 } },
      { name: 'Bench 3', east: 30.6, north: 18.5, angle: 90, medium: 3, bench: { lengthMm: 7200, widthMm: 1550, ratedKg: 1200 } },
      { name: 'Standing-out 1', east: 20, north: 19.4, medium: 3, as: 'ground', bench: { lengthMm: 7800, widthMm: 2600 } },
      { name: 'Standing-out 2', east: 20, north: 23.2, medium: 3, as: 'ground', bench: { lengthMm: 7800, widthMm: 2600 } },
      { name: 'Heel-in bay 1', east: 20, north: 1.5, medium: 1, as: 'bay', bench: { lengthMm: 3600, widthMm: 1200 } },
      { name: 'Heel-in bay 2', east: 25, north: 1.5, medium: 1, as: 'bay', bench: { lengthMm: 3600, widthMm: 1200 } },
    ],
    seed: withybeckSeed,
    orders: withybeckOrders,
    arrivals: withybeckArrivals,
    plantings: withybeckPlantings,
    heatWave: { on: [7, 16], maxC: [28, 31.5, 33.5, 36, 35, 30] },
    // One a line.
    // prettier-ignore
    lots: [
      ...pastSeasons,
      { code: '26-QPE-01', species: 'QPE', place: 'Bed 1', in: { density: 240, area: 1.9 }, season: -1, sown: [10, 20], fresh: true, seeds: 620, target: 20, note: 'Acorns sown touching, caged the same day.', roots: { plants: 5, after: 120, turned: 0, tap: 'straight' } },
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
      { code: '26-ALN-07', species: 'ALN', place: 'Bench 1', in: { container: 'Tube 150 mL, racked', trays: 8 }, season: 0, sown: [4, 8], seeds: 1500, target: 30, vigour: 1.12 },
      { code: '25-ALN-02', species: 'ALN', place: 'Bench 2', in: { container: 'Tube 110 mL, racked', trays: 3 }, season: -1, sown: [4, 2], seeds: 620, target: 30, vigour: 1.1, note: 'Order fell through; still in small cells.', roots: { plants: 4, after: 430, turned: 0.8, tap: 'stopped' } },
      { code: '26-SOR-03', species: 'SOR', place: 'Bench 1', in: { container: 'Slit-wall cell 200 mL', trays: 6 }, season: 0, sown: [4, 6], seeds: 640, target: 25, vigour: 1.25, roots: { plants: 4, after: 160, turned: 0.2, tap: 'stopped' } },
      { code: '26-BPU-05', species: 'BPU', place: 'Bench 1', in: { container: 'Tube 150 mL, racked', trays: 5 }, season: 0, sown: [6, 20], seeds: 1500, target: 25, vigour: 1.1 },
      { code: '26-TCO-01', species: 'TCO', place: 'Bench 2', in: { container: 'Open-bottomed band 600 mL', trays: 6 }, season: 0, sown: [4, 10], seeds: 480, target: 25 },
      { code: '26-PSY-04', species: 'PSY', place: 'Bench 2', in: { container: 'Slit-wall cell 120 mL', trays: 7 }, season: 0, sown: [4, 9], seeds: 720, target: 12, vigour: 1.15 },
      { code: '25-JCO-01', species: 'JCO', place: 'Bench 2', in: { container: 'Deep tube 350 mL, racked', trays: 4 }, season: -1, sown: [4, 12], seeds: 900, target: 12, vigour: 0.6, note: 'Slow, in deep tubes.' },
      { code: '26-BPE-06', species: 'BPE', place: 'Bench 1', in: { container: 'Slit-wall cell 120 mL', trays: 5 }, season: 0, sown: [4, 3], seeds: 1300, target: 30, vigour: 1.2, roots: { plants: 9, after: 155, turned: 0, tap: 'stopped' } },
      { code: '26-PTR-01', species: 'PTR', place: 'Bench 1', in: { container: 'Tube 150 mL, racked', trays: 4 }, season: 0, sown: [6, 12], seeds: 700, target: 30, vigour: 1.1 },
      { code: '26-SCA-02', species: 'SCA', place: 'Bench 1', in: { container: 'Deep tube 350 mL, racked', trays: 6 }, season: 0, sown: [5, 22], seeds: 560, target: 40, vigour: 1.1, moved: { after: 76, container: 'Open-bottomed band 600 mL', trays: 12, roots: { looked: 60, circling: 9, teased: 7, shaved: 2, rejected: 4 } } },
      { code: '26-IAQ-01', species: 'IAQ', place: 'Bench 2', in: { container: 'Slit-wall cell 200 mL', trays: 3 }, season: 0, sown: [4, 5], seeds: 400, target: 12 },
      { code: '26-AIN-02', species: 'AIN', place: 'Bench 2', in: { container: 'Ribbed vented pot 2 L', trays: 6 }, season: 0, sown: [4, 12], seeds: 140, target: 50 },
      { code: '25-EEU-01', species: 'EEU', place: 'Bench 2', in: { container: 'Tube 150 mL, racked', trays: 3 }, season: -1, sown: [4, 8], seeds: 560, target: 22, lifted: 1 },
      { code: '26-SOR-11', species: 'SOR', place: 'Bed 9', in: { density: 200, area: 0.8 }, season: 0, sown: [4, 2], seeds: 400, target: 30, share: 0.58, from: { bag: 'S-SOR-01', arm: { name: 'Bag, indoors', school: 'indoors', phases: 'warm14 cold120', days: 136 }, patch: [0, 900, 7], multi: 0.04 } },
      { code: '26-SOR-12', species: 'SOR', place: 'Bed 9', in: { density: 200, area: 0.8 }, season: 0, sown: [4, 2], seeds: 400, target: 30, share: 0.47, from: { bag: 'S-SOR-01', arm: { name: 'Leaf tub', school: 'tub', phases: 'tub: cold120', days: 150 }, patch: [900, 1800, 7], multi: 0.07 } },
      { code: '26-SOR-13', species: 'SOR', place: 'Bed 9', in: { density: 200, area: 0.8 }, season: 0, sown: [4, 2], seeds: 400, target: 30, share: 0.08, note: 'Untreated, to compare.', from: { bag: 'S-SOR-01', patch: [1800, 2700, 7] } },
      { code: '26-SVI-01', species: 'SVI', place: 'Bed 10', in: { density: 60, area: 2.4 }, season: 0, sown: [3, 6], seeds: 160, target: 90, share: 0.91, stuck: 'Osier stools' },
      { code: '26-BPE-10', species: 'BPE', place: 'Bench 3', in: { container: 'Open flat', trays: 2 }, season: 0, sown: [4, 6], seeds: 2400, target: 30, share: 0.27, note: 'Flat, to prick out.', pricked: [{ code: '26-BPE-11', container: 'Slit-wall cell 200 mL', trays: 5, count: 180, size: 'large', place: 'Bench 3' }, { code: '26-BPE-12', container: 'Slit-wall cell 120 mL', trays: 6, count: 240, size: 'small', place: 'Bench 3' }] },
    ],
    climate: {
      station: 'On the barn',
      logger: 'Logger in the polytunnel',
      cover: { name: 'Polytunnel', kind: 'tunnel', places: ['Bench 3'] },
    },
    care: [
      { lot: '26-ALN-01', after: 18, done: { what: 'inoculum', source: 'nodules' } },
      { lot: '26-ALN-07', after: 19, done: { what: 'inoculum', source: 'nodules' } },
      { lot: '26-AIN-02', after: 17, done: { what: 'inoculum', source: 'nodules' } },
      { lot: '26-ALN-07', after: 2, done: { what: 'feed', ratedMonths: 5, gramsPerLitre: 3 } },
      { lot: '26-SOR-03', after: 2, done: { what: 'feed', ratedMonths: 5, gramsPerLitre: 3 } },
      { lot: '26-BPE-06', after: 2, done: { what: 'feed', ratedMonths: 5, gramsPerLitre: 3 } },
      { lot: '26-SCA-02', after: 2, done: { what: 'feed', ratedMonths: 8, gramsPerLitre: 4 } },
      { lot: '26-PSY-04', after: 4, done: { what: 'feed', ratedMonths: 8, gramsPerLitre: 2 } },
      { lot: '26-BPE-06', after: 52, done: { what: 'spread', apart: 1.5 } },
      { lot: '26-TCO-01', after: 60, done: { what: 'spread', apart: 2 } },
      { lot: '26-CSA-01', after: 40, done: { what: 'weed', how: 'pulled' } },
      { lot: '26-SVI-01', after: 70, done: { what: 'stake', stake: 'flexible', staked: 40 } },
    ],
    events: [
      {
        place: 'Bed 2',
        on: [8, 16],
        what: 'browsing',
        hit: 0.12,
        dead: 0.02,
        patch: 'south end',
        note: 'Deer through the gap by the barn; fence mended.',
      },
      {
        place: 'Bench 2',
        on: [7, 19],
        what: 'heat',
        hit: 0.1,
        dead: 0.015,
        patch: 'front trays',
        note: 'Three hot days; watered at noon from the second on.',
      },
    ],
  },
  {
    name: 'Vivero Piedra Clara',
    placeName: 'Piedra Clara',
    latitudeDeg: -41.2,
    longitudeDeg: -71.4,
    elevationM: 780,
    timeZone: 'America/Argentina/Salta',
    language: 'es',
    weatherSeed: 4121,
    people: [
      { name: 'Nahuel', email: 'nahuel@piedraclara.example', role: 'owner' },
      { name: 'Aylen', email: 'aylen@piedraclara.example', role: 'crew' },
    ],
    designs: {
      'Grande, dos tablas': bed(2400, 1200, ['50x200', '50x200'], 400),
      'Grande, una tabla': bed(2400, 1200, ['50x200'], null),
    },
    site: [
      {
        kind: 'outline',
        name: 'Patio',
        points: [
          [0, 0],
          [14, 0],
          [14, 9],
          [0, 9],
        ],
      },
    ],
    places: [
      { name: 'Cama 1', east: 2, north: 3, medium: 0, design: 'Grande, dos tablas' },
      { name: 'Cama 2', east: 6, north: 3, medium: 0, design: 'Grande, una tabla' },
    ],
    seed: piedraClaraSeed,
    orders: piedraClaraOrders,
    plantings: piedraClaraPlantings,
    // One a line.
    // prettier-ignore
    lots: [
      { code: '25-NPU-01', species: 'NPU', place: 'Cama 1', in: { density: 220, area: 1.3 }, season: -1, sown: [4, 10], seeds: 1100, target: 20, lifted: 0.4 },
      { code: '26-NAN-01', species: 'NAN', place: 'Cama 1', in: { density: 240, area: 1.0 }, season: 0, sown: [4, 2], seeds: 1000, target: 20 },
      { code: '26-NDO-01', species: 'NDO', place: 'Cama 2', in: { density: 240, area: 1.8 }, season: 0, sown: [3, 20], seeds: 1500, target: 25 },
    ],
  },
];
