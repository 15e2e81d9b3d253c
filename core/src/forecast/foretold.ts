/** Figures of a lot that are foretold, and may be held against what is measured later. */
export const foretold = ['height', 'diameter', 'fill'] as const;
export type Foretold = (typeof foretold)[number];
