import { say } from '../speech/say';
import { Unfit } from '../working/unfit';
import type { Spread } from '../chance/spread';
import { budburstThermalTime } from '../weather/budburst';
import { addYears, type EpochDay } from '../calendar/day';
import { autumnStart } from '../calendar/season';
import { quantileSorted, type Band } from '../chance/quantile';
import type { SpeciesValues } from '../species/species';
import type { Outlook } from '../weather/ensemble';
import { dailyOn, tempsOn, type Warmth } from '../weather/sums';
import { sum, type Step, type Worked } from '../working/working';
import { rootingForecast } from './cuttings';

/** Branches layers are made on, mm. */
const THINNEST_MM = 6;
const THICKEST_MM = 80;

/**
 * Ring of bark to take off: about twice the branch's thickness.
 * @param freeMm straight length of branch between side shoots, mm
 * @throws Unfit with a sentence for a branch too thin or thick, or a ring longer than the free length
 */
export function ringLength(branchMm: number, freeMm: number): Worked<number> {
  if (!(branchMm >= THINNEST_MM && branchMm <= THICKEST_MM))
    throw new Unfit(
      say`A branch for layering is ${THINNEST_MM} to ${THICKEST_MM} mm thick, most often 10 to 50; ${branchMm} mm is not.`,
    );
  const value = 2 * branchMm;
  mustFitBranch(value, freeMm);
  return {
    value,
    working: [
      {
        what: say`Ring of bark to take off`,
        expression: sum`2 × ${branchMm}`,
        result: value,
        unit: 'mm',
        inputs: [{ name: say`thickness of the branch`, value: branchMm, unit: 'mm', origin: 'record' }],
      },
    ],
  };
}

/** Rings outside these times the branch's thickness are asked about: too short heals over, too long weakens it. */
const RING_USUAL = { from: 1.5, to: 3 } as const;

/** Whether a ring is unusual for its branch, and how many times its thickness it is; null where it is usual. */
export function ringDoubt(branchMm: number, ringMm: number): { times: number; why: 'short' | 'long' } | null {
  if (!(branchMm > 0 && ringMm > 0)) return null;
  const times = ringMm / branchMm;
  if (times >= RING_USUAL.from && times <= RING_USUAL.to) return null;
  return { times, why: times < RING_USUAL.from ? 'short' : 'long' };
}

/** @throws Unfit with a sentence when the ring is longer than the branch has room for */
export function mustFitBranch(ringMm: number, freeMm: number): void {
  if (ringMm > freeMm)
    throw new Unfit(
      say`A ring of ${ringMm} mm is longer than the ${freeMm} mm of clear branch. Take a straighter piece, or a thinner branch.`,
    );
}

/** Roots are there when nine in ten forecasts say so. */
const SURE = 0.9;
/** Days a potted layer needs before frost to make new roots. */
const ESTABLISH_DAYS = 42;
/** From this long into a winter on, a layer still on its branch is of the next season. */
const KEPT_ON_DAYS = 120;
/** From this long before budburst a layer may be begun: just before the sap moves. */
const BEFORE_SAP_DAYS = 28;

export type LayerSeason = 'good' | 'early' | 'late';

export interface LayerOutlook {
  /** Begin between these: just before the sap moves, to early summer. */
  good: { from: EpochDay; to: EpochDay };
  season: LayerSeason;
  rooted: Band;
  /** Cut and pot by then, so that it establishes before frost. */
  severBy: EpochDay;
  /** First autumn frost over the years. */
  firstFrost: Band;
  /** Chance that it has roots by the sever-by date. */
  chanceInTime: number;
  /**
   * When to sever it. Where roots are not there nine times in ten by this year's last day, it is kept on, wrapped, until
   * they are, and severed in the next season; `from` is when nine in ten have roots.
   */
  window: { from: EpochDay; by: EpochDay; keptOn: boolean };
  /** Pot for a rooted branch of this thickness, L. */
  potL: number;
}

/**
 * A layer's season: whether the day is good to begin, when roots are likely, by when it must be cut and potted
 * so as to establish six weeks before frost, and the first pot. By hemisphere.
 */
export function layerOutlook(
  species: Pick<SpeciesValues, 'budburst'>,
  rootDd: Spread,
  branchMm: number,
  madeOn: EpochDay,
  outlook: Outlook,
  warmth: Warmth,
): Worked<LayerOutlook> {
  const { latitudeDeg } = outlook.site;
  // The growing season the layer is begun in: its winter's start lies before.
  const winter = autumnStart(latitudeDeg, madeOn);
  const buds = band(warmth.years.map((_, year) => budburstDay(species, warmth, year, winter)));
  const from = Math.round(buds.p50 - BEFORE_SAP_DAYS);
  const to = Math.round(buds.p50 + 70);
  const rooted = rootingForecast(Math.max(madeOn, from), rootDd, warmth);
  // A layer kept on over winter is severed in the next season.
  const nextWinter = addYears(autumnStart(latitudeDeg, Math.max(madeOn, outlook.asOf - KEPT_ON_DAYS)), 1);
  const frosts = outlook.years.map((_, year) => firstFrost(outlook, year, nextWinter - 75));
  const frost = band(frosts);
  const severBy = Math.round(frost.p50 - ESTABLISH_DAYS);
  const inTime = rootedShare(rooted, severBy);
  const keptOn = inTime < SURE;
  // Not before buds move again: what roots in autumn sits out the winter on its branch.
  const nextSpring = Math.round(buds.p50) + 365;
  const window = keptOn
    ? {
        from: Math.max(nextSpring, Math.round(Math.min(rooted.p90, severBy + 365 + KEPT_ON_DAYS))),
        by: severBy + 365,
        keptOn,
      }
    : { from: Math.round(rooted.p90), by: severBy, keptOn };
  const potL = Math.max(1, Math.round(branchMm * 0.25));
  const value: LayerOutlook = {
    good: { from, to },
    season: madeOn < from ? 'early' : madeOn > to ? 'late' : 'good',
    rooted,
    severBy,
    firstFrost: frost,
    chanceInTime: inTime,
    window,
    potL,
  };
  return { value, working: workingOf(value, rootDd, branchMm, outlook.years.length) };
}

/** Day warmth after midwinter suffices for buds; the last day of the year where it never does. */
function budburstDay(
  species: Pick<SpeciesValues, 'budburst'>,
  warmth: Warmth,
  year: number,
  winter: EpochDay,
): EpochDay {
  let chill = 0;
  let heat = 0;
  for (let day = winter; day < winter + 330; day++) {
    if (dailyOn(warmth.meanC, warmth, year, day) <= 5) chill++;
    if (day - winter < 81) continue;
    heat += dailyOn(warmth, warmth, year, day);
    if (heat >= budburstThermalTime(species.budburst, chill)) return day;
  }
  return winter + 330;
}

/** First day from a date on with frost; four months on where none comes. */
function firstFrost(outlook: Outlook, year: number, from: EpochDay): EpochDay {
  for (let day = from; day < from + 150; day++) if (tempsOn(outlook, year, day).tMinC < 0) return day;
  return from + 150;
}

/** Share of the rooting band that lies by a day, straight between its three points. */
function rootedShare({ p10, p50, p90 }: Band, day: EpochDay): number {
  const between = (low: number, high: number, a: number, b: number) =>
    a + ((day - low) / Math.max(1, high - low)) * (b - a);
  if (day < p10) return Math.max(0, between(p10 - (p50 - p10), p10, 0, 0.1));
  if (day < p50) return Number.isFinite(p50) ? between(p10, p50, 0.1, 0.5) : 0.1;
  if (day < p90) return Number.isFinite(p90) ? between(p50, p90, 0.5, 0.9) : 0.5;
  return Math.min(1, between(p90, p90 + (p90 - p50), 0.9, 1));
}

function band(values: readonly number[]): Band {
  const sorted = [...values].sort((a, b) => a - b);
  return {
    p10: quantileSorted(sorted, 0.1),
    p50: quantileSorted(sorted, 0.5),
    p90: quantileSorted(sorted, 0.9),
  };
}

function workingOf(value: LayerOutlook, rootDd: Spread, branchMm: number, years: number): Step[] {
  return [
    {
      what: say`Good season to begin`,
      how: say`From four weeks before budburst, just before the sap moves, to ten weeks after it.`,
      result: value.good.from,
      unit: 'date',
      source: 'Budburst: Cannell & Smith 1983',
    },
    {
      what: say`Roots likely`,
      how: say`Warmth above 5 °C since it was made reaches the species’ value; ${years} weather years and the spread between branches.`,
      result: value.rooted.p50,
      unit: 'date',
      inputs: [{ name: say`warmth to root`, value: rootDd.median, unit: '°C·d', origin: 'starting' }],
    },
    {
      what: say`Sever by: six weeks before the middle first frost`,
      expression: sum`${value.firstFrost.p50} − ${ESTABLISH_DAYS}`,
      result: value.firstFrost.p50 - ESTABLISH_DAYS,
      unit: 'date',
    },
    {
      what: say`First pot, a quarter litre a millimetre of branch`,
      expression: sum`max(1, ${Math.round(branchMm * 0.25)})`,
      result: value.potL,
      unit: 'L',
    },
  ];
}
