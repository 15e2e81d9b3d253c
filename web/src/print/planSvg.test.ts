import { cornersOf, type SiteElement } from '@kauri/core';
import type { PlaceBody } from '@kauri/core/contract';
import { describe, expect, it } from 'vitest';
import { planSvg, scaleFor } from './planSvg';

const bed: PlaceBody = {
  kind: 'bed',
  name: 'Bed <1>',
  eastM: 2,
  northM: 3,
  angleDeg: 0,
  mediumId: null,
  design: {
    schema: 1,
    measured: 'outside',
    lengthMm: 3000,
    widthMm: 1200,
    tiers: ['50x200'],
    layers: [],
    fillBelowRimMm: 30,
    ground: 'paving',
    airGapMm: 90,
    lidAboveRimMm: null,
  },
};
const outline: SiteElement = {
  id: 'o',
  kind: 'outline',
  name: 'Yard',
  points: [
    [0, 0],
    [12, 0],
    [12, 9],
    [0, 9],
  ],
};
const A4 = [297, 210] as const;
const plan = planSvg([outline], [bed], A4, (m) => `${m} m`);
/** Corners of each path, mm on the sheet. */
const paths = [...plan.svg.matchAll(/<path d="M([^"hmv]+)Z"/g)].map((m) =>
  m[1].split('L').map((pair) => pair.split(' ').map(Number)),
);

describe('a plan on paper', () => {
  it('is at an ordinary scale that fits the sheet', () => {
    expect(plan.scale).toBe(100);
    expect(scaleFor({ west: 0, east: 40, south: 0, north: 28 }, [420, 297])).toBe(125);
    for (const point of paths.flat()) {
      expect(point[0]).toBeGreaterThan(0);
      expect(point[0]).toBeLessThan(A4[0]);
      expect(point[1]).toBeLessThan(A4[1]);
    }
  });
  it('has every coordinate where the figures say, to a hundredth of a millimetre', () => {
    const [drawnOutline, drawnBed] = paths;
    const at = ([e, n]: readonly [number, number]) => [
      drawnOutline[0][0] + (e * 1000) / plan.scale,
      drawnOutline[0][1] - (n * 1000) / plan.scale,
    ];
    cornersOf(bed).forEach((corner, i) => {
      const [x, y] = at(corner);
      expect(drawnBed[i][0]).toBeCloseTo(x, 2);
      expect(drawnBed[i][1]).toBeCloseTo(y, 2);
    });
    expect(drawnBed[1][0] - drawnBed[0][0]).toBeCloseTo(3000 / plan.scale, 2);
  });
  it('writes names as they are, never as markup, and says its scale', () => {
    expect(plan.svg).toContain('Bed &lt;1&gt;');
    expect(plan.svg).toContain('1 : 100');
    expect(plan.svg).toContain(`width="${A4[0]}mm"`);
  });
});
