/** Which third of the medium a lateral leaves the collar’s root in. */
export const depthBands = ['top', 'middle', 'low'] as const;
export type DepthBand = (typeof depthBands)[number];

/** How a lateral runs. All but straight and steep are turned by a wall. */
export const rootPaths = ['straight', 'steep', 'wall', 'circling', 'kinked', 'ascending', 'j'] as const;
export type RootPath = (typeof rootPaths)[number];
export const turnedPaths: readonly RootPath[] = ['wall', 'circling', 'kinked', 'ascending', 'j'];

export interface LateralRoot {
  /** Clockwise from the mark on the rim, degrees, 0–360. */
  azimuthDeg: number;
  thicknessMm: number;
  band: DepthBand;
  path: RootPath;
}

export const tapForms = ['straight', 'stopped', 'bent', 'none'] as const;
export type TapForm = (typeof tapForms)[number];
export const tipColours = ['white', 'some', 'brown'] as const;
export type TipColour = (typeof tipColours)[number];

/** What is seen of the plug or ball as a whole. Grades 0–3: none, sparse, good, dense. */
export interface PlugSeen {
  /** 0 loose – 4 solid; null where there is no plug. */
  score: 0 | 1 | 2 | 3 | 4 | null;
  fibre: Record<DepthBand, number>;
  /** Long roots lying on the outside: 0 none – 3 matted. */
  surface: number;
  tips: TipColour | null;
  nodules: 'none' | 'few' | 'many' | null;
}

/** How a plant looks at a glance: five taps in the field. */
export interface QuickLook {
  score: PlugSeen['score'];
  round: 'all round' | 'gaps' | 'one-sided';
  runs: 'straight' | 'some turned' | 'mostly turned';
  surface: 'clean' | 'some' | 'matted';
  tips: TipColour;
}

/** Sizes taken with the roots; null where they were not. */
export interface PlantSizes {
  heightCm: number | null;
  diameterMm: number | null;
  shootDryG: number | null;
  rootDryG: number | null;
}

/** One pulled plant: drawn root by root, or seen at a glance. */
export type RootPlant =
  | ({ kind: 'drawn'; laterals: LateralRoot[]; tap: TapForm; plug: PlugSeen } & PlantSizes)
  | ({ kind: 'quick'; look: QuickLook } & PlantSizes);
