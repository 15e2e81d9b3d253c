import {
  seededRandom,
  seedFrom,
  turnedPaths,
  type DepthBand,
  type LateralRoot,
  type PlugScore,
  type RootPlant,
} from '@kauri/core';

/** How the plants of a demo lot come out of their medium. */
export interface DemoRoots {
  /** Plants pulled, and days after coming up. */
  plants: number;
  after: number;
  /** Share of plants whose walls turned their roots. */
  turned: number;
  tap: 'straight' | 'stopped';
}

const bands: readonly DepthBand[] = ['top', 'top', 'middle', 'middle', 'low'];

/** Roots of a lot’s pulled plants, the same at every start. */
export function demoPlants(
  code: string,
  { plants, turned, tap }: DemoRoots,
  scores: readonly PlugScore[] | null,
  heightCm: number,
  diameterMm: number,
): RootPlant[] {
  const random = seededRandom(seedFrom(`roots ${code}`));
  const round = (x: number, to: number) => Math.round(x / to) * to;
  return Array.from({ length: plants }, (_, i) => {
    const bad = (i + 0.5) / plants < turned;
    const n = 5 + Math.floor(random() * 4);
    const start = random() * 360;
    const laterals = Array.from({ length: n }, (_, at): LateralRoot => {
      const turn = bad && random() < 0.6;
      return {
        azimuthDeg: round((start + (at / n) * 360 + (random() - 0.5) * 40 + 360) % 360, 5) % 360,
        thicknessMm: round(0.6 + random() * 1.8, 0.1),
        band: bands[Math.floor(random() * bands.length)],
        path: turn
          ? turnedPaths[Math.floor(random() * turnedPaths.length)]
          : random() < 0.12
            ? 'steep'
            : 'straight',
      };
    });
    const score = scores ? scores[i % scores.length] : null;
    const dense = score === null ? 2 : Math.min(3, 1 + score / 2);
    return {
      kind: 'drawn',
      laterals,
      tap: bad && random() < 0.4 ? 'bent' : tap,
      plug: {
        score,
        fibre: { top: round(dense, 1), middle: round(dense, 1), low: Math.max(1, round(dense - 0.6, 1)) },
        surface: bad ? 3 : 1,
        tips: bad ? 'some' : 'white',
        nodules: null,
      },
      heightCm: round(heightCm * (0.85 + random() * 0.3), 0.5),
      diameterMm: round(diameterMm * (0.88 + random() * 0.24), 0.1),
      shootDryG: null,
      rootDryG: null,
    };
  });
}
