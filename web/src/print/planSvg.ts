import {
  boxAround,
  boxOf,
  cornersOf,
  middleOf,
  shapeOfKind,
  type Box,
  type Point,
  type SiteElement,
} from '@kauri/core';
import type { PlaceBody } from '@kauri/core/contract';

/** A plan drawn for paper: its SVG in millimetres, true to its scale. */
export interface PaperPlan {
  svg: string;
  widthMm: number;
  heightMm: number;
  /** One to this. */
  scale: number;
}

/** Ordinary scales a plan is read at with a rule. */
const SCALES = [20, 50, 100, 125, 150, 200, 250, 500, 1000, 2000];
const MARGIN_MM = 12;

/** The largest ordinary scale at which a box fits a sheet. */
export function scaleFor(box: Box, sheetMm: readonly [number, number]): number {
  const need = Math.max(
    ((box.east - box.west) * 1000) / (sheetMm[0] - 2 * MARGIN_MM),
    ((box.north - box.south) * 1000) / (sheetMm[1] - 2 * MARGIN_MM - 10),
  );
  return SCALES.find((s) => s >= need) ?? SCALES[SCALES.length - 1];
}

const escape = (text: string) =>
  text.replace(/[&<>"]/g, (c) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[c]!);

const strokes: Partial<Record<SiteElement['kind'], string>> = {
  outline: 'stroke="#1f261e" stroke-width="0.6" fill="none"',
  surface: 'stroke="none" fill="#eee8da"',
  building: 'stroke="#1f261e" stroke-width="0.5" fill="#c9c2b0"',
  'cold-store': 'stroke="#1f261e" stroke-width="0.5" fill="#cfe0e6"',
  wall: 'stroke="#1f261e" stroke-width="1.2" fill="none"',
  trees: 'stroke="#3d6b3b" stroke-width="1.6" stroke-dasharray="0.2 2.4" stroke-linecap="round" fill="none"',
  fence: 'stroke="#5a6055" stroke-width="0.35" stroke-dasharray="2 0.8" fill="none"',
  tunnel: 'stroke="#2e6f8f" stroke-width="0.5" stroke-dasharray="2.5 1" fill="none"',
  shade: 'stroke="#5a6055" stroke-width="0.5" stroke-dasharray="0.8 0.8" fill="none"',
};

/**
 * The yard on a sheet at an ordinary scale, with names, north and a scale bar.
 * @param showLength a length in the grower's own units
 */
export function planSvg(
  elements: readonly SiteElement[],
  places: readonly PlaceBody[],
  sheetMm: readonly [number, number],
  showLength: (metres: number) => string,
): PaperPlan {
  const boxes = [...elements.map((e) => boxOf(e.points)), ...places.map((p) => boxOf(cornersOf(p)))];
  const box = boxes.length ? boxAround(boxes) : { west: 0, east: 10, south: 0, north: 10 };
  const scale = scaleFor(box, sheetMm);
  const [widthMm, heightMm] = sheetMm;
  const mm = (metres: number) => (metres * 1000) / scale;
  const left = (widthMm - mm(box.east - box.west)) / 2 - mm(box.west);
  const top = MARGIN_MM + mm(box.north);
  const at = ([e, n]: Point) => `${(left + mm(e)).toFixed(3)} ${(top - mm(n)).toFixed(3)}`;
  const path = (points: readonly Point[], closed: boolean) =>
    `M${points.map(at).join('L')}${closed ? 'Z' : ''}`;
  const text = (point: Point, words: string, size = 2.6) => {
    const [x, y] = at(point).split(' ');
    return `<text x="${x}" y="${y}" font-size="${size}" text-anchor="middle" fill="#1f261e">${escape(words)}</text>`;
  };
  /** Covers are named under their south edge and a standpipe beside itself, where no place stands. */
  const labelPoint = (e: SiteElement): Point => {
    const [east, north] = middleOf(e.points);
    if (e.kind === 'tunnel' || e.kind === 'shade')
      return [east, boxOf(e.points).south - (3.2 * scale) / 1000];
    return e.kind === 'standpipe' ? [east, north - (4.4 * scale) / 1000] : [east, north];
  };
  const order = ['surface', 'path', 'outline'];
  const parts = [...elements]
    .sort((a, b) => (order.indexOf(a.kind) + 1 || 9) - (order.indexOf(b.kind) + 1 || 9))
    .map((e) => {
      if (e.kind === 'standpipe') {
        const [x, y] = at(e.points[0]).split(' ');
        return `<circle cx="${x}" cy="${y}" r="1.2" fill="#2e6f8f"/>`;
      }
      const style =
        e.kind === 'path'
          ? `stroke="#ffffff" stroke-width="${mm(e.widthM ?? 0.6).toFixed(3)}" fill="none"`
          : strokes[e.kind];
      return `<path d="${path(e.points, shapeOfKind[e.kind] === 'area')}" ${style}/>`;
    });
  const beds = places.map(
    (p) =>
      `<path d="${path(cornersOf(p), true)}" fill="${p.kind === 'bed' ? '#e7d7bd' : '#fffcf5'}" stroke="#1f261e" stroke-width="0.35"/>`,
  );
  const names = [
    ...elements
      .filter((e) => !['surface', 'outline', 'fence', 'path'].includes(e.kind))
      .map((e) => text(labelPoint(e), e.name)),
    ...places.map((p) => text(middleOf(cornersOf(p)), p.name, 2.3)),
  ];
  const barM = [0.5, 1, 2, 5, 10, 20, 50].find((m) => mm(m) >= 25) ?? 100;
  const foot = heightMm - MARGIN_MM / 2;
  const furniture = `<path d="M${MARGIN_MM} ${foot}h${mm(barM).toFixed(3)}m0 -1.5v3M${MARGIN_MM} ${foot - 1.5}v3" stroke="#1f261e" stroke-width="0.4" fill="none"/>
<text x="${(MARGIN_MM + mm(barM) + 2).toFixed(2)}" y="${foot + 1}" font-size="3" fill="#1f261e">${escape(showLength(barM))}, 1 : ${scale}</text>
<path d="M${widthMm - MARGIN_MM} ${foot}v-7m-1.6 2l1.6 -3l1.6 3z" stroke="#1f261e" stroke-width="0.4" fill="#1f261e"/>
<text x="${widthMm - MARGIN_MM - 4}" y="${foot}" font-size="3" fill="#1f261e">N</text>`;
  return {
    widthMm,
    heightMm,
    scale,
    svg: `<svg xmlns="http://www.w3.org/2000/svg" width="${widthMm}mm" height="${heightMm}mm" viewBox="0 0 ${widthMm} ${heightMm}" font-family="Atkinson">
${[...parts, ...beds, ...names].join('\n')}
${furniture}
</svg>`,
  };
}
