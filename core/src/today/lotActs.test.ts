import type { Home } from '../home/home';
import { describe, expect, it } from 'vitest';
import { dayOf } from '../calendar/day';
import { forecastLot } from '../forecast/forecast';
import { factsAt } from '../forecast/lotHomes';
import type { LotFacts } from '../forecast/lotFacts';
import { standingOf } from '../forecast/standing';
import { startingSpecies } from '../species/startingSpecies';
import { weatherOutlook } from '../weather/ensemble';
import { generateWeather } from '../weather/generator';
import { roughNormals } from '../weather/normals';
import { warmthOf } from '../weather/sums';
import { actsFor } from './lotActs';

/*
 * Situations and the acts they ask for, north and south. The southern half of each pair is the northern moved by half a
 * year: 182 days, with its own weather.
 */
const sites = {
  north: { latitudeDeg: 54.6, elevationM: 185, shift: 0 },
  south: { latitudeDeg: -54.6, elevationM: 185, shift: -182 },
} as const;
type SiteName = keyof typeof sites;
const weather = Object.fromEntries(
  Object.entries(sites).map(([name, site]) => [
    name,
    generateWeather(roughNormals(site.latitudeDeg, site.elevationM), dayOf('2016-01-01'), 4100, 11),
  ]),
);
const tube: Home = {
  kind: 'container',
  name: 'Tube',
  cellMl: 150,
  depthMm: 165,
  airShare: 0.3,
  pitchMm: 45,
  spaceable: true,
};
const pot: Home = { ...tube, name: 'Pot', cellMl: 6000, depthMm: 250, pitchMm: 220, spaceable: false };
const bed: Home = { kind: 'bed', densityPerM2: 120, settledDepthMm: 240, airShare: 0.5, headroomCm: 30 };

interface Situation {
  says: string;
  on: string;
  asks: string[];
  not?: string[];
  lot?: Partial<Omit<LotFacts, 'counts' | 'sizes' | 'pulls' | 'care'>>;
  up?: string | null;
  sown?: string;
  sizes?: [string, 'height' | 'diameter', number][];
  pulls?: [string, number[]][];
  care?: [string, NonNullable<LotFacts['care']>[number]['done']][];
  counts?: [string, number][];
}

const situations: Situation[] = [
  {
    says: 'sown and expected up: count',
    on: '2026-05-05',
    up: null,
    asks: ['count-up'],
    not: ['measure', 'inoculate'],
  },
  {
    says: 'sown yesterday: what follows sowing, and nothing of drying yet',
    on: '2026-03-02',
    sown: '2026-03-01',
    up: null,
    asks: ['after-sowing'],
    not: ['keep-moist'],
  },
  {
    says: 'watered in: not again',
    on: '2026-03-02',
    sown: '2026-03-01',
    up: null,
    care: [['2026-03-01', { what: 'water', mm: null }]],
    asks: [],
    not: ['after-sowing'],
  },
  { says: 'about to come up: keep it moist', on: '2026-05-01', up: null, asks: ['keep-moist'] },
  {
    says: 'watered the day before: moist',
    on: '2026-05-01',
    up: null,
    care: [['2026-04-30', { what: 'water', mm: 6 }]],
    asks: [],
    not: ['keep-moist'],
  },
  {
    says: 'months before it comes up: winter keeps it moist',
    on: '2026-03-12',
    sown: '2026-03-01',
    up: null,
    asks: [],
    not: ['keep-moist', 'after-sowing'],
  },
  { says: 'up: no more a seedbed', on: '2026-05-27', asks: [], not: ['keep-moist', 'after-sowing'] },
  {
    says: 'looked for a week ago, none up yet: not again',
    on: '2026-05-05',
    up: null,
    counts: [['2026-04-29', 0]],
    asks: [],
    not: ['count-up'],
  },
  {
    says: 'looked for a fortnight ago, none up yet: look again',
    on: '2026-05-05',
    up: null,
    counts: [['2026-04-21', 0]],
    asks: ['count-up'],
  },
  {
    says: 'none up long after it should be: decide',
    on: '2026-09-20',
    up: null,
    counts: [
      ['2026-06-01', 0],
      ['2026-09-01', 0],
    ],
    asks: ['write-off'],
  },
  {
    says: 'alders up two weeks ago: nodule inoculum',
    on: '2026-05-27',
    lot: { nodules: true },
    asks: ['inoculate'],
  },
  {
    says: 'alders inoculated: not again',
    on: '2026-06-05',
    lot: { nodules: true },
    care: [['2026-05-28', { what: 'inoculum', source: 'nodules' }]],
    asks: [],
    not: ['inoculate'],
  },
  { says: 'other species: no inoculum', on: '2026-05-27', asks: [], not: ['inoculate'] },
  {
    says: 'leaves about to meet in a full rack: spread',
    on: '2026-06-28',
    sizes: [['2026-06-27', 'height', 8]],
    asks: ['spread'],
  },
  {
    says: 'already spread: not again',
    on: '2026-06-28',
    sizes: [['2026-06-27', 'height', 8]],
    care: [['2026-06-20', { what: 'spread', apart: 4 }]],
    asks: [],
    not: ['spread'],
  },
  {
    says: 'spread, then packed again: spread',
    on: '2026-06-28',
    sizes: [['2026-06-27', 'height', 8]],
    care: [
      ['2026-06-10', { what: 'spread', apart: 4 }],
      ['2026-06-20', { what: 'pack' }],
    ],
    asks: ['spread'],
  },
  {
    says: 'a block that cannot be spread: no word of it',
    on: '2026-06-28',
    lot: { home: { ...tube, spaceable: false } },
    sizes: [['2026-06-27', 'height', 8]],
    asks: [],
    not: ['spread'],
  },
  {
    says: 'a short feed in midsummer: feed again',
    on: '2026-08-20',
    care: [['2026-04-10', { what: 'feed', ratedMonths: 3, gramsPerLitre: 3 }]],
    asks: ['feed-out'],
  },
  {
    says: 'the same feed in winter: nothing grows, nothing is fed',
    on: '2026-12-20',
    care: [['2026-04-10', { what: 'feed', ratedMonths: 3, gramsPerLitre: 3 }]],
    asks: [],
    not: ['feed-out', 'measure'],
  },
  { says: 'not measured all summer: measure', on: '2026-08-10', asks: ['measure'] },
  {
    says: 'measured three weeks ago: not yet',
    on: '2026-08-10',
    sizes: [['2026-07-20', 'height', 12]],
    asks: [],
    not: ['measure'],
  },
  {
    says: 'tight plugs in a small cell: move on',
    on: '2026-09-25',
    pulls: [['2026-09-20', [4, 4, 4, 4]]],
    asks: ['root-bound'],
    not: ['spread'],
  },
  { says: 'a small cell in doubt: pull plugs', on: '2026-09-20', asks: ['pull-plug'] },
  {
    says: 'a bed under a low lid: raise it',
    on: '2026-07-25',
    lot: { home: bed },
    sizes: [['2026-07-20', 'height', 26]],
    asks: ['lid-reached'],
  },
  {
    says: 'a bed, leaves down, in winter: lift',
    on: '2027-01-10',
    lot: { home: bed, leafFallOn: dayOf('2026-11-10') },
    asks: ['lift'],
  },
  {
    says: 'a second season in one pot: shift',
    on: '2027-11-20',
    lot: { home: { ...pot, cellMl: 20_000 } },
    asks: ['second-season'],
  },
  {
    says: 'a first season in a large pot: nothing of it',
    on: '2026-08-10',
    lot: { home: pot },
    asks: [],
    not: ['second-season', 'root-bound'],
  },
];

function asked(site: SiteName, s: Situation): string[] {
  const { shift, ...where } = sites[site];
  const day = (iso: string) => dayOf(iso) + shift;
  const up = s.up === undefined ? '2026-05-12' : s.up;
  const sownOn = day(s.sown ?? '2026-04-08');
  const facts: LotFacts = {
    id: 'lot-1',
    code: '26-ALN-01',
    species: startingSpecies.find((x) => x.code === 'ALN')!.values,
    seedState: 'ready',
    home: tube,
    targetHeightCm: 30,
    ...s.lot,
    sownOn,
    leafFallOn: s.lot?.leafFallOn ? s.lot.leafFallOn + shift : null,
    counts: [...(up ? [[up, 700] as const] : []), ...(s.counts ?? [])].map(([on, count]) => ({
      day: day(on),
      count,
    })),
    sizes: (s.sizes ?? []).map(([on, what, mean]) => ({ day: day(on), what, mean, n: 14, sd: mean * 0.25 })),
    pulls: (s.pulls ?? []).map(([on, scores]) => ({ day: day(on), scores })),
    care: (s.care ?? []).map(([on, done]) => ({ day: day(on), done })),
    movements: [
      { day: sownOn, from: 'supply', to: 'seed', count: 1000 },
      { day: sownOn, from: 'seed', to: 'sown', count: 1000 },
      ...(up ? [{ day: day(up), from: 'sown' as const, to: 'standing' as const, count: 700 }] : []),
    ],
  };
  const asOf = day(s.on);
  const outlook = weatherOutlook(weather[site], where, asOf, { horizonDays: 460 });
  const known = factsAt(facts, asOf);
  const forecast = forecastLot(facts, outlook, warmthOf(outlook), { view: asOf });
  return actsFor(known, forecast, standingOf(known, forecast)!, where.latitudeDeg).map((act) => act.rule);
}

describe.each(['north', 'south'] as const)('what a lot asks for, %s', (site) => {
  it.each(situations)('$says', (situation) => {
    const rules = asked(site, situation);
    for (const rule of situation.asks) expect(rules).toContain(rule);
    for (const rule of situation.not ?? []) expect(rules).not.toContain(rule);
  });
});
