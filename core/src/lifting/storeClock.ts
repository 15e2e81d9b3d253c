import { say } from '../speech/say';
import { autumnStart, heatStart } from '../calendar/season';
import type { EpochDay } from '../calendar/day';
import { normalStrata } from '../chance/normal';
import { quantileSorted } from '../chance/quantile';
import type { SpeciesValues } from '../species/species';
import { budburstThermalTime } from '../weather/budburst';
import { dailyOn, type Warmth } from '../weather/sums';
import { put, type Step, type Worked } from '../working/working';
import { BEFORE_BUDBURST_DAYS, BUDBURST_SD_DAYS, liftingWindow } from './liftingWindow';

/** What a cold store is taken to hold where nobody measured, °C. */
export const USUAL_STORE_C = 2;
/** Warmth in a store counts towards buds above this, °C. */
const STORE_BASE_C = 2;
/** Cold counts whole up to a mean of 5 °C, and in a store less and less up to 10 °C, where it counts for nothing (a rule of thumb). */
const CHILL_AT_MOST_C = 5;
const NO_CHILL_FROM_C = 10;
/** Share of a day in a store that counts as cold. */
const chillOf = (storeC: number) =>
  Math.max(0, Math.min(1, (NO_CHILL_FROM_C - storeC) / (NO_CHILL_FROM_C - CHILL_AT_MOST_C)));
/** Bare roots keep so long in a cold store at most, days: moulds and used-up reserves come then, buds or not. A rule of thumb. */
export const STORE_DAYS = 150;
/** Plugs and pots out of their places, and trees of a climate in which nothing rests, keep packed for so long, days; a rule of thumb. */
export const PACKED_DAYS = 14;

const LUCK = [...normalStrata(9)].map((z) => BUDBURST_SD_DAYS * z);

/** A cold store: what it holds, °C, and whether somebody measured that. */
export interface ColdStore {
  coldC: number;
  isMeasured: boolean;
}

/** Where lifted trees lie, and since when. */
export interface LiesIn {
  isBareRoot: boolean;
  since: EpochDay;
  /** Null out of doors. */
  store: ColdStore | null;
}

/** Until when lifted trees keep, nine years in ten, and what ends it. */
export interface Keeps {
  until: EpochDay;
  by: 'buds' | 'store' | 'packed';
}

/**
 * Until when lifted trees keep: bare-root ones until buds are within two weeks of bursting in one year of ten. Out of doors they
 * wake as standing trees do. In a cold store cold goes on counting, so that buds need less warmth, and warmth above 2 °C counts
 * against them; and never longer than 150 days. Plugs, pots and trees that never rest keep packed for two weeks.
 */
export function keepsUntil(
  species: Pick<SpeciesValues, 'liftChillHours' | 'budburst'>,
  latitudeDeg: number,
  warmth: Warmth,
  { isBareRoot, since, store }: LiesIn,
): Worked<Keeps> {
  const packed: Keeps = { until: since + PACKED_DAYS, by: 'packed' };
  if (!isBareRoot) return { value: packed, working: [packedStep(packed)] };
  const outside = liftingWindow(species, latitudeDeg, warmth, since);
  if (store === null) {
    const { bestBefore, opens } = outside.value;
    const rests = Number.isFinite(opens.p50) && Number.isFinite(bestBefore);
    if (!rests || bestBefore <= packed.until) return { value: packed, working: [packedStep(packed)] };
    return { value: { until: bestBefore, by: 'buds' }, working: outside.working };
  }
  const buds = budsInStore(species, latitudeDeg, warmth, since, store.coldC);
  const latest = since + STORE_DAYS;
  const value: Keeps =
    buds < latest
      ? { until: Math.max(packed.until, Math.floor(buds)), by: 'buds' }
      : { until: latest, by: 'store' };
  return { value, working: storeSteps(value, buds, warmth.years.length, store) };
}

/** Day on which buds are within two weeks in one year of ten, in a store from a day on; Infinity where they never are. */
function budsInStore(
  species: Pick<SpeciesValues, 'budburst'>,
  latitudeDeg: number,
  warmth: Warmth,
  since: EpochDay,
  coldC: number,
): number {
  const autumn = autumnStart(latitudeDeg, since);
  const heatFrom = heatStart(latitudeDeg, autumn);
  const days = warmth.years.map((_, year) => {
    let chill = 0;
    let heat = 0;
    for (let day = autumn; day < since; day++) {
      if (dailyOn(warmth.meanC, warmth, year, day) <= CHILL_AT_MOST_C) chill++;
      if (day >= heatFrom) heat += dailyOn(warmth, warmth, year, day);
    }
    const aDay = Math.max(0, coldC - STORE_BASE_C);
    for (let day = since; day < since + 2 * STORE_DAYS; day++) {
      if (heat >= budburstThermalTime(species.budburst, chill)) return day - BEFORE_BUDBURST_DAYS;
      chill += chillOf(coldC);
      heat += aDay;
    }
    return Infinity;
  });
  const all = days.flatMap((day) => LUCK.map((luck) => day + luck));
  return quantileSorted(Float64Array.from(all).sort(), 0.1);
}

const packedStep = ({ until }: Keeps): Step => ({
  what: say`Keeps packed`,
  how: say`${PACKED_DAYS} days from the day it was taken out; a rule of thumb.`,
  result: until,
  unit: 'date',
});

function storeSteps({ until }: Keeps, buds: number, years: number, { coldC, isMeasured }: ColdStore): Step[] {
  return [
    {
      what: say`Buds in the store`,
      how: Number.isFinite(buds)
        ? say`Cold out of doors and in the store lowers the warmth that buds need; each day in it gives ${put(Math.max(0, coldC - STORE_BASE_C))} °C·d. Two weeks before they burst, in one year of ten of ${years}, a week either way (rule of thumb).`
        : say`At ${put(coldC)} °C no warmth counts towards buds.`,
      result: Number.isFinite(buds) ? Math.floor(buds) : 'never',
      ...(Number.isFinite(buds) && { unit: 'date' }),
      inputs: [{ name: 'store', value: coldC, unit: '°C', origin: isMeasured ? 'record' : 'starting' }],
      source: 'Cannell & Smith 1983',
    },
    {
      what: say`Keeps until`,
      how: say`The earlier of that and ${STORE_DAYS} days in the store, after which moulds and used-up reserves come (rule of thumb).`,
      result: until,
      unit: 'date',
    },
  ];
}
