import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dayOf } from '../calendar/day';
import { collarExcess, guardHeat, heatRisk } from './collarHeat';
import { drawWalk, everyTree, placeInRows, walkSize } from './drawWalk';
import { cornersAt, kmBetween, outlineMiddle, outlineM2, outlineMetres, readOutline } from './outline';
import { livingOf, noneFound } from './trees';

describe('trees to look at', () => {
  const ask = { trees: 400, margin: 0.05, level: 0.9, expected: 0.8 };
  it('are what sampling theory says, and never more than there are', () => {
    expect(walkSize(ask).value).toBe(122);
    expect(walkSize({ ...ask, trees: 30 }).value).toBeLessThanOrEqual(30);
    expect(walkSize({ ...ask, trees: 1 }).value).toBe(1);
    expect(walkSize({ ...ask, expected: 1 }).value).toBeGreaterThan(20);
  });
  it('are refused for an empty planting or a margin that makes no sense', () => {
    expect(() => walkSize({ ...ask, trees: 0 })).toThrow(/No tree/);
    expect(() => walkSize({ ...ask, margin: 0 })).toThrow(/margin/);
    expect(() => drawWalk([], 10, 1)).toThrow(/No tree/);
  });
  it('are drawn of every part, each once, in planting order; the same seed draws the same', () => {
    const part = fc.integer({ min: 1, max: 300 });
    fc.assert(
      fc.property(
        fc.array(part, { minLength: 1, maxLength: 6 }),
        fc.nat(400),
        fc.nat(),
        (counts, size, seed) => {
          const parts = counts.map((count, i) => ({ id: `p${i}`, count }));
          const drawn = drawWalk(parts, size, seed);
          expect(drawn).toEqual(drawWalk(parts, size, seed));
          expect(drawn.map(({ partId }) => partId)).toEqual(parts.map(({ id }) => id));
          for (const [i, { numbers }] of drawn.entries()) {
            expect([...new Set(numbers)].sort((a, b) => a - b)).toEqual(numbers);
            expect(numbers[0]).toBeGreaterThanOrEqual(1);
            expect(numbers.at(-1)).toBeLessThanOrEqual(parts[i].count);
          }
        },
      ),
    );
  });
  it('all of them are all of them', () => {
    expect(
      everyTree([
        { id: 'a', count: 3 },
        { id: 'b', count: 0 },
      ]),
    ).toEqual([{ partId: 'a', numbers: [1, 2, 3] }]);
  });
  it('have a place in their row', () => {
    expect(placeInRows(21, { perRow: 20 })).toEqual({ row: 2, at: 1 });
    expect(placeInRows(20, { perRow: 20 })).toEqual({ row: 1, at: 20 });
    expect(placeInRows(7, { perRow: null })).toBeNull();
  });
});

describe('heat in a guard', () => {
  it('is its full excess at full sun and calm, less in wind, none in the dark', () => {
    expect(collarExcess({ sun: 800, windMs: 0, excessC: 12 }).value).toBe(12);
    expect(collarExcess({ sun: 800, windMs: 2, excessC: 12 }).value).toBeCloseTo(7.5, 6);
    expect(collarExcess({ sun: 0, windMs: 0, excessC: 12 }).value).toBe(0);
    expect(() => collarExcess({ sun: -1, windMs: 0, excessC: 12 })).toThrow(/0 or more/);
  });
  const hot = { day: dayOf('2026-07-18'), tMinC: 19, tMaxC: 38 };
  it('scorches in closed tubes on a day of 38 °C, and not in mesh', () => {
    const closed = guardHeat(hot, 54.6, 'closed tube');
    expect(heatRisk(closed)).toBe('scorch');
    expect(closed.hours[0]).toBeGreaterThanOrEqual(closed.hours[1]);
    expect(closed.hours[1]).toBeGreaterThanOrEqual(closed.hours[2]);
    expect(heatRisk(guardHeat(hot, 54.6, 'mesh'))).toBeNull();
    expect(guardHeat(hot, 54.6, 'none').highestC).toBeLessThanOrEqual(38);
  });
  it('is the same half a year later on the other half of the earth, and nothing in a polar night', () => {
    const south = guardHeat({ ...hot, day: dayOf('2027-01-18') }, -54.6, 'closed tube');
    expect(Math.abs(south.highestC - guardHeat(hot, 54.6, 'closed tube').highestC)).toBeLessThan(1.5);
    expect(guardHeat({ day: dayOf('2026-12-21'), tMinC: -20, tMaxC: -10 }, 70, 'closed tube').sun).toBe(0);
  });
  it('falls with measured wind', () => {
    expect(guardHeat({ ...hot, windMs: 5 }, 54.6, 'closed tube').highestC).toBeLessThan(
      guardHeat(hot, 54.6, 'closed tube').highestC,
    );
    expect(guardHeat(hot, 54.6, 'closed tube').windMeasured).toBe(false);
  });
});

describe('an outline', () => {
  const near = { latitudeDeg: 54.6, longitudeDeg: -2.4 };
  const square = [
    [-2.4, 54.6],
    [-2.399, 54.6],
    [-2.399, 54.601],
    [-2.4, 54.601],
    [-2.4, 54.6],
  ];
  const polygon = { type: 'Polygon', coordinates: [square] };
  it('is read from a polygon, a feature or a collection', () => {
    for (const json of [
      polygon,
      { type: 'Feature', properties: {}, geometry: polygon },
      { type: 'FeatureCollection', features: [{ type: 'Feature', geometry: polygon }] },
      { type: 'MultiPolygon', coordinates: [[square]] },
    ]) {
      const corners = readOutline(JSON.stringify(json), near);
      expect(corners).toHaveLength(4);
      // 0.001° is 111.2 m north, and 64.4 m east at 54.6°.
      expect(outlineM2(corners) / 7162).toBeCloseTo(1, 2);
    }
  });
  it('is refused with a sentence where it is none, elsewhere or not in degrees', () => {
    const read = (json: unknown) => () => readOutline(JSON.stringify(json), near);
    expect(() => readOutline('{', near)).toThrow(/not GeoJSON/);
    expect(read({ type: 'Point', coordinates: [0, 0] })).toThrow(/no polygon/);
    expect(read({ type: 'MultiPolygon', coordinates: [[square], [square]] })).toThrow(/2 polygons/);
    expect(read({ type: 'Polygon', coordinates: [square.map(([x, y]) => [y, x])] })).toThrow(/longitude/);
    expect(read({ type: 'Polygon', coordinates: [square.map(([x, y]) => [x * 1e5, y * 1e5])] })).toThrow(
      /degrees/,
    );
    expect(read({ type: 'Polygon', coordinates: [[square[0], square[0], square[0], square[0]]] })).toThrow(
      /no ground/,
    );
    expect(
      read({
        type: 'Polygon',
        coordinates: [
          [
            [1, 2],
            ['x', 2],
            [3, 4],
            [1, 2],
          ],
        ],
      }),
    ).toThrow(/numbers/);
  });
  it('that is drawn in metres lies where it was drawn, as large', () => {
    const place = fc.record({
      latitudeDeg: fc.integer({ min: -65, max: 65 }),
      longitudeDeg: fc.integer({ min: -180, max: 180 }),
    });
    const metre = fc.record({
      east: fc.integer({ min: -400, max: 400 }),
      north: fc.integer({ min: -400, max: 400 }),
    });
    fc.assert(
      fc.property(place, fc.array(metre, { minLength: 3, maxLength: 12 }), (at, metres) => {
        const corners = cornersAt(metres, at);
        const back = outlineMetres(corners);
        const mean = (key: 'east' | 'north') => metres.reduce((t, m) => t + m[key], 0) / metres.length;
        back.forEach(({ east, north }, i) => {
          expect(Math.abs(east - (metres[i].east - mean('east')))).toBeLessThan(0.2);
          expect(Math.abs(north - (metres[i].north - mean('north')))).toBeLessThan(0.01);
        });
        expect(kmBetween([at.longitudeDeg, at.latitudeDeg], corners[0])).toBeLessThan(0.6);
        const { latitudeDeg } = outlineMiddle(corners);
        expect(Math.abs(latitudeDeg - at.latitudeDeg)).toBeLessThan(0.004);
      }),
    );
  });
  it('that crosses itself is refused', () => {
    const bow = [square[0], square[2], square[1], square[3], square[0]];
    expect(() => readOutline(JSON.stringify({ type: 'Polygon', coordinates: [bow] }), near)).toThrow(
      /crosses/,
    );
  });
  it('across the date line is as large as elsewhere', () => {
    const at = square.map(([x, y]) => [((x + 2.3995 + 180 + 540) % 360) - 180, y]);
    const corners = readOutline(JSON.stringify({ type: 'Polygon', coordinates: [at] }), {
      latitudeDeg: 54.6,
      longitudeDeg: 179.9,
    });
    expect(outlineM2(corners) / 7162).toBeCloseTo(1, 2);
    expect(kmBetween([179.9, 0], [-179.9, 0])).toBeCloseTo(22.24, 1);
  });
});

it('a leader dead or a dying tree still lives, a missing one does not', () => {
  expect(livingOf({ ...noneFound(), alive: 5, 'leader dead': 2, dying: 1, dead: 3, missing: 4 })).toEqual({
    alive: 8,
    dead: 7,
  });
});
