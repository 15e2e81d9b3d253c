import type { LateralRoot } from '@kauri/core';

/** A rosette is drawn in a square of 200: the collar in the middle, the rim of the medium round it. */
export const SIDE = 200;
export const RIM = 80;
const COLLAR = 9;
const C = SIDE / 2;

/** A point at a direction (clockwise from the mark at the top) and a distance from the collar. */
export function pointAt(azimuthDeg: number, radius: number): [x: number, y: number] {
  const a = (azimuthDeg * Math.PI) / 180;
  return [C + radius * Math.sin(a), C - radius * Math.cos(a)];
}

/** Direction of a point of the drawing, to the nearest 5°. */
export function azimuthOf(x: number, y: number): number {
  const deg = (Math.atan2(x - C, C - y) * 180) / Math.PI;
  return (((Math.round(deg / 5) * 5) % 360) + 360) % 360;
}

const at = (azimuth: number, radius: number) =>
  pointAt(azimuth, radius)
    .map((v) => v.toFixed(1))
    .join(' ');

/**
 * The line of a lateral as it runs in plan: its shape says its path, so that no colour is needed. Straight ends
 * beyond the rim in the air; steep stops short; the others do at the rim what a wall makes them do.
 */
export function lateralLine({ azimuthDeg: a, path }: Pick<LateralRoot, 'azimuthDeg' | 'path'>): string {
  const start = `M${at(a, COLLAR)}`;
  switch (path) {
    case 'straight':
      return `${start}L${at(a, RIM + 7)}`;
    case 'steep':
      return `${start}L${at(a, RIM * 0.5)}`;
    case 'wall':
      return `${start}L${at(a, RIM)}M${at(a - 5, RIM - 9)}L${at(a, RIM)}L${at(a + 5, RIM - 9)}`;
    case 'circling':
      return `${start}L${at(a, RIM - 12)}A${RIM - 5} ${RIM - 5} 0 0 1 ${at(a + 65, RIM - 5)}`;
    case 'kinked':
      return `${start}L${at(a - 7, RIM * 0.45)}L${at(a + 9, RIM * 0.6)}L${at(a - 2, RIM)}`;
    case 'ascending':
      return `${start}L${at(a, RIM - 4)}Q${at(a + 12, RIM + 4)} ${at(a + 14, RIM * 0.55)}`;
    case 'j':
      return `${start}L${at(a, RIM * 0.62)}Q${at(a + 18, RIM * 0.8)} ${at(a + 30, RIM * 0.4)}`;
  }
}

/** Where the letter of its depth stands. */
export const bandSpot = ({ azimuthDeg, path }: Pick<LateralRoot, 'azimuthDeg' | 'path'>) =>
  pointAt(azimuthDeg, path === 'steep' ? RIM * 0.5 + 9 : RIM + 13);

/** Width a lateral is drawn with, in units of the square. */
export const widthOf = (thicknessMm: number) => Math.max(1.6, Math.min(9, thicknessMm * 2.2));
