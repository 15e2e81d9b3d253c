import { describe, expect, it } from 'vitest';
import { dayOf, isoOf } from '../calendar/day';
import { startingSpecies } from '../species/startingSpecies';
import { weatherOutlook } from '../weather/ensemble';
import { generateWeather } from '../weather/generator';
import { roughNormals } from '../weather/normals';
import { warmthOf } from '../weather/sums';
import { liftingWindow } from './liftingWindow';
import { keepsUntil, PACKED_DAYS, STORE_DAYS, USUAL_STORE_C } from './storeClock';

const hawthorn = startingSpecies.find((s) => s.code === 'CRA')!.values;
const asOf = dayOf('2026-11-24');
function winter(latitudeDeg: number, elevationM: number) {
  const series = generateWeather(roughNormals(latitudeDeg, elevationM), asOf - 3652, 3653, 21);
  return warmthOf(weatherOutlook(series, { latitudeDeg, elevationM }, asOf, { horizonDays: 460 }));
}
const north = winter(54.6, 185);
const since = asOf - 5;
const bare = { isBareRoot: true, since, store: null };
const stored = (coldC: number, isMeasured = true) => ({ ...bare, store: { coldC, isMeasured } });

describe('lifted trees keep', () => {
  it('out of doors as standing ones do, until buds are near in one year of ten', () => {
    const { bestBefore } = liftingWindow(hawthorn, 54.6, north, since).value;
    expect(keepsUntil(hawthorn, 54.6, north, bare).value).toEqual({ until: bestBefore, by: 'buds' });
  });
  it('longer in a cold store, and no longer than it keeps them from moulds', () => {
    const outside = keepsUntil(hawthorn, 54.6, north, bare).value;
    const cold = keepsUntil(hawthorn, 54.6, north, stored(USUAL_STORE_C)).value;
    expect(cold).toEqual({ until: since + STORE_DAYS, by: 'store' });
    expect(cold.until).toBeGreaterThan(outside.until);
  });
  it('the less long the warmer the store is', () => {
    const until = [2, 4, 5, 8, 12].map((c) => keepsUntil(hawthorn, 54.6, north, stored(c)).value.until);
    expect([...until].sort((a, b) => b - a)).toEqual(until);
    expect(until[4]).toBeLessThan(until[0]);
    expect(keepsUntil(hawthorn, 54.6, north, stored(12)).value.by).toBe('buds');
  });
  it('packed for two weeks where they are no bare roots, and never for less', () => {
    const plugs = keepsUntil(hawthorn, 54.6, north, { ...bare, isBareRoot: false }).value;
    expect(plugs).toEqual({ until: since + PACKED_DAYS, by: 'packed' });
    const late = keepsUntil(hawthorn, 54.6, north, { ...bare, since: dayOf('2027-03-25') }).value;
    expect(late.until).toBe(dayOf('2027-03-25') + PACKED_DAYS);
    expect(
      keepsUntil(hawthorn, 54.6, north, { ...stored(25), since: asOf }).value.until,
    ).toBeGreaterThanOrEqual(asOf + PACKED_DAYS);
  });
  it('as packed where no winter lets anything rest', () => {
    const tropics = winter(2, 900);
    expect(keepsUntil(hawthorn, 2, tropics, bare).value).toEqual({
      until: since + PACKED_DAYS,
      by: 'packed',
    });
  });
  it('in the far south from its own winter', () => {
    const south = winter(-53, 20);
    const { until, by } = keepsUntil(hawthorn, -53, south, { ...bare, since: dayOf('2027-06-20') }).value;
    expect(by).toBe('buds');
    expect(isoOf(until) > '2027-07-15' && isoOf(until) < '2027-11-15').toBe(true);
  });
  it('and says whether the store was measured', () => {
    const origin = (isMeasured: boolean) =>
      keepsUntil(hawthorn, 54.6, north, stored(2, isMeasured)).working.flatMap(({ inputs = [] }) => inputs)[0]
        .origin;
    expect([origin(true), origin(false)]).toEqual(['record', 'starting']);
  });
});
