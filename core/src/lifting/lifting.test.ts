import { budburstThermalTime } from '../weather/budburst';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dayOf, isoOf, partsOf } from '../calendar/day';
import { startingSpecies } from '../species/startingSpecies';
import { weatherOutlook } from '../weather/ensemble';
import { generateWeather } from '../weather/generator';
import { roughNormals } from '../weather/normals';
import { warmthOf } from '../weather/sums';
import { recompute } from '../working/working';
import { BEFORE_BUDBURST_DAYS, liftingWindow } from './liftingWindow';

const oak = startingSpecies.find((s) => s.code === 'QPE')!.values;
const hawthorn = startingSpecies.find((s) => s.code === 'CRA')!.values;

function winter(latitudeDeg: number, elevationM: number, asOfIso: string) {
  const asOf = dayOf(asOfIso);
  const series = generateWeather(roughNormals(latitudeDeg, elevationM), asOf - 3652, 3653, 21);
  return warmthOf(weatherOutlook(series, { latitudeDeg, elevationM }, asOf, { horizonDays: 460 }));
}

describe('budburst', () => {
  it('needs less warmth the more it was chilled', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 180 }), fc.integer({ min: 0, max: 60 }), (days, more) => {
        expect(budburstThermalTime(oak.budburst, days + more)).toBeLessThanOrEqual(
          budburstThermalTime(oak.budburst, days),
        );
      }),
    );
    expect(budburstThermalTime({ a: 60, b: 350, k: 0.025 }, 0)).toBe(410);
  });
});

describe('the lifting window', () => {
  const north = winter(54.6, 185, '2026-11-24');
  const window = liftingWindow(oak, 54.6, north, dayOf('2026-11-24'));
  it('opens in the cold of autumn and closes before the buds of spring', () => {
    const w = window.value;
    expect(isoOf(w.autumn)).toBe('2026-11-01');
    expect(partsOf(w.from).month).toBeGreaterThanOrEqual(10);
    expect(w.from).toBeLessThan(w.bestBefore);
    expect(w.bestBefore).toBeLessThanOrEqual(w.until);
    expect(partsOf(w.until).year).toBe(2027);
    expect(w.openedBy).toBe('chilling');
    expect(BEFORE_BUDBURST_DAYS).toBe(14);
  });
  it('closes sooner where buds move early', () => {
    expect(liftingWindow(hawthorn, 54.6, north, dayOf('2026-11-24')).value.until).toBeLessThan(
      window.value.until,
    );
  });
  it('opens when leaf fall is seen', () => {
    const seen = liftingWindow(oak, 54.6, north, dayOf('2026-11-24'), {
      leafFall: dayOf('2026-11-12'),
    }).value;
    expect(isoOf(seen.from)).toBe('2026-11-12');
    expect(seen.openedBy).toBe('leaf fall seen');
    const old = liftingWindow(oak, 54.6, north, dayOf('2026-11-24'), { leafFall: dayOf('2025-11-12') }).value;
    expect(old.openedBy).toBe('chilling');
  });
  it('belongs to the other half of the year in the south', () => {
    const south = winter(-41.2, 780, '2026-05-20');
    const w = liftingWindow(oak, -41.2, south, dayOf('2026-05-20')).value;
    expect(isoOf(w.autumn)).toBe('2026-05-01');
    expect(partsOf(w.until).month).toBeGreaterThanOrEqual(7);
    expect(partsOf(w.until).year).toBe(2026);
  });
  it('is of the next winter from summer on, or for a lot that has not yet grown', () => {
    const summer = winter(54.6, 185, '2026-07-10');
    expect(isoOf(liftingWindow(oak, 54.6, summer, dayOf('2026-07-10')).value.autumn)).toBe('2026-11-01');
    const spring = winter(54.6, 185, '2026-03-10');
    const later = liftingWindow(oak, 54.6, spring, dayOf('2026-03-10'), {
      notBefore: dayOf('2026-04-20'),
    }).value;
    expect(isoOf(later.autumn)).toBe('2026-11-01');
  });
  it('shows a sum that can be done again', () => {
    for (const step of window.working)
      if (step.expression) expect(recompute(step.expression)).toBeCloseTo(step.result as number, 3);
  });
});
