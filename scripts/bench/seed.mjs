import { fastest, ms } from './measure.mjs';

/** The Seed station's answers: what its worker does as a slider moves or a date is dragged. */
export function benchSeed(core, outlook, warmth) {
  const start = (share) => core.pooledShare(share, []);
  const { values } = core.startingSpecies[0];
  const ask = (target) => ({
    target,
    probability: 0.9,
    chain: {
      viability: start(values.viability),
      emergence: start(values.emergence),
      establishment: start(values.establishment),
      grade: start(values.grade),
    },
    seedsPerKg: values.seedsPerKg,
    seedsHeld: null,
    pricePerKg: 190,
  });
  const batch = {
    phases: core.protocolsFrom('tub: warm84 cold112')[0].phases,
    startedOn: outlook.asOf - 120,
    store: { kind: 'outdoors', warmerByC: 1 },
    waking: core.wakingOf(core.startingSpecies[0].latin, []),
    taproot: false,
    alive: { alpha: 8, beta: 2 },
    seeds: 500,
    before: [],
    checks: [{ day: outlook.asOf - 20, n: 50, radicles: 0 }],
  };
  const bag = {
    since: outlook.asOf - 400,
    fresh: { alpha: 7, beta: 3 },
    sigmaDays: { median: 700, sdLog: 0.4 },
    tests: [{ day: outlook.asOf - 300, kind: 'germination', n: 100, k: 61 }],
  };
  const prior = { final: { alpha: 12, beta: 8 }, half: { median: 110, sdLog: 0.25 } };
  const counts = [10, 20, 30].map((ago) => ({ day: outlook.asOf - ago, up: 300 - 8 * ago })).reverse();
  const row = (what, work, aim = '') => [what, ms(fastest(work)), '', '', aim];
  return [
    row('sowing desk for 2 000 trees, as a slider moves', () => core.sowingPlan(ask(2000)), '< 50 ms'),
    row('sowing desk for 50 000 trees', () => core.sowingPlan(ask(5000)), '< 50 ms'),
    row('clock of a batch out of doors', () => core.treatmentClock(batch, outlook)),
    row('viability of a bag, dead and retest days', () => core.viabilityOutlook(bag, outlook.asOf)),
    row('emergence of a lot with three counts', () =>
      core.emergenceOutlook(counts, 800, outlook.asOf - 60, prior, warmth),
    ),
    row('two treatments compared', () =>
      core.compareShares({ name: 'A', n: 400, k: 232 }, { name: 'B', n: 400, k: 188 }),
    ),
  ];
}
