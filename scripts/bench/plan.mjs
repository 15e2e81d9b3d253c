import { loadSource } from './load.mjs';
import { fastest, ms } from './measure.mjs';

const WEEKS = 52;
const ROUTES = 50;
const PLACES = 500;
const LOTS = 2000;

/** When to sow, and the board: what the Plan station asks of the core. */
export async function benchPlan(core) {
  const asOf = core.dayOf('2026-11-24');
  const series = core.generateWeather(core.roughNormals(54.6, 185), asOf - 3900, 3901, 7);
  const weather = core.feltWeather(core.knownWeather(series, { latitudeDeg: 54.6, elevationM: 185 }, asOf));
  const tube = { kind: 'container', name: 'Tube', cellMl: 110, depthMm: 140, airShare: 0.3, pitchMm: 52 };
  const pot = { ...tube, name: 'Pot', cellMl: 2000, pitchMm: 160 };
  const bed = { kind: 'bed', densityPerM2: 150, settledDepthMm: 220, airShare: 0.5, headroomCm: null };
  const chains = [
    [{ home: tube, ends: null }],
    [{ home: bed, ends: null }],
    [
      { home: tube, ends: 'plug holds' },
      { home: pot, ends: null },
    ],
  ];
  const route = (i) => ({
    facts: {
      id: `route ${i}`,
      code: 'route',
      species: core.startingSpecies[i % core.startingSpecies.length].values,
      seedState: 'ready',
      targetHeightCm: null,
      leafFallOn: null,
      counts: [],
      sizes: [],
      pulls: [],
      movements: [],
    },
    stages: chains[i % chains.length].map((stage) => ({ goesOn: 0.9, counted: 13, ...stage })),
  });
  const wanted = { on: asOf + 390, until: asOf + 430, fromCm: 20, toCm: 60, chance: 0.9 };
  const weeks = (one, count) => {
    for (let week = 1; week <= count; week++)
      core.pointOf(core.sowRoute(one, asOf + 7 * week, wanted, weather), wanted);
  };
  const first = fastest(() => weeks(route(0), WEEKS), { warmMs: 300, runs: 5 });
  const all = fastest(
    () => {
      for (let i = 0; i < ROUTES; i++) weeks(route(i), WEEKS);
    },
    { warmMs: 0, runs: 1 },
  );
  const design = { schema: 1, lengthMm: 9000, widthMm: 1500 };
  const place = (i) => ({ id: `p${i}`, version: 1, place: { kind: 'bench', name: `Bench ${i}`, design } });
  const container = { id: 'c', version: 1, values: core.startingContainers[0] };
  const places = Array.from({ length: PLACES }, (_, i) => place(i));
  const lookup = core.lookupFrom({ species: [], places, containers: [container], media: [] });
  const stays = Array.from({ length: LOTS }, (_, i) => ({
    id: `lot ${i}`,
    placeId: `p${i % PLACES}`,
    from: asOf + ((i * 37) % 500),
    until: asOf + ((i * 37) % 500) + 40 + (i % 200),
    isPlanned: i % 2 === 0,
    occupant: { lotId: `lot ${i}`, stage: { containerTypeId: 'c', trays: 5 + (i % 20), areaM2: null } },
    mayLeaveFrom: Infinity,
  }));
  const byPlace = new Map(places.map(({ id }) => [id, stays.filter((stay) => stay.placeId === id)]));
  const board = fastest(
    () => places.map((one) => core.boardRow(one, byPlace.get(one.id), lookup, asOf, asOf + 7 * 104)),
    { warmMs: 0, runs: 3 },
  );
  const season = await benchSeason();
  return [
    [`when to sow: one route over ${WEEKS} weeks`, ms(first), '', '', '≤ 300 ms'],
    [`when to sow: ${ROUTES} routes × ${WEEKS} weeks, one thread`, ms(all), '', '', '≤ 5 s in workers'],
    [`board: ${PLACES} places × 104 weeks, ${LOTS} stays, laid out anew`, ms(board), '', '', ''],
    ...season,
  ];
}

/** Seasons of lines, places and weeks: chosen at once, then by the solver, with how far each is from the bound at most. */
async function benchSeason() {
  const { madeSeason } = await loadSource('core/src/plan/season.fixture.ts');
  const { greedySeason } = await loadSource('core/src/plan/seasonGreedy.ts');
  const { solveSeason } = await loadSource('core/src/plan/seasonSolver.ts');
  const rows = [];
  for (const [lines, kinds, roomM2, seconds, aim] of [
    [60, 6, 10, 60, '≤ 2 % in 60 s'],
    [60, 6, 6, 60, '≤ 2 % in 60 s'],
    [200, 8, 20, 300, '≤ 5 % in 5 min'],
  ]) {
    const problem = madeSeason({ lines, kinds, roomM2, days: 728, weeks: 8, stocks: 20, seed: 3 });
    const begun = performance.now();
    const greedy = greedySeason(problem);
    const quick = performance.now() - begun;
    const { gap } = await solveSeason(problem, greedy, { seconds });
    const took = (performance.now() - begun - quick) / 1000;
    const name = `season: ${lines} lines, ${problem.ways.length} ways, ${kinds} kinds of ${roomM2} m², 104 weeks`;
    rows.push([`${name}, at once`, ms(quick), '', '', '≤ 1 s']);
    rows.push([`${name}, solver`, `${took.toFixed(1)} s`, '', `within ${(100 * gap).toFixed(1)} %`, aim]);
  }
  return rows;
}
