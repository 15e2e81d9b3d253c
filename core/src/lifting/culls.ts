/** Why a tree is culled at the bed, as a grower calls it. */
export const cullReasons = ['small', 'thin', 'roots', 'stem', 'broken', 'sick'] as const;
export type CullReason = (typeof cullReasons)[number];

/** So many culled for a reason. */
export interface Culls {
  why: CullReason;
  count: number;
}
