import type { Place } from '../contract';

const spot = { eastM: 0, northM: 0, angleDeg: 0, mediumId: null };

/** A bench of 9 m by 1.5 m, for tests. */
export const testBench = {
  id: 'p',
  version: 1,
  place: { ...spot, kind: 'bench', name: 'Bench', design: { schema: 1, lengthMm: 9000, widthMm: 1500 } },
} as unknown as Place;

/** A bed of 2.4 m by 1.2 m inside, for tests. */
export const testBed = {
  id: 'b',
  version: 1,
  place: {
    ...spot,
    kind: 'bed',
    name: 'Bed',
    design: {
      schema: 1,
      measured: 'inside',
      lengthMm: 2400,
      widthMm: 1200,
      tiers: ['2x8', '2x8'],
      layers: [{ kind: 'mesh', openingMm: [12.7, 12.7], wireMm: 1.05 }],
      fillBelowRimMm: 20,
      ground: 'paving',
      airGapMm: 60,
      lidAboveRimMm: null,
    },
  },
} as unknown as Place;
