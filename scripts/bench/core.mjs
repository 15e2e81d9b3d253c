import { benchPlan } from './plan.mjs';
import { benchSurvival } from './planted.mjs';
import { benchSeed } from './seed.mjs';
import { benchYard } from './yard.mjs';
import { loadSource } from './load.mjs';
import { fastest, ms, times } from './measure.mjs';

const YEARS = 10;
const DRAWS = 30;
const DAYS = 400;

/** A bare loop of additions over typed arrays: as many as a forecast has years × days × draws. */
function bareLoop() {
  const days = new Float64Array(DAYS).map((_, i) => i * 0.001);
  const sums = new Float64Array(DRAWS);
  for (let year = 0; year < YEARS; year++) {
    for (let t = 0; t < DAYS; t++) {
      const dd = days[t];
      for (let d = 0; d < DRAWS; d++) sums[d] += dd;
    }
  }
  return sums;
}

export async function benchCore() {
  const core = await loadSource('core/src/index.ts');
  const asOf = core.dayOf('2026-06-01');
  const site = { latitudeDeg: 54.6, elevationM: 185 };
  const series = core.generateWeather(core.roughNormals(54.6, 185), asOf - 3900, 3901, 7);
  const outlook = core.weatherOutlook(series, site, asOf, { horizonDays: DAYS });
  const warmth = core.warmthOf(outlook);
  const lot = (i) => ({
    id: `lot-${i}`,
    code: `26-ALN-${i}`,
    species: core.startingSpecies[i % core.startingSpecies.length].values,
    sownOn: asOf - 54,
    seedState: 'ready',
    home: { kind: 'container', name: 'Tube', cellMl: 150, depthMm: 165, airShare: 0.3 },
    targetHeightCm: 30,
    leafFallOn: null,
    counts: [{ day: asOf - 20, count: 700 }],
    sizes: [{ day: asOf - 4, what: 'height', n: 12, mean: 8 + (i % 5), sd: 2 }],
    pulls: i % 3 ? [] : [{ day: asOf - 2, scores: [0, 1, 1] }],
    movements: [{ day: asOf - 54, from: 'supply', to: 'sown', count: 1000 }],
  });
  const one = lot(3);
  const course = { from: one.sownOn, to: asOf + 240 };
  const bare = fastest(bareLoop, { runs: 60 });
  const forecast = fastest(() =>
    core.forecastLot(one, outlook, warmth, { view: asOf, draws: DRAWS, course, explain: true }),
  );
  const quick = fastest(() => core.forecastLot(one, outlook, warmth, { view: asOf, draws: DRAWS }));
  const lots = Array.from({ length: 2000 }, (_, i) => lot(i));
  const all = fastest(
    () => {
      for (const each of lots) {
        const f = core.forecastLot(each, outlook, warmth, { view: asOf, draws: DRAWS });
        core.actsFor(each, f, core.standingOf(each, f), 54.6);
      }
    },
    { warmMs: 0, runs: 2 },
  );
  const bareAll = fastest(() => lots.forEach(bareLoop), { warmMs: 0, runs: 2 });
  const stages = [
    core.startingSpecies[0].values.viability,
    core.startingSpecies[0].values.emergence,
    core.startingSpecies[0].values.establishment,
    core.startingSpecies[0].values.grade,
  ];
  const seeds = fastest(() => core.seedsToSow({ target: 1_000_000, probability: 0.9, stages }));
  return [
    ['one lot’s forecast, as the lists need it', ms(quick), ms(bare), times(quick / bare), '< 8 ×'],
    ['one lot’s forecast with course and working', ms(forecast), ms(bare), times(forecast / bare), ''],
    ['2 000 lots in one worker', ms(all), ms(bareAll), times(all / bareAll), '< 8 ×'],
    ['seedsToSow for 1 000 000', ms(seeds), '', '', '< 20 ms'],
    ...benchSeed(core, outlook, warmth),
    ...(await benchPlan(core)),
    ...benchSurvival(core),
    ...(await benchYard(core)),
  ];
}
