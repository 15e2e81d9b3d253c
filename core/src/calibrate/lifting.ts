import { dayOf } from '../calendar/day';
import { normalDraw, seededRandom } from '../chance/random';
import { liftingWindow } from '../lifting/liftingWindow';
import type { SpeciesValues } from '../species/species';
import type { Site } from '../weather/ensemble';
import { generateWeather } from '../weather/generator';
import { knownWeather } from '../weather/known';
import { roughNormals } from '../weather/normals';
import type { WeatherSeries } from '../weather/series';

/** How far a species' buds burst from the day the model says, in truth, days. */
const TRUE_LUCK_DAYS = 7;
/** Days of the winter and spring that is foretold. */
const AHEAD_DAYS = 250;

export interface LiftingTally {
  winters: number;
  /** Share of winters whose close lay within the band of eight in ten. */
  held: number;
  widthDays: number;
}

/**
 * How often the close of a lifting window held: nurseries with some years of their own weather, each in a winter to come.
 * @param years of weather recorded
 */
export function liftingTally(
  species: Pick<SpeciesValues, 'liftChillHours' | 'budburst'>,
  site: Site,
  years: number,
  winters: number,
  seed: number,
): LiftingTally {
  const random = seededRandom(seed);
  // The start of the place's own winter.
  const asOf = dayOf(site.latitudeDeg < 0 ? '2026-05-24' : '2026-11-24');
  const past = Math.max(1, Math.round(365.25 * years));
  let held = 0;
  let width = 0;
  for (let i = 0; i < winters; i++) {
    const normals = roughNormals(site.latitudeDeg, site.elevationM);
    const truth = generateWeather(normals, asOf - past + 1, past + AHEAD_DAYS, seed + 31 * i);
    const close = (series: WeatherSeries, day: number) =>
      liftingWindow(species, site.latitudeDeg, knownWeather(series, site, day).warmth, asOf).value.closes;
    const foretold = close(firstDays(truth, past), asOf);
    const came = close(truth, asOf + AHEAD_DAYS - 1).p50 + TRUE_LUCK_DAYS * normalDraw(random);
    if (came >= foretold.p10 && came <= foretold.p90) held++;
    width += foretold.p90 - foretold.p10;
  }
  return { winters, held: held / winters, widthDays: width / winters };
}

const firstDays = ({ start, tMinC, tMaxC, rainMm }: WeatherSeries, days: number): WeatherSeries => ({
  start,
  tMinC: tMinC.slice(0, days),
  tMaxC: tMaxC.slice(0, days),
  rainMm: rainMm.slice(0, days),
});
