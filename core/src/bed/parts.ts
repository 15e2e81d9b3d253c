import { say } from '../speech/say';
import { buildOf, type BedDesign, type OpenLayer } from './design';
import { dressedSize } from './dressedSize';
import { bedGeometry } from './geometry';

/** A timber piece of a bed. */
export interface TimberPart {
  name: string;
  /** Nominal section. */
  board: string;
  lengthMm: number;
  count: number;
}

/** A sheet of mesh or cloth of a bed. */
export interface SheetPart {
  name: string;
  what: 'mesh' | 'grid' | 'cloth';
  layer: OpenLayer;
  lengthMm: number;
  widthMm: number;
  count: number;
}

export interface Fixings {
  brackets: number;
  screws: number;
  staples: number;
  feet: number;
}

export interface BedParts {
  timber: TimberPart[];
  sheets: SheetPart[];
  fixings: Fixings;
}

/** Section of runners, cleats and lid frames: what every yard sells. */
const BATTEN = { metric: '25x50', us: '1x2' } as const;
const STAPLE_SPACING_MM = 60;
const SCREW_SPACING_MM = 300;

/** A heavy grid that carries the fine mesh. */
export function isGrid(layer: OpenLayer): boolean {
  return layer.kind === 'mesh' && layer.wireMm >= 3;
}

/**
 * Every piece of one bed: timber by nominal board and length, mesh and cloth, fixings by spacing, feet.
 * @throws Unfit when the design cannot be built
 */
export function bedParts(design: BedDesign): BedParts {
  const g = bedGeometry(design).value;
  const build = buildOf(design);
  const inches = !design.found && dressedSize(design.tiers[0]).nominalThicknessMm % 25.4 < 1e-6;
  const batten = inches ? BATTEN.us : BATTEN.metric;
  const timber: TimberPart[] = [];
  const add = (name: string, board: string, lengthMm: number, count: number) => {
    if (count > 0) timber.push({ name, board, lengthMm: Math.round(lengthMm * 10) / 10, count });
  };
  design.tiers.forEach((board, i) => {
    const riser = i >= design.tiers.length - build.riserTiers && i > 0;
    const what = riser ? say`riser ${i + 1}` : say`tier ${i + 1}`;
    add(say`Long side, ${what}`, board, g.outsideLengthMm, 2);
    add(say`End, ${what}`, board, g.outsideWidthMm - 2 * dressedSize(board).thicknessMm, 2);
  });
  add('Bearer', build.crossBoard, g.outsideWidthMm, build.crossMembers);
  if (build.runners) {
    add(say`Runner along`, batten, g.outsideLengthMm, 2);
    add(say`Runner across`, batten, g.outsideWidthMm - 2 * dressedSize(batten).widthMm, 2);
  }
  if (build.riserTiers > 0)
    add(say`Corner cleat of the riser`, batten, Math.max(120, g.frameHeightMm * 0.6), 4);
  if (build.feet.kind === 'legs')
    add(say`Leg`, build.crossBoard, design.airGapMm + g.tierDepthsMm[0], build.feet.count);
  const sheets: SheetPart[] = design.layers
    .filter((l) => l.kind !== 'support')
    .map((layer) => ({
      name: layer.kind === 'cloth' ? say`Retaining cloth` : isGrid(layer) ? say`Welded grid` : say`Mesh`,
      what:
        layer.kind === 'cloth' ? ('cloth' as const) : isGrid(layer) ? ('grid' as const) : ('mesh' as const),
      layer,
      lengthMm: g.outsideLengthMm,
      widthMm: g.outsideWidthMm,
      count: 1,
    }));
  if (design.lidAboveRimMm !== null) {
    const rails = Math.max(0, Math.ceil(g.outsideLengthMm / 1200) - 1);
    add(say`Lid rail along`, batten, g.outsideLengthMm, 2);
    add(say`Lid rail across`, batten, g.outsideWidthMm - 2 * dressedSize(batten).thicknessMm, 2 + rails);
    add(say`Lid upright`, batten, design.lidAboveRimMm, 4 + 2 * rails);
    sheets.push({
      name: say`Lid mesh`,
      what: 'mesh',
      layer: { kind: 'mesh', openingMm: [12.7, 12.7], wireMm: 1.05 },
      lengthMm: g.outsideLengthMm + 2 * design.lidAboveRimMm,
      widthMm: g.outsideWidthMm,
      count: 1,
    });
    sheets.push({
      name: say`Lid mesh, long sides`,
      what: 'mesh',
      layer: { kind: 'mesh', openingMm: [12.7, 12.7], wireMm: 1.05 },
      lengthMm: g.outsideLengthMm,
      widthMm: design.lidAboveRimMm,
      count: 2,
    });
  }
  const around = 2 * (g.outsideLengthMm + g.outsideWidthMm);
  // A thing found comes whole; only what is put under it and over it is made.
  const corners = 4 * design.tiers.length;
  const battens = timber.filter((t) => t.board === batten).reduce((t, p) => t + p.count * p.lengthMm, 0);
  return {
    timber,
    sheets,
    fixings: {
      brackets: build.corners === 'brackets' ? corners : 0,
      screws:
        (build.corners === 'brackets' ? corners * 8 : corners * 3) +
        build.crossMembers * 4 +
        Math.ceil(battens / SCREW_SPACING_MM),
      staples: Math.ceil(around / STAPLE_SPACING_MM) * sheets.filter((s) => s.what !== 'grid').length,
      feet: build.feet.count,
    },
  };
}
