import { say } from '../speech/say';
import { autumnStart, growthStop, heatStart } from '../calendar/season';
import type { EpochDay } from '../calendar/day';
import { normalStrata } from '../chance/normal';
import { beyondSample, quantileSorted, type Band } from '../chance/quantile';
import { budburstThermalTime } from '../weather/budburst';
import type { SpeciesValues } from '../species/species';
import { dailyOn, type Warmth } from '../weather/sums';
import { put, sum, type Step, type Worked } from '../working/working';

/** Lifting stops this long before budburst is forecast. */
export const BEFORE_BUDBURST_DAYS = 14;

/** How far buds burst from the day the model says, days: one standard deviation, a starting value. */
export const BUDBURST_SD_DAYS = 7;
const BUDBURST_LUCK = [...normalStrata(9)].map((z) => BUDBURST_SD_DAYS * z);

/** When bare-root trees may be lifted in one winter. Days are Infinity where no year gets there. */
export interface LiftingWindow {
  autumn: EpochDay;
  opens: Band;
  closes: Band;
  /** Lift from here: half the years (or the leaf fall seen) have opened. */
  from: EpochDay;
  /** Best before: in one year of ten buds are already within two weeks. */
  bestBefore: EpochDay;
  /** Half the years have closed. */
  until: EpochDay;
  openedBy: 'leaf fall seen' | 'chilling';
}

/**
 * The lifting window of the winter a date belongs to: opens when leaf fall is seen, or when chilling
 * hours since growth stopped reach the species' value; closes two weeks before forecast budburst. Each
 * year of the outlook gives one opening and one closing.
 * @param notBefore the lot must have grown before this winter; the next one is taken otherwise
 */
export function liftingWindow(
  species: Pick<SpeciesValues, 'liftChillHours' | 'budburst'>,
  latitudeDeg: number,
  warmth: Warmth,
  date: EpochDay,
  { notBefore = -Infinity, leafFall = null as EpochDay | null } = {},
): Worked<LiftingWindow> {
  let autumn = autumnStart(latitudeDeg, date);
  // From early summer on, the winter that matters is the one to come.
  if (date - autumn > 210 || autumn < notBefore) autumn = autumnStart(latitudeDeg, autumn + 380);
  const runs = winterOf(species, latitudeDeg, warmth, autumn);
  const seen = leafFall !== null && leafFall >= autumn - 60 && leafFall < autumn + 150;
  const opens = seen ? { p10: leafFall, p50: leafFall, p90: leafFall } : band(runs.map((run) => run.opens));
  const closes = closingBand(runs.map((run) => run.closes));
  const value: LiftingWindow = {
    autumn,
    opens,
    closes,
    from: Math.round(opens.p50),
    bestBefore: Math.floor(closes.p10),
    until: Math.floor(closes.p50),
    openedBy: seen ? 'leaf fall seen' : 'chilling',
  };
  return { value, working: workingOf(species, value, runs) };
}

interface YearRun {
  opens: EpochDay;
  closes: EpochDay;
  chillDays: number;
  needed: number;
}

/** Winters worked out before, by the weather they lie in: lots of one species share theirs. */
const winters = new WeakMap<Warmth, Map<string, readonly YearRun[]>>();

function winterOf(
  species: Pick<SpeciesValues, 'liftChillHours' | 'budburst'>,
  latitudeDeg: number,
  warmth: Warmth,
  autumn: EpochDay,
): readonly YearRun[] {
  const { a, b, k } = species.budburst;
  const key = [latitudeDeg, autumn, species.liftChillHours, a, b, k].join(' ');
  let known = winters.get(warmth);
  if (!known) winters.set(warmth, (known = new Map()));
  let runs = known.get(key);
  if (!runs) {
    runs = warmth.years.map((_, year) => oneYear(species, latitudeDeg, warmth, year, autumn));
    known.set(key, runs);
  }
  return runs;
}

function oneYear(
  species: Pick<SpeciesValues, 'liftChillHours' | 'budburst'>,
  latitudeDeg: number,
  warmth: Warmth,
  year: number,
  autumn: EpochDay,
): YearRun {
  const end = Math.min(autumn + 300, warmth.asOf + warmth.years[year].length);
  const heatFrom = heatStart(latitudeDeg, autumn);
  let hours = 0;
  let chillDays = 0;
  let heat = 0;
  let opens = Infinity;
  let closes = Infinity;
  let needed = Infinity;
  for (let day = growthStop(latitudeDeg, autumn); day <= end; day++) {
    if (opens === Infinity) {
      hours += dailyOn(warmth.chillHours, warmth, year, day);
      if (hours >= species.liftChillHours) opens = day;
    }
    if (day >= autumn && dailyOn(warmth.meanC, warmth, year, day) <= 5) chillDays++;
    if (day < heatFrom) continue;
    heat += dailyOn(warmth, warmth, year, day);
    needed = budburstThermalTime(species.budburst, chillDays);
    if (heat >= needed) {
      closes = day - BEFORE_BUDBURST_DAYS;
      break;
    }
  }
  return { opens, closes, chillDays, needed };
}

/** Closings of the weather years, with the luck of budburst about each; a few years hold fewer extremes than will come. */
function closingBand(days: readonly EpochDay[]): Band {
  const { p50: middle } = band([...days]);
  if (!Number.isFinite(middle)) return band([...days]);
  const wider = beyondSample(days.length);
  return band(days.flatMap((day) => BUDBURST_LUCK.map((luck) => middle + wider * (day - middle) + luck)));
}

function band(values: number[]): Band {
  const sorted = Float64Array.from(values).sort();
  return {
    p10: quantileSorted(sorted, 0.1),
    p50: quantileSorted(sorted, 0.5),
    p90: quantileSorted(sorted, 0.9),
  };
}

function workingOf(
  species: Pick<SpeciesValues, 'liftChillHours' | 'budburst'>,
  w: LiftingWindow,
  runs: readonly YearRun[],
): Step[] {
  const middle = [...runs].sort((x, y) => x.closes - y.closes)[Math.floor((runs.length - 1) / 2)];
  const { a, b, k } = species.budburst;
  const steps: Step[] = [
    w.openedBy === 'chilling'
      ? {
          what: say`Opens`,
          how: say`Day on which hours between 0 and 7.2 °C since growth stopped reach ${put(species.liftChillHours)}; middle of ${runs.length} weather years.`,
          result: w.from,
          unit: 'date',
          inputs: [
            { name: say`chilling to lift`, value: species.liftChillHours, unit: 'h', origin: 'starting' },
          ],
        }
      : { what: say`Opens`, how: say`Leaf fall was seen.`, result: w.from, unit: 'date' },
    {
      what: say`Warmth that buds need after the middle year’s chilling`,
      expression: sum`${a} + ${b} × exp(${-k} × ${middle.chillDays})`,
      result: budburstThermalTime(species.budburst, middle.chillDays),
      unit: '°C·d',
      inputs: [
        { name: say`days with mean ≤ 5 °C`, value: middle.chillDays, unit: 'd', origin: 'record' },
        { name: 'a, b, k', value: `${a}, ${b}, ${k}`, origin: 'starting' },
      ],
      source: 'Cannell & Smith 1983',
    },
    {
      what: say`Closes: two weeks before that budburst`,
      how: say`One date a weather year (${runs.length}), and buds may burst a week before or after what is worked out, two times in three (rule of thumb); best before is where one chance in ten has closed.`,
      result: w.bestBefore,
      unit: 'date',
    },
  ];
  return steps.map((step) => ({ ...step, part: 'lifting' as const }));
}
