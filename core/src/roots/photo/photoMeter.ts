import { say } from '../../speech/say';
import { Unfit } from '../../working/unfit';
import { put, type Worked } from '../../working/working';
import { boxMean, brightness, parting, type Grey, type Picture } from './picture';
import {
  bitsWhere,
  closed,
  filledRows,
  largestPiece,
  lineLength,
  rowsOf,
  skeleton,
  type Mask,
} from './shape';

/** What stands in the picture: the face of a plug with roots on it, or roots washed bare. */
export type PhotoOf = 'plug' | 'bare';

/** What a picture of roots shows. A suggestion to whoever holds the plant, never a record by itself. */
export interface PhotoReading {
  /** Share of the plug’s face that roots cover; for bare roots, of the frame about them. */
  cover: number;
  /** Share of the roots that run down the wall (within 30° of upright), and across it. */
  down: number;
  across: number;
  /** Cover of the lowest sixth over that of the middle: well above 1 is a mat at the base. */
  baseOverMiddle: number;
  /** Length of all roots seen, m; null without a scale. */
  lengthM: number | null;
  /** Height of the plug or root, mm; null without a scale. */
  heightMm: number | null;
  /** Grades of the bench it suggests: fibre by thirds, and long roots on the outside, 0–3. */
  suggests: { top: number; middle: number; low: number; surface: number };
  /** How the picture was parted, for the screen to lay over it: 0 ground, 1 plug, 2 root. */
  parts: Uint8Array;
}

/** Why a picture cannot be measured, in a sentence. */
export class UnfitPicture extends Unfit {}

const LEAST_SIDE = 240;
/** Ground is plain when its border spreads less than this, of 255. */
const PLAIN_SPREAD = 34;
const LEAST_SHARE = 0.03;
const MOST_SHARE = 0.92;

/**
 * Measures the roots in a picture of a plug or a bare root on a plain ground, the collar at the top.
 * @param of what stands in it
 * @param mmPerPoint from two points a known distance apart; null where nobody set it
 * @throws UnfitPicture with a sentence when it is too small, dark, pale or blurred, its ground is not plain, or nothing
 *   stands out from it
 */
export function measurePhoto(picture: Picture, of: PhotoOf, mmPerPoint: number | null): Worked<PhotoReading> {
  const { width, height } = picture;
  if (Math.min(width, height) < LEAST_SIDE)
    throw new UnfitPicture(
      say`The picture is ${width} × ${height} points; ${LEAST_SIDE} a side at least. Come closer.`,
    );
  const grey = brightness(picture);
  mustBeLit(grey);
  const body = bodyOf(picture);
  // Bare roots are all the body there is; on a plug they are what stands out from the medium.
  const face: Mask = of === 'plug' ? filledRows(body) : frameOf(body);
  const roots = of === 'plug' ? rootsOnFace(grey, face) : body;
  const { top, bottom } = rowsOf(body)!;
  const cover = shareOf(roots, face, top, bottom + 1);
  const band = (from: number, to: number) =>
    shareOf(roots, face, top + Math.round(from * (bottom - top)), top + Math.round(to * (bottom - top)) + 1);
  const middle = band(0.35, 0.65);
  const base = band(5 / 6, 1);
  const { down, across } = directions(grey, roots);
  const points = lineLength(skeleton(roots));
  const lengthM = mmPerPoint === null ? null : (points * mmPerPoint) / 1000;
  const heightMm = mmPerPoint === null ? null : (bottom - top + 1) * mmPerPoint;
  const parts = face.bits.map((inFace, i) => (roots.bits[i] ? 2 : inFace && of === 'plug' ? 1 : 0));
  const baseOverMiddle = middle > 0 ? base / middle : base > 0 ? Infinity : 1;
  const value: PhotoReading = {
    cover,
    down,
    across,
    baseOverMiddle,
    lengthM,
    heightMm,
    suggests: {
      top: fibreGrade(band(0, 1 / 3)),
      middle: fibreGrade(band(1 / 3, 2 / 3)),
      low: fibreGrade(band(2 / 3, 1)),
      surface: surfaceGrade(cover, down, base, baseOverMiddle),
    },
    parts,
  };
  return {
    value,
    working: [
      {
        what: say`Roots seen on the face`,
        how: say`Points brighter than the medium about them, parted where the two differ most; the face is what stands out from the ground.`,
        result: cover,
        source: 'Otsu 1979, IEEE Trans. SMC 9:62',
      },
      {
        what: say`Run down the wall`,
        how: say`Direction of each root by the structure tensor; within 30° of upright.`,
        result: down,
        source: 'Bigün & Granlund 1987, Proc. ICCV 433',
      },
      ...(lengthM === null
        ? []
        : [
            {
              what: say`Length of roots seen`,
              expression: `${put(points)} × ${put(mmPerPoint!)} ÷ 1000`,
              result: lengthM,
              unit: 'm',
              source: 'Skeleton: Zhang & Suen 1984; length: Dorst & Smeulders 1987',
            },
          ]),
    ],
  };
}

function mustBeLit({ values, width, height }: Grey): void {
  let [dark, pale] = [0, 0];
  for (const v of values) {
    if (v < 8) dark++;
    if (v > 250) pale++;
  }
  if (dark > 0.6 * values.length)
    throw new UnfitPicture(say`The picture is too dark. Take it in shade by day, or with more light.`);
  if (pale > 0.7 * values.length)
    throw new UnfitPicture(say`The picture is washed out. Take it out of the sun, or on a darker ground.`);
  // A picture that is sharp anywhere has strong second differences somewhere.
  const edges = new Float32Array(Math.ceil(width / 2) * Math.ceil(height / 2));
  let n = 0;
  for (let y = 1; y < height - 1; y += 2)
    for (let x = 1; x < width - 1; x += 2) {
      const i = y * width + x;
      edges[n++] = Math.abs(
        4 * values[i] - values[i - 1] - values[i + 1] - values[i - width] - values[i + width],
      );
    }
  const sorted = edges.subarray(0, n).sort();
  if (sorted[Math.floor(n * 0.995)] < 12)
    throw new UnfitPicture(say`The picture is blurred. Hold still, wait for the focus, and take it again.`);
}

/** What stands out from the ground, by how far its colour lies from the border’s. */
function bodyOf({ width, height, rgba }: Picture): Mask & { size: number } {
  const edge = Math.max(2, Math.round(Math.min(width, height) * 0.02));
  const border: number[] = [];
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++)
      // The plant itself comes in from above and below; the sides are ground.
      if (x < edge || x >= width - edge) border.push(y * width + x);
  const middle = (channel: number) => {
    const sorted = Uint8Array.from(border, (i) => rgba[4 * i + channel]).sort();
    return {
      at: sorted[sorted.length >> 1],
      spread: sorted[Math.floor(sorted.length * 0.9)] - sorted[Math.floor(sorted.length * 0.1)],
    };
  };
  const ground = [0, 1, 2].map(middle);
  if (Math.max(...ground.map((g) => g.spread)) / 2 > PLAIN_SPREAD)
    throw new UnfitPicture(
      say`The ground is not plain, or the plant reaches its sides. Lay it on one plain sheet with room all round.`,
    );
  const far = new Float32Array(width * height);
  for (let i = 0; i < far.length; i++)
    far[i] = Math.hypot(
      rgba[4 * i] - ground[0].at,
      rgba[4 * i + 1] - ground[1].at,
      rgba[4 * i + 2] - ground[2].at,
    );
  const even = boxMean(
    { width, height, values: far },
    Math.max(1, Math.round(Math.min(width, height) / 400)),
  ).values;
  const { at, clearness } = parting(even);
  // Noise parts too, but then the ground itself lies beyond the cut as often as not.
  const groundFar = Float32Array.from(border, (i) => even[i]).sort();
  if (clearness < 0.45 || at < 10 || groundFar[Math.floor(groundFar.length * 0.9)] > at)
    throw new UnfitPicture(
      say`Nothing stands out from the ground. Use a ground of another colour: pale blue or grey does for most.`,
    );
  // Pale roots may lie nearer the ground's colour than the medium's: they must not cut the plug in pieces.
  const gaps = Math.round(Math.min(width, height) / 60);
  const bits = bitsWhere(even.length, (i) => even[i] > at);
  const piece = largestPiece(closed({ width, height, bits }, gaps));
  const share = filledRows(piece).bits.reduce((t, b) => t + b, 0) / far.length;
  if (share < LEAST_SHARE)
    throw new UnfitPicture(
      say`The plant is too small in the picture. Come closer, so that it fills half the height.`,
    );
  if (share > MOST_SHARE)
    throw new UnfitPicture(
      say`The plant fills the whole picture. Step back, so that there is ground all round.`,
    );
  return piece;
}

/** The upright frame about a body: what bare roots are spread over. */
function frameOf(body: Mask): Mask {
  const { width, height, bits } = body;
  let [left, right] = [width, -1];
  for (let i = 0; i < bits.length; i++)
    if (bits[i]) {
      left = Math.min(left, i % width);
      right = Math.max(right, i % width);
    }
  const { top, bottom } = rowsOf(body)!;
  const out = new Uint8Array(bits.length);
  for (let y = top; y <= bottom; y++) out.fill(1, y * width + left, y * width + right + 1);
  return { width, height, bits: out };
}

/** Points of a face brighter than the medium about them. */
function rootsOnFace(grey: Grey, face: Mask): Mask {
  const { width, height } = grey;
  const near = boxMean(grey, Math.max(1, Math.round(Math.min(width, height) / 500)));
  const inFace = near.values.filter((_, i) => face.bits[i]);
  const { at, clearness } = parting(inFace);
  // A face of medium alone has nothing to part: what is found in its grain is no root.
  const sorted = inFace.sort();
  const spread = sorted[Math.floor(sorted.length * 0.98)] - sorted[Math.floor(sorted.length * 0.02)];
  const none = clearness < 0.5 || spread < 30;
  return {
    width,
    height,
    bits: bitsWhere(face.bits.length, (i) => !none && face.bits[i] === 1 && near.values[i] > at),
  };
}

function shareOf(part: Mask, whole: Mask, top: number, end: number): number {
  let [inPart, inWhole] = [0, 0];
  for (let i = top * whole.width; i < end * whole.width; i++) {
    inWhole += whole.bits[i];
    inPart += part.bits[i] & whole.bits[i];
  }
  return inWhole === 0 ? 0 : inPart / inWhole;
}

/** Which way roots run, by the structure tensor over a small neighbourhood. */
function directions(grey: Grey, roots: Mask): { down: number; across: number } {
  const { width, height } = grey;
  const even = boxMean(grey, 1).values;
  const tensor = [0, 1, 2].map(() => new Float32Array(even.length));
  for (let y = 1; y < height - 1; y++)
    for (let x = 1; x < width - 1; x++) {
      const i = y * width + x;
      const gx = even[i + 1] - even[i - 1];
      const gy = even[i + width] - even[i - width];
      tensor[0][i] = gx * gx;
      tensor[1][i] = gy * gy;
      tensor[2][i] = gx * gy;
    }
  const radius = Math.max(2, Math.round(Math.min(width, height) / 250));
  const [xx, yy, xy] = tensor.map((values) => boxMean({ width, height, values }, radius).values);
  let [down, across, all] = [0, 0, 0];
  for (let i = 0; i < roots.bits.length; i++) {
    if (!roots.bits[i]) continue;
    const strength = Math.hypot(xx[i] - yy[i], 2 * xy[i]);
    if (strength < 1) continue;
    // A root runs at right angles to the way brightness changes: an upright one changes across.
    const change = 0.5 * Math.atan2(2 * xy[i], xx[i] - yy[i]);
    const fromUpright = Math.abs(change) * (180 / Math.PI);
    all += strength;
    if (fromUpright <= 30) down += strength;
    else if (fromUpright >= 60) across += strength;
  }
  return all === 0 ? { down: 0, across: 0 } : { down: down / all, across: across / all };
}

/** Fibre by how much of a third roots cover. Rough limits, for the grower to set right. */
function fibreGrade(cover: number): number {
  return cover < 0.03 ? 0 : cover < 0.12 ? 1 : cover < 0.3 ? 2 : 3;
}

/** Long roots on the outside: many that run down the wall, or a mat at the base. */
function surfaceGrade(cover: number, down: number, base: number, baseOverMiddle: number): number {
  if (cover < 0.04) return 0;
  const mat = baseOverMiddle > 1.6 ? base : 0;
  if ((cover > 0.35 && down > 0.6) || mat > 0.4) return 3;
  return (cover > 0.18 && down > 0.5) || mat > 0.25 ? 2 : 1;
}
