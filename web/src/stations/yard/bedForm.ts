import {
  buildOf,
  type BedDesign,
  type FootKind,
  type Ground,
  type OpenLayer,
  type Quantity,
  type TimberClass,
  type UnitSystem,
  inWords,
} from '@kauri/core';
import { typedNumber } from '../../parts/typed';

export const DENSITY_KEY = 'kauri.density';
export const USUAL_DENSITY = 240;

/** A bed as it is typed. Lengths are text in the grower's own units. */
export interface BedForm {
  name: string;
  measured: 'inside' | 'outside';
  length: string;
  width: string;
  /** Of boards, or something found: round or with four sides. */
  walls: 'boards' | 'round' | 'box';
  tiers: string[];
  /** Of a thing found: its walls, and its size at the floor (across a round one, else along). */
  height: string;
  wall: string;
  floor: string;
  /** Share of its floor that the thing's own bars or bottom cover, %. */
  ownFloor: string;
  emptyWeight: string;
  seasons: string;
  mediumId: string;
  fillBelowRim: string;
  mesh: string;
  grid: boolean;
  cloth: string;
  ground: Ground;
  airGap: string;
  lid: boolean;
  lidAboveRim: string;
  east: string;
  north: string;
  angle: string;
  density: string;
  builtOn: string;
  timber: TimberClass;
  corners: 'brackets' | 'butt';
  risers: string;
  loosenSide: boolean;
  bearers: string;
  bearerBoard: string;
  runners: boolean;
  feet: FootKind;
  footCount: string;
}

/** What of the form is not of the design. */
type Apart = Pick<BedForm, 'name' | 'mediumId' | 'east' | 'north' | 'angle' | 'density' | 'builtOn'>;

interface Mesh {
  value: string;
  words: string;
  openingMm: readonly [number, number];
  wireMm: number;
}

/** Meshes offered: opening and wire in their ordinary sizes. */
export const meshes: readonly Mesh[] = inWords(
  [
    { value: '6', words: '6 mm square, wire 0.65 mm', openingMm: [6.35, 6.35], wireMm: 0.65 },
    { value: '13', words: '13 mm square, wire 1.05 mm', openingMm: [12.7, 12.7], wireMm: 1.05 },
    { value: '19', words: '19 mm square, wire 1.2 mm', openingMm: [19, 19], wireMm: 1.2 },
    { value: '25', words: '25 mm square, wire 1.6 mm', openingMm: [25.4, 25.4], wireMm: 1.6 },
    { value: '25x50', words: '25 × 50 mm welded, wire 2 mm', openingMm: [25, 50], wireMm: 2 },
  ],
  'words',
);

/** A thing found may stand on its own grate alone. */
const noMesh = inWords([{ value: 'none', words: 'None: its own floor' }] as const, 'words');
export const meshesOrNone = [...noMesh, ...meshes];

export const cloths = inWords(
  [
    { value: '', words: 'None' },
    { value: '0.3', words: 'Cloth shading 30 %' },
    { value: '0.5', words: 'Cloth shading 50 %' },
    { value: '0.7', words: 'Cloth shading 70 %' },
  ] as const,
  'words',
);

const heavyGrid: OpenLayer = { kind: 'mesh', openingMm: [150, 150], wireMm: 3.4 };
const bearers: OpenLayer = { kind: 'support', coveredShare: 0.06 };

export interface Convert {
  typed: (value: number, quantity: Quantity) => number;
  shown: (value: number, quantity: Quantity) => number;
}

/** Only its tiers and length matter to the ordinary build. */
const plainDesign = { lengthMm: 2400, tiers: [] } as unknown as BedDesign;

/** The carpentry of an ordinary bed of a size, as it is typed: what a new bed begins with. */
export function usualFields(convert: Convert & { units: UnitSystem }, lengthMm: number, widthMm: number) {
  const mm = (value: number) => String(Number(convert.shown(value, 'timber').toFixed(1)));
  const board = convert.units === 'us' ? '2x8' : '50x200';
  return {
    measured: 'outside' as const,
    ...foundFields(null, convert),
    length: mm(lengthMm),
    width: mm(widthMm),
    tiers: [board, board],
    fillBelowRim: mm(30),
    mesh: '13',
    grid: true,
    cloth: '' as const,
    ground: 'paving' as const,
    airGap: mm(90),
    lid: true,
    lidAboveRim: mm(400),
    ...buildFields({ ...plainDesign, lengthMm, tiers: [board, 'riser'] }),
  };
}

/** What the form says, in SI. Text that is no number becomes NaN, which the core refuses with a sentence. */
export function toDesign(form: Omit<BedForm, keyof Apart>, convert: Convert): BedDesign {
  const { typed } = convert;
  const found = foundOf(form, convert);
  const mm = (text: string) => Math.round(typed(typedNumber(text), 'timber') * 10) / 10;
  const mesh = meshes.find((m) => m.value === form.mesh);
  return {
    schema: 1,
    measured: form.measured,
    lengthMm: mm(form.length),
    widthMm: mm(form.walls === 'round' ? form.length : form.width),
    tiers: found ? [] : form.tiers,
    layers: [
      ...(form.cloth ? [{ kind: 'cloth' as const, shadeShare: Number(form.cloth) }] : []),
      ...(mesh ? [{ kind: 'mesh' as const, openingMm: mesh.openingMm, wireMm: mesh.wireMm }] : []),
      ...(form.grid ? [heavyGrid] : []),
      ...(found ? ownFloor(form) : [bearers]),
    ],
    fillBelowRimMm: mm(form.fillBelowRim),
    ground: form.ground,
    airGapMm: mm(form.airGap),
    lidAboveRimMm: form.lid ? mm(form.lidAboveRim) : null,
    ...(found && { found }),
    build: {
      timber: form.timber,
      corners: form.corners,
      riserTiers: found ? 0 : typedNumber(form.risers),
      loosenSide: !found && form.loosenSide,
      crossMembers: found ? 0 : typedNumber(form.bearers),
      crossBoard: form.bearerBoard,
      runners: !found && form.runners,
      feet: { kind: form.feet, count: typedNumber(form.footCount) },
    },
  };
}

/** What a thing found covers of its own floor. */
function ownFloor(form: Pick<BedForm, 'ownFloor'>): OpenLayer[] {
  const share = typedNumber(form.ownFloor) / 100;
  return share === 0 ? [] : [{ kind: 'support', coveredShare: share }];
}

/** What the form says of a thing found; undefined for a bed of boards. */
function foundOf(form: Omit<BedForm, keyof Apart>, { typed }: Convert): BedDesign['found'] {
  if (form.walls === 'boards') return undefined;
  const mm = (text: string) => Math.round(typed(typedNumber(text), 'timber') * 10) / 10;
  const out = form.measured === 'outside' ? 2 * mm(form.wall) : 0;
  return {
    shape: form.walls,
    heightMm: mm(form.height),
    wallMm: mm(form.wall),
    taper: Math.round(((mm(form.floor) - out) / (mm(form.length) - out)) * 1e4) / 1e4,
    emptyKg: typed(typedNumber(form.emptyWeight), 'mass'),
    seasons: typedNumber(form.seasons),
  };
}

/** A thing found, as it is typed; an ordinary tub where the bed is of boards. */
export function foundFields(
  design: BedDesign | null,
  { shown }: Convert,
): Pick<BedForm, 'walls' | 'height' | 'wall' | 'floor' | 'ownFloor' | 'emptyWeight' | 'seasons'> {
  const text = (mm: number) => String(Number(shown(mm, 'timber').toFixed(1)));
  const found = design?.found ?? {
    shape: 'box',
    heightMm: 300,
    wallMm: 10,
    taper: 1,
    emptyKg: 3,
    seasons: 5,
  };
  const length = design?.found ? design.lengthMm : 600;
  const own = design?.layers.find((layer) => layer.kind === 'support');
  const out = design?.measured === 'outside' ? 2 * found.wallMm : 0;
  return {
    walls: design?.found?.shape ?? 'boards',
    height: text(found.heightMm),
    wall: text(found.wallMm),
    ownFloor: String(Math.round(100 * (own?.kind === 'support' ? own.coveredShare : 0))),
    floor: text((length - out) * found.taper + out),
    emptyWeight: String(Number(shown(found.emptyKg, 'mass').toFixed(2))),
    seasons: String(found.seasons),
  };
}

/** A kept design back in the form. */
export function fromDesign(design: BedDesign, convert: Convert): Partial<BedForm> {
  const { shown } = convert;
  const text = (mm: number) => String(Number(shown(mm, 'timber').toFixed(3)));
  const isGrid = (layer: OpenLayer) => layer.kind === 'mesh' && layer.openingMm[0] >= 100;
  const mesh = design.layers.find((layer) => layer.kind === 'mesh' && !isGrid(layer)) as
    Extract<OpenLayer, { kind: 'mesh' }> | undefined;
  const cloth = design.layers.find((layer) => layer.kind === 'cloth') as
    Extract<OpenLayer, { kind: 'cloth' }> | undefined;
  const known =
    mesh && meshes.find((m) => m.openingMm[0] === mesh.openingMm[0] && m.openingMm[1] === mesh.openingMm[1]);
  return {
    measured: design.measured,
    length: text(design.lengthMm),
    width: text(design.widthMm),
    ...(design.found ? {} : { tiers: [...design.tiers] }),
    ...foundFields(design, convert),
    fillBelowRim: text(design.fillBelowRimMm),
    mesh: known?.value ?? (mesh ? '13' : 'none'),
    grid: design.layers.some(isGrid),
    cloth: cloth ? String(cloth.shadeShare) : '',
    ground: design.ground,
    airGap: text(design.airGapMm),
    lid: design.lidAboveRimMm !== null,
    lidAboveRim: design.lidAboveRimMm === null ? text(400) : text(design.lidAboveRimMm),
    ...buildFields(design),
  };
}

/** How a design is put together, as it is typed. */
export function buildFields(design: BedDesign) {
  const build = buildOf(design);
  return {
    timber: build.timber,
    corners: build.corners,
    risers: String(build.riserTiers),
    loosenSide: build.loosenSide,
    bearers: String(build.crossMembers),
    bearerBoard: build.crossBoard,
    runners: build.runners,
    feet: build.feet.kind,
    footCount: String(build.feet.count),
  };
}

/** A design as text, its keys in one order and its build said: two that are alike read alike. */
export function designText(d: BedDesign): string {
  const order = (value: unknown): unknown =>
    Array.isArray(value)
      ? value.map(order)
      : value && typeof value === 'object'
        ? Object.fromEntries(
            Object.entries(value)
              .sort(([a], [b]) => a.localeCompare(b))
              .map(([k, v]) => [k, order(v)]),
          )
        : value;
  return JSON.stringify(order({ ...d, build: buildOf(d) }));
}
