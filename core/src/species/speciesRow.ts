import type { Beta } from '../chance/beta';
import { word } from '../speech/say';
import { protocolsFrom } from './protocol';
import type { CuttingKind, StartValues, StorageBehaviour } from './startValues';
import type { StartingSpecies } from './species';

/** Weight of a starting share, in seeds. */
const WEIGHT = 20;

function share(mean: number): Beta {
  return { alpha: mean * WEIGHT, beta: (1 - mean) * WEIGHT };
}

export interface Row {
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
  /** °C that growth begins above, and that adds nothing more beyond; 5 and none where left out. */
  base?: number;
  ceiling?: number;
  /** Whether its buds move with the first or the last of the wood's edge. */
  buds?: 'early' | 'late';
  start: StartRow;
}

/** How a species is started, as the tables write it. */
export interface StartRow {
  keeps: StorageBehaviour;
  /** Days to lose one probit in its usual store. */
  sigma: number;
  /** Thickness of the seed, mm. */
  thick: number;
  /** Protocols as {@link protocolsFrom} reads them. */
  wake: string;
  /** °C·d above 1 from dormancy broken to half the radicles. */
  radicle: number;
  habit: StartValues['rootHabit'];
  sturdy?: number;
  nodules?: 'frankia' | 'rhizobia';
  cut?: Partial<Record<CuttingKind, readonly [take: number, rootDd: number]>>;
  layer?: readonly [take: number, rootDd: number];
  leaf: string;
  care?: readonly string[];
}

function startFrom(row: StartRow): StartValues {
  const rooting = ([take, rootDd]: readonly [number, number]) => ({
    take: share(take),
    rootDd: { median: rootDd, sdLog: 0.3 },
  });
  return {
    storage: row.keeps,
    sigmaDays: { median: row.sigma, sdLog: 0.4 },
    thicknessMm: row.thick,
    protocols: protocolsFrom(row.wake),
    radicleDd: { median: row.radicle, sdLog: 0.4 },
    rootHabit: row.habit,
    sturdinessMost: row.sturdy ?? 8,
    nodules: row.nodules ?? 'none',
    cuttings: Object.fromEntries(
      Object.entries(row.cut ?? {}).map(([kind, values]) => [kind, rooting(values)]),
    ),
    layer: row.layer ? rooting(row.layer) : null,
    get leafWords() {
      return word(row.leaf);
    },
    get cautions() {
      return (row.care ?? []).map(word);
    },
  };
}

/** Thermal time an unchilled bud adds, °C·d: the range Cannell & Smith (1983) and later fits span. */
const BUDBURST_B = { early: 260, usual: 350, late: 470 } as const;

/** A species from one row of a table. */
export function species(code: string, common: string, latin: string, row: Row): StartingSpecies {
  const [viability, emergence, establishment, grade] = row.shares;
  return {
    code,
    get common() {
      return word(common);
    },
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
      rootLinearAtMl: 150,
      rootInitialMl: 1.5,
      liftChillHours: row.chill,
      budburst: { a: 60, b: BUDBURST_B[row.buds ?? 'usual'], k: 0.025 },
      ...(row.base !== undefined && { growthBaseC: row.base, growthCeilingC: row.ceiling }),
      start: startFrom(row.start),
    },
  };
}
