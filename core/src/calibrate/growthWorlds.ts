import { dayOf, type EpochDay } from '../calendar/day';
import { gammaDraw, normalDraw, seededRandom, type Random } from '../chance/random';
import { forecastLot } from '../forecast/forecast';
import type { LotFacts } from '../forecast/lotFacts';
import { plantYears, standpointOn, stretchesOf, type PlantYear } from '../forecast/plantYears';
import { curveWith, middleCurve, scaleFor } from '../forecast/sizeRuns';
import { MODEL_DAYS, MODEL_SD, SEASON_SD } from '../growth/sizeBelief';
import { sizeOn, type GrowthCurve, type Stretch } from '../growth/stretches';
import type { Home } from '../home/home';
import type { SpeciesValues } from '../species/species';
import { startingSpecies } from '../species/startingSpecies';
import type { Site } from '../weather/ensemble';
import { generateWeather } from '../weather/generator';
import { knownWeather, type KnownWeather } from '../weather/known';
import { roughNormals } from '../weather/normals';

/** A way the truth may be unlike what the model assumes. Factors are on the assumed value. */
export interface GrowthWorld {
  name: string;
  /** Spread of lots about their kind. */
  lots?: number;
  /** Degrees of freedom of that spread; Infinity for a normal one. */
  tails?: number;
  /** The species' true size against its starting value. */
  species?: number;
  /** Spread between plants of a lot. */
  plants?: number;
  /** Error of the curve itself. */
  model?: number;
  /** Luck of a season. */
  season?: number;
  /** Share of lots browsed to seven tenths of their height once, unrecorded. */
  browsed?: number;
  site?: Site;
}

export const growthWorlds: readonly GrowthWorld[] = [
  { name: 'as assumed', tails: 4 },
  { name: 'lots alike', lots: 0.5 },
  { name: 'lots far apart', lots: 1.6 },
  { name: 'heavy tails', tails: 3 },
  { name: 'species half as tall again', species: 1.5 },
  { name: 'species a third shorter', species: 0.67 },
  { name: 'plants twice as uneven', plants: 2 },
  { name: 'curves twice as wrong', model: 1.8 },
  { name: 'some browsed', browsed: 0.15 },
  { name: 'far north', site: { latitudeDeg: 65, elevationM: 100 } },
  { name: 'south', site: { latitudeDeg: -41, elevationM: 150 } },
  { name: 'tropics', site: { latitudeDeg: 12, elevationM: 100 } },
];

export interface GrowthTally {
  world: string;
  samples: number;
  /** Forecast four weeks on, or at the end of the next season. */
  ahead: 'weeks' | 'season';
  n: number;
  /** Share of truths inside the 80 % band. */
  held: number;
  /** Mean width of the band over its middle. */
  width: number;
  /** Mean pinball loss at 10, 50 and 90 %, of the logarithm; of the plain forecasters at their own best band. */
  pinball: number;
  lastPlusSpecies: number;
  lastValue: number;
}

const HOME: Home = { kind: 'bed', densityPerM2: 150, settledDepthMm: 250, airShare: 0.6, headroomCm: null };
const PLANTS = 12;

interface TrueLot {
  facts: LotFacts;
  /** ln of its true mean on a day. */
  lnAt: (day: EpochDay) => number;
  middleAt: (day: EpochDay) => number;
}

/** A Student t of variance 1, or a normal. */
function tailed(random: Random, degrees: number): number {
  if (degrees === Infinity) return normalDraw(random);
  const t = normalDraw(random) / Math.sqrt(gammaDraw(random, degrees / 2, 2) / degrees);
  return degrees > 2 ? t / Math.sqrt(degrees / (degrees - 2)) : t;
}

function trueLot(
  world: GrowthWorld,
  species: SpeciesValues,
  plant: PlantYear,
  measured: readonly EpochDay[],
  random: Random,
  id: string,
): TrueLot {
  const middle = middleCurve(species, 'height');
  const tails = world.tails ?? Infinity;
  const spread = world.lots ?? 1;
  const own = curveWith(
    middle,
    Math.log(world.species ?? 1) + species.heightCm.sdLog * spread * tailed(random, tails),
    species.growthPerDd.sdLog * spread * tailed(random, tails),
  );
  const luck = (size: number) => size * Math.exp(SEASON_SD * (world.season ?? 1) * normalDraw(random));
  const curve: GrowthCurve = { ...own, second: luck(own.second), later: luck(own.later) };
  const facts: LotFacts = {
    id,
    code: id,
    species,
    sownOn: plant.up - 30,
    seedState: 'ready',
    home: HOME,
    targetHeightCm: null,
    leafFallOn: null,
    counts: [{ day: plant.up, count: 500 }],
    sizes: [],
    pulls: [],
    movements: [],
  };
  const stretches: Stretch[] = stretchesOf(plant, facts, scaleFor(species, 'height'));
  // The curve's own error wanders with growing days: an Ornstein–Uhlenbeck path laid out on whole growing days.
  const wander: number[] = [];
  const sd = MODEL_SD * (world.model ?? 1);
  const keep = Math.exp(-1 / MODEL_DAYS);
  const wanderAt = (grown: number) => {
    for (let g = wander.length; g <= grown; g++)
      wander.push(
        g === 0
          ? sd * normalDraw(random)
          : keep * wander[g - 1] + sd * Math.sqrt(1 - keep ** 2) * normalDraw(random),
      );
    return wander[Math.max(0, Math.floor(grown))];
  };
  const browsedOn = random() < (world.browsed ?? 0) ? measured[0] + 10 : Infinity;
  const lnAt = (day: EpochDay) =>
    Math.log(sizeOn(stretches, curve, day, plant.warmth.by)) +
    wanderAt(standpointOn(stretches, middle, day, plant.warmth.by).grown) +
    (day >= browsedOn ? Math.log(0.7) : 0);
  const cv = species.plantCv * (world.plants ?? 1);
  const sizes = measured.map((day) => {
    const mean = Math.exp(lnAt(day)) * Math.exp(0.03 * normalDraw(random));
    const plants = Array.from({ length: PLANTS }, () => Math.max(0.2, mean * (1 + cv * normalDraw(random))));
    const seen = plants.reduce((t, x) => t + x, 0) / PLANTS;
    const square = plants.reduce((t, x) => t + (x - seen) ** 2, 0) / (PLANTS - 1);
    return { day, what: 'height' as const, n: PLANTS, mean: seen, sd: Math.sqrt(square) };
  });
  return {
    facts: { ...facts, sizes },
    lnAt,
    middleAt: (day) => sizeOn(stretches, middle, day, plant.warmth.by),
  };
}

const QUANTILES = [0.1, 0.5, 0.9];
const pinballOf = (truth: number, at: readonly number[]) =>
  at.reduce((t, q, i) => t + Math.max(QUANTILES[i] * (truth - q), (QUANTILES[i] - 1) * (truth - q)), 0) /
  QUANTILES.length;

/** Loss of a plain forecaster given the best band its own errors allow. */
function plainLoss(errors: readonly number[]): number {
  const sorted = [...errors].sort((a, b) => a - b);
  const at = QUANTILES.map((q) => sorted[Math.min(sorted.length - 1, Math.floor(q * sorted.length))]);
  return errors.reduce((t, e) => t + pinballOf(e, at), 0) / errors.length;
}

const weather = new Map<string, KnownWeather>();
function weatherAt(site: Site, asOf: EpochDay): KnownWeather {
  const key = `${site.latitudeDeg} ${site.elevationM} ${asOf}`;
  let known = weather.get(key);
  if (!known) {
    const end = dayOf('2026-12-20');
    const series = generateWeather(roughNormals(site.latitudeDeg, site.elevationM), end - 4383, 4384, 11);
    weather.set(key, (known = knownWeather(series, site, asOf)));
  }
  return known;
}

/** A lot of a world, measured, with the weather as known when it is forecast and the day it is forecast for. */
export interface WorldLot {
  lot: TrueLot;
  /** Spread between its plants, over their mean, in truth. */
  cv: number;
  weather: KnownWeather;
  madeOn: EpochDay;
  view: EpochDay;
  random: Random;
}

/** Lots of one world, one after another, measured as a grower would. */
export function* worldLots(
  world: GrowthWorld,
  samples: 1 | 2 | 3,
  ahead: GrowthTally['ahead'],
  lots: number,
  seed: number,
): Generator<WorldLot> {
  const site = world.site ?? { latitudeDeg: 54.6, elevationM: 185 };
  const random = seededRandom(seed);
  const north = site.latitudeDeg >= 0;
  // Forecasts are made in the last season but one of the record, so that the truth after them is known.
  const up = dayOf(north ? '2025-05-12' : '2024-11-10');
  const measured = [45, 75, 105].slice(0, samples).map((days) => up + days);
  const madeOn = measured[samples - 1];
  const truthWeather = weatherAt(site, dayOf('2026-12-20'));
  const weather = weatherAt(site, madeOn);
  const view = ahead === 'weeks' ? madeOn + 28 : dayOf(north ? '2026-10-20' : '2026-04-20');
  const kinds = ['ALN', 'BPE', 'CRA', 'QPE'].map(
    (code) => startingSpecies.find((s) => s.code === code)!.values,
  );
  for (let i = 0; i < lots; i++) {
    const species = kinds[i % kinds.length];
    const years = plantYears({ species } as LotFacts, site.latitudeDeg, truthWeather.warmth);
    const lot = trueLot(world, species, years(0, up), measured, random, `${seed}-${i}`);
    yield { lot, cv: species.plantCv * (world.plants ?? 1), weather, madeOn, view, random };
  }
}

/**
 * Simulates lots of one world, measures them as a grower would, forecasts from each sample on and counts how the
 * forecasts held.
 * @param lots how many
 * @param samples heights taken before the forecast, 1–3
 */
export function growthTally(
  world: GrowthWorld,
  samples: 1 | 2 | 3,
  ahead: GrowthTally['ahead'],
  lots: number,
  seed: number,
): GrowthTally {
  const tally = { held: 0, width: 0, pinball: 0 };
  const errors = { species: [] as number[], value: [] as number[] };
  for (const { lot, weather, madeOn, view } of worldLots(world, samples, ahead, lots, seed)) {
    const { state } = forecastLot(lot.facts, weather.outlook, weather.warmth, { view });
    const truth = lot.lnAt(view);
    const band = [state.heightCm.p10, state.heightCm.p50, state.heightCm.p90].map(Math.log);
    if (truth >= band[0] && truth <= band[2]) tally.held++;
    tally.width += (state.heightCm.p90 - state.heightCm.p10) / state.heightCm.p50;
    tally.pinball += pinballOf(truth, band);
    const last = lot.facts.sizes[samples - 1].mean;
    errors.value.push(truth - Math.log(last));
    errors.species.push(truth - Math.log(last + lot.middleAt(view) - lot.middleAt(madeOn)));
  }
  return {
    world: world.name,
    samples,
    ahead,
    n: lots,
    held: tally.held / lots,
    width: tally.width / lots,
    pinball: tally.pinball / lots,
    lastPlusSpecies: plainLoss(errors.species),
    lastValue: plainLoss(errors.value),
  };
}
