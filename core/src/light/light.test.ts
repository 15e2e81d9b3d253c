import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dayOf, dayOfYear } from '../calendar/day';
import type { SiteElement } from '../site/elements';
import type { Point } from '../site/shapes';
import { directSunHours, distanceToFace, openSky, sunPath, type Face } from './sunHours';
import {
  brightestSpots,
  coverPasses,
  facesOf,
  growingMonths,
  inLeaf,
  lightLosses,
  shadows,
  yardLight,
} from './yardLight';

const RAD = Math.PI / 180;

/**
 * Day length by another road: declination from the Astronomical Almanac's low-precision formula and the
 * hour angle at which the sun's centre, lifted 34′ by refraction, is level.
 */
function almanacDayLength(latitudeDeg: number, iso: string): number {
  const n = (Date.parse(`${iso}T12:00:00Z`) - Date.parse('2000-01-01T12:00:00Z')) / 86_400_000;
  const g = (357.528 + 0.9856003 * n) * RAD;
  const lambda = (280.46 + 0.9856474 * n + 1.915 * Math.sin(g) + 0.02 * Math.sin(2 * g)) * RAD;
  const declination = Math.asin(Math.sin(23.439 * RAD) * Math.sin(lambda));
  const phi = latitudeDeg * RAD;
  const cosH =
    (Math.sin((-34 / 60) * RAD) - Math.sin(phi) * Math.sin(declination)) /
    (Math.cos(phi) * Math.cos(declination));
  return (2 * Math.acos(Math.max(-1, Math.min(1, cosH)))) / RAD / 15;
}

describe('sun hours on a flat site', () => {
  for (const latitude of [0, 23.4, -41.2, 54.6, 62])
    it.each(['2026-03-20', '2026-06-21', '2026-09-01', '2026-12-21'])(
      `at ${latitude}° on %s agree with the almanac to 2 minutes`,
      (iso) => {
        const { value } = directSunHours([0, 0], [], latitude, -2.4, dayOf(iso), 0);
        expect(Math.abs(value.hours - almanacDayLength(latitude, iso)) * 60).toBeLessThan(2);
        expect(value.share).toBe(1);
      },
    );
  it('do not depend on where the day is cut', () => {
    const day = dayOf('2026-08-15');
    const hours = [-170, -71.4, 0, 90, 179].map(
      (lon) => directSunHours([0, 0], [], -41.2, lon, day, 0).value.hours,
    );
    for (const h of hours) expect(Math.abs(h - hours[0]) * 60).toBeLessThan(3);
  });
  it('never end in polar day and never begin in polar night', () => {
    expect(directSunHours([0, 0], [], 75, 0, dayOf('2026-06-21'), 0).value.hours).toBeCloseTo(24, 6);
    expect(directSunHours([0, 0], [], 75, 0, dayOf('2026-12-21'), 0).value).toMatchObject({
      hours: 0,
      share: 0,
    });
  });
});

const wall = (heightM: number, passes = 0): Face => ({ from: [-50, -10], to: [50, -10], heightM, passes });

describe('shade', () => {
  it('is of the sun below the top of what stands in its way', () => {
    const day = dayOf('2026-09-15');
    // A long wall 10 m to the south: the sun is seen while tan(altitude) ≥ height/10 at its bearing.
    const path = sunPath(54.6, -2.4, day);
    const byHand = path
      .filter(
        (s) => s.north >= 0 || s.tanAltitude >= (4 / 10) * -s.north || Math.abs((s.east / s.north) * 10) > 50,
      )
      .reduce((t, s) => t + s.hours, 0);
    expect(directSunHours([0, 0], [wall(4)], 54.6, -2.4, day, 0).value.hours).toBeCloseTo(byHand, 6);
  });
  it('grows with height, shrinks with the canopy, and trees let through their share', () => {
    const day = dayOf('2026-10-01');
    const hours = (faces: Face[], canopy = 0) => directSunHours([0, 0], faces, 54.6, -2.4, day, canopy).value;
    expect(hours([wall(8)]).hours).toBeLessThan(hours([wall(4)]).hours);
    expect(hours([wall(4)], 1).hours).toBeGreaterThan(hours([wall(4)]).hours);
    const [open, shut, half] = [hours([]).hours, hours([wall(6)]).hours, hours([wall(6, 0.5)]).hours];
    expect(half).toBeCloseTo((open + shut) / 2, 6);
    expect(hours([wall(0.5)], 1).share).toBe(1);
  });
  it('reaches a face only where the ray crosses it', () => {
    expect(distanceToFace([0, 0], 0, -1, wall(1))).toBeCloseTo(10, 9);
    expect(distanceToFace([0, 0], 0, 1, wall(1))).toBe(Infinity);
    expect(distanceToFace([0, 0], 1, 0, wall(1))).toBe(Infinity);
    expect(distanceToFace([80, 0], 0, -1, wall(1))).toBe(Infinity);
  });
  it('falls away from the sun, as long as height over its tangent', () => {
    const [quad] = shadows([wall(4)], { east: 0, north: -1, tanAltitude: 0.5 });
    expect(quad).toEqual([
      [-50, -10],
      [50, -10],
      [50, -2],
      [-50, -2],
    ]);
  });
});

describe('the open sky', () => {
  it('is all of it on a bare site, half beside an endless wall, never outside 0 to 1', () => {
    expect(openSky([0, 0], [], 0)).toBeCloseTo(1, 9);
    const endless: Face = { from: [-1e6, -0.001], to: [1e6, -0.001], heightM: 1000, passes: 0 };
    expect(openSky([0, 0], [endless], 0)).toBeCloseTo(0.5, 2);
    fc.assert(
      fc.property(
        fc.double({ min: -40, max: 40, noNaN: true }),
        fc.double({ min: 0, max: 60, noNaN: true }),
        (e, h) => {
          const sky = openSky([e, 0], [wall(h)], 0.3);
          expect(sky).toBeGreaterThanOrEqual(0);
          expect(sky).toBeLessThanOrEqual(1 + 1e-9);
        },
      ),
    );
  });
});

const square = (e: number, n: number, size: number): Point[] => [
  [e, n],
  [e + size, n],
  [e + size, n + size],
  [e, n + size],
];
const elements: SiteElement[] = [
  { id: 'o', kind: 'outline', name: 'Yard', points: square(0, 0, 30) },
  { id: 'b', kind: 'building', name: 'Barn', heightM: 8, points: square(-10, 8, 9.5) },
  {
    id: 't',
    kind: 'trees',
    name: 'Row',
    heightM: 12,
    passesInLeaf: 0.1,
    passesBare: 0.7,
    points: [
      [0, -4],
      [12, -4],
    ],
  },
  {
    id: 's',
    kind: 'shade',
    name: 'Shade',
    heightM: 2,
    passesInLeaf: 0.5,
    passesBare: 0.5,
    points: square(20, 20, 5),
  },
];
const site = { latitudeDeg: 54.6, longitudeDeg: -2.4 };

describe('the yard’s light', () => {
  it('is darkest beside the barn, halved under shade, and named by what takes it', () => {
    const spots = [
      { id: 'barn', point: [1, 12] as const, canopyHeightM: 0.4 },
      { id: 'far', point: [28, 12] as const, canopyHeightM: 0.4 },
      { id: 'shade', point: [22, 22] as const, canopyHeightM: 0.4 },
    ];
    const light = yardLight(spots, elements, site, 2026);
    expect(light[0].hours[8]).toBeLessThan(light[1].hours[8]);
    expect(light[2].hours[6]).toBeLessThan(0.55 * light[2].openHours[6]);
    expect(light[0].sky).toBeLessThan(light[1].sky);
    for (const l of light) l.hours.forEach((h, i) => expect(h).toBeLessThanOrEqual(l.openHours[i] + 1e-9));
    const losses = lightLosses(spots[0], elements, site, 2026);
    expect(losses[0].name).toBe('Barn');
    expect(losses[0].lost[8]).toBeGreaterThan(0.5);
  });
  it('trees pass more out of leaf, by hemisphere', () => {
    expect(inLeaf(dayOf('2026-07-01'), 54)).toBe(true);
    expect(inLeaf(dayOf('2026-07-01'), -41)).toBe(false);
    expect(inLeaf(dayOf('2026-12-25'), -41)).toBe(true);
    expect(facesOf(elements, false).find((f) => f.heightM === 12)!.passes).toBe(0.7);
    expect(growingMonths(-41)).toContain(0);
    expect(coverPasses([22, 22], elements)).toBe(0.5);
  });
  it('is best on free ground away from what shades', () => {
    const spots = brightestSpots(square(0, 0, 30), ([e]) => e < 20, elements, site, 2026, 0.4, 5);
    expect(spots.length).toBeGreaterThan(10);
    expect(spots.every((s) => s.middle[0] < 20)).toBe(true);
    expect(spots[0].hours).toBeGreaterThanOrEqual(spots[spots.length - 1].hours);
  });
  it('takes days of the year from the calendar', () => expect(dayOfYear(dayOf('2026-03-01'))).toBe(60));
});
