import type { Beta } from '../chance/beta';

/** A positive quantity known roughly: median and standard deviation of its logarithm. */
export interface Spread {
  median: number;
  sdLog: number;
}

/**
 * Starting values of a species, each within ordinary published ranges and meant to be sharpened by the
 * nursery's own lots. °C·d are above 5 °C.
 */
export interface SpeciesValues {
  leaf: 'deciduous' | 'evergreen';
  seedsPerKg: number;
  viability: Beta;
  emergence: Beta;
  establishment: Beta;
  grade: Beta;
  /** Winters a freshly sown seed lies before it comes up; 0 for seed that is ready. */
  winters: number;
  /** Warmth from sowing (or from the end of its last winter) to half up. */
  emergenceDd: Spread;
  /** Height a season's crowd tends to, and how fast, from which seedling. */
  heightCm: Spread;
  diameterMm: Spread;
  growthPerDd: Spread;
  seedlingHeightCm: number;
  seedlingDiameterMm: number;
  /** Coefficient of variation of height between plants of a lot. */
  plantCv: number;
  /** Density at which diameter begins to suffer (reciprocal yield law), plants per m². */
  halfDensityPerM2: number;
  rootRatePerDd: number;
  rootLinearAtMl: number;
  rootInitialMl: number;
  /** Chilling hours (0–7.2 °C) after growth stops until the lot is dormant enough to lift. */
  liftChillHours: number;
  /** Thermal time to budburst: a + b·exp(−k·chill days). */
  budburst: { a: number; b: number; k: number };
}

export interface StartingSpecies {
  code: string;
  common: string;
  latin: string;
  values: SpeciesValues;
}

/** Weight of a starting share, in seeds. */
const WEIGHT = 20;

function share(mean: number): Beta {
  return { alpha: mean * WEIGHT, beta: (1 - mean) * WEIGHT };
}

interface Row {
  evergreen?: true;
  seedsPerKg: number;
  shares: readonly [viability: number, emergence: number, establishment: number, grade: number];
  winters?: number;
  upDd: number;
  height: number;
  diameter: number;
  growth: number;
  root: number;
  chill: number;
  /** Whether its buds move with the first or the last of the wood's edge. */
  buds?: 'early' | 'late';
}

/** Thermal time an unchilled bud adds, °C·d: the range Cannell & Smith (1983) and later fits span. */
const BUDBURST_B = { early: 260, usual: 350, late: 470 } as const;

function species(code: string, common: string, latin: string, row: Row): StartingSpecies {
  const [viability, emergence, establishment, grade] = row.shares;
  return {
    code,
    common,
    latin,
    values: {
      leaf: row.evergreen ? 'evergreen' : 'deciduous',
      seedsPerKg: row.seedsPerKg,
      viability: share(viability),
      emergence: share(emergence),
      establishment: share(establishment),
      grade: share(grade),
      winters: row.winters ?? 0,
      emergenceDd: { median: row.upDd, sdLog: 0.25 },
      heightCm: { median: row.height, sdLog: 0.3 },
      diameterMm: { median: row.diameter, sdLog: 0.25 },
      growthPerDd: { median: row.growth, sdLog: 0.25 },
      seedlingHeightCm: 2.5,
      seedlingDiameterMm: 0.9,
      plantCv: 0.25,
      halfDensityPerM2: 250,
      rootRatePerDd: row.root,
      rootLinearAtMl: 60,
      rootInitialMl: 1.5,
      liftChillHours: row.chill,
      budburst: { a: 60, b: BUDBURST_B[row.buds ?? 'usual'], k: 0.025 },
    },
  };
}

/** Starting species: temperate broadleaves and conifers, and the southern beeches. A table: one species a line. */
// prettier-ignore
export const startingSpecies: readonly StartingSpecies[] = [
  species('BPE', 'Silver birch', 'Betula pendula', { seedsPerKg: 1_500_000, shares: [0.45, 0.6, 0.85, 0.8], upDd: 110, height: 55, diameter: 6, growth: 0.0032, root: 0.0068, chill: 380 }),
  species('BPU', 'Downy birch', 'Betula pubescens', { seedsPerKg: 1_700_000, shares: [0.4, 0.6, 0.85, 0.8], upDd: 115, height: 50, diameter: 5.8, growth: 0.003, root: 0.0064, chill: 380, buds: 'early' }),
  species('ALN', 'Common alder', 'Alnus glutinosa', { seedsPerKg: 750_000, shares: [0.45, 0.65, 0.88, 0.82], upDd: 105, height: 60, diameter: 7, growth: 0.0034, root: 0.0078, chill: 360 }),
  species('AIN', 'Grey alder', 'Alnus incana', { seedsPerKg: 1_400_000, shares: [0.45, 0.62, 0.88, 0.82], upDd: 105, height: 58, diameter: 7, growth: 0.0034, root: 0.0076, chill: 360 }),
  species('SOR', 'Rowan', 'Sorbus aucuparia', { seedsPerKg: 280_000, shares: [0.75, 0.6, 0.88, 0.82], winters: 1, upDd: 90, height: 45, diameter: 6, growth: 0.003, root: 0.0064, chill: 400 }),
  species('QPE', 'Sessile oak', 'Quercus petraea', { seedsPerKg: 320, shares: [0.85, 0.85, 0.95, 0.85], winters: 1, upDd: 190, height: 26, diameter: 5.5, growth: 0.0042, root: 0.0066, chill: 420, buds: 'late' }),
  species('CBE', 'Hornbeam', 'Carpinus betulus', { seedsPerKg: 25_000, shares: [0.65, 0.6, 0.9, 0.82], winters: 2, upDd: 130, height: 32, diameter: 5, growth: 0.003, root: 0.0058, chill: 400, buds: 'late' }),
  species('ACA', 'Field maple', 'Acer campestre', { seedsPerKg: 14_000, shares: [0.65, 0.55, 0.9, 0.82], winters: 2, upDd: 110, height: 38, diameter: 5.2, growth: 0.003, root: 0.006, chill: 400 }),
  species('TCO', 'Small-leaved lime', 'Tilia cordata', { seedsPerKg: 32_000, shares: [0.6, 0.45, 0.88, 0.8], winters: 2, upDd: 140, height: 28, diameter: 5, growth: 0.0028, root: 0.0056, chill: 420, buds: 'late' }),
  species('EEU', 'Spindle', 'Euonymus europaeus', { seedsPerKg: 32_000, shares: [0.7, 0.55, 0.88, 0.8], winters: 2, upDd: 130, height: 30, diameter: 4.6, growth: 0.003, root: 0.006, chill: 380, buds: 'early' }),
  species('VOP', 'Guelder rose', 'Viburnum opulus', { seedsPerKg: 30_000, shares: [0.7, 0.55, 0.88, 0.82], winters: 2, upDd: 120, height: 32, diameter: 5, growth: 0.0031, root: 0.0064, chill: 380 }),
  species('CSA', 'Dogwood', 'Cornus sanguinea', { seedsPerKg: 20_000, shares: [0.7, 0.55, 0.9, 0.82], winters: 2, upDd: 130, height: 35, diameter: 5, growth: 0.0031, root: 0.0064, chill: 380 }),
  species('CRA', 'Hawthorn', 'Crataegus monogyna', { seedsPerKg: 10_000, shares: [0.7, 0.5, 0.9, 0.84], winters: 2, upDd: 100, height: 40, diameter: 5, growth: 0.0032, root: 0.006, chill: 380, buds: 'early' }),
  species('PSP', 'Blackthorn', 'Prunus spinosa', { seedsPerKg: 5_000, shares: [0.75, 0.55, 0.9, 0.84], winters: 1, upDd: 110, height: 38, diameter: 5.2, growth: 0.0031, root: 0.006, chill: 380, buds: 'early' }),
  species('IAQ', 'Holly', 'Ilex aquifolium', { evergreen: true, seedsPerKg: 125_000, shares: [0.7, 0.45, 0.85, 0.8], winters: 2, upDd: 160, height: 14, diameter: 3, growth: 0.0024, root: 0.004, chill: 460, buds: 'late' }),
  species('PSY', 'Scots pine', 'Pinus sylvestris', { evergreen: true, seedsPerKg: 165_000, shares: [0.85, 0.8, 0.9, 0.85], upDd: 110, height: 14, diameter: 3.2, growth: 0.0026, root: 0.0054, chill: 440, buds: 'late' }),
  species('JCO', 'Juniper', 'Juniperus communis', { evergreen: true, seedsPerKg: 80_000, shares: [0.5, 0.35, 0.85, 0.8], winters: 2, upDd: 170, height: 10, diameter: 2.2, growth: 0.002, root: 0.0034, chill: 460 }),
  species('PTR', 'Aspen', 'Populus tremula', { seedsPerKg: 6_000_000, shares: [0.8, 0.6, 0.75, 0.78], upDd: 60, height: 60, diameter: 6.5, growth: 0.0036, root: 0.008, chill: 360 }),
  species('SCA', 'Goat willow', 'Salix caprea', { seedsPerKg: 8_000_000, shares: [0.8, 0.6, 0.8, 0.8], upDd: 55, height: 65, diameter: 7, growth: 0.0038, root: 0.0084, chill: 340, buds: 'early' }),
  species('SVI', 'Osier', 'Salix viminalis', { seedsPerKg: 8_000_000, shares: [0.8, 0.6, 0.8, 0.8], upDd: 55, height: 90, diameter: 8, growth: 0.0038, root: 0.0086, chill: 340, buds: 'early' }),
  species('NPU', 'Lenga', 'Nothofagus pumilio', { seedsPerKg: 60_000, shares: [0.5, 0.5, 0.85, 0.8], upDd: 110, height: 22, diameter: 4, growth: 0.0028, root: 0.005, chill: 420 }),
  species('NAN', 'Ñire', 'Nothofagus antarctica', { seedsPerKg: 250_000, shares: [0.4, 0.5, 0.85, 0.8], upDd: 110, height: 26, diameter: 4.2, growth: 0.003, root: 0.0054, chill: 420 }),
  species('NDO', 'Coihue', 'Nothofagus dombeyi', { evergreen: true, seedsPerKg: 480_000, shares: [0.45, 0.5, 0.85, 0.8], upDd: 120, height: 32, diameter: 4.5, growth: 0.003, root: 0.0056, chill: 380, buds: 'late' }),
  species('LHI', 'Radal', 'Lomatia hirsuta', { evergreen: true, seedsPerKg: 110_000, shares: [0.6, 0.5, 0.85, 0.8], upDd: 130, height: 24, diameter: 4.5, growth: 0.0028, root: 0.005, chill: 360 }),
];
