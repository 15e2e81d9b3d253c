import { boxMean } from './picture';

/** Points that belong to something: 1, else 0. */
export interface Mask {
  width: number;
  height: number;
  bits: Uint8Array;
}

/** A mask’s bits from a question put to each point. */
export function bitsWhere(points: number, isIn: (i: number) => boolean): Uint8Array {
  const bits = new Uint8Array(points);
  for (let i = 0; i < points; i++) if (isIn(i)) bits[i] = 1;
  return bits;
}

/** The largest piece of a mask that hangs together (by sides), and its size in points. */
export function largestPiece({ width, height, bits }: Mask): Mask & { size: number } {
  const seen = new Int32Array(bits.length);
  const queue = new Int32Array(bits.length);
  const steps = [-1, 1, -width, width];
  let [pieces, best, most] = [0, 0, 0];
  for (let start = 0; start < bits.length; start++) {
    if (!bits[start] || seen[start]) continue;
    pieces++;
    let [head, tail] = [0, 0];
    queue[tail++] = start;
    seen[start] = pieces;
    while (head < tail) {
      const i = queue[head++];
      const x = i % width;
      for (let side = 0; side < 4; side++) {
        const j = i + steps[side];
        if ((side === 0 && x === 0) || (side === 1 && x === width - 1) || j < 0 || j >= bits.length) continue;
        if (bits[j] === 0 || seen[j] !== 0) continue;
        seen[j] = pieces;
        queue[tail++] = j;
      }
    }
    if (tail > most) [most, best] = [tail, pieces];
  }
  return {
    width,
    height,
    size: most,
    bits: bitsWhere(bits.length, (i) => best > 0 && seen[i] === best),
  };
}

/** A mask with its gaps up to twice a radius wide closed: grown, then shrunk by as much. */
export function closed({ width, height, bits }: Mask, radius: number): Mask {
  const grown = boxMean({ width, height, values: new Float32Array(bits) }, radius).values;
  const grownBits = grown.map((v) => (v > 1e-6 ? 1 : 0));
  const shrunk = boxMean({ width, height, values: grownBits }, radius).values;
  return { width, height, bits: bitsWhere(bits.length, (i) => shrunk[i] > 1 - 1e-6) };
}

/** A mask with what it encloses, row by row between its first and last point: a plug has no holes. */
export function filledRows({ width, height, bits }: Mask): Mask {
  const out = new Uint8Array(bits.length);
  for (let y = 0; y < height; y++) {
    const row = bits.subarray(y * width, (y + 1) * width);
    const first = row.indexOf(1);
    if (first >= 0) out.fill(1, y * width + first, y * width + row.lastIndexOf(1) + 1);
  }
  return { width, height, bits: out };
}

/** First and last row a mask has points in; null where it has none. */
export function rowsOf({ width, height, bits }: Mask): { top: number; bottom: number } | null {
  const first = bits.indexOf(1);
  if (first < 0) return null;
  return {
    top: Math.floor(first / width),
    bottom: Math.min(height - 1, Math.floor(bits.lastIndexOf(1) / width)),
  };
}

/** Lines one point wide along the middle of a mask (Zhang & Suen 1984, Commun. ACM 27:236). */
export function skeleton({ width, height, bits }: Mask): Mask {
  const out = Uint8Array.from(bits);
  // A border of nothing, so that every point has eight neighbours.
  for (let x = 0; x < width; x++) out[x] = out[(height - 1) * width + x] = 0;
  for (let y = 0; y < height; y++) out[y * width] = out[y * width + width - 1] = 0;
  const around = [-width, -width + 1, 1, width + 1, width, width - 1, -1, -width - 1];
  let live: number[] = [];
  for (let i = 0; i < out.length; i++) if (out[i]) live.push(i);
  for (let changed = true; changed;) {
    changed = false;
    for (const turn of [0, 1]) {
      const gone: number[] = [];
      for (const i of live) {
        let [neighbours, rises] = [0, 0];
        for (let k = 0; k < 8; k++) {
          const here = out[i + around[k]];
          neighbours += here;
          if (!here && out[i + around[(k + 1) % 8]]) rises++;
        }
        if (neighbours < 2 || neighbours > 6 || rises !== 1) continue;
        const [n, e, s, w] = [out[i - width], out[i + 1], out[i + width], out[i - 1]];
        if (turn === 0 ? n * e * s || e * s * w : n * e * w || n * s * w) continue;
        gone.push(i);
      }
      for (const i of gone) out[i] = 0;
      if (gone.length) {
        changed = true;
        live = live.filter((i) => out[i]);
      }
    }
  }
  return { width, height, bits: withoutCorners(out, width) };
}

/** Stairs made slopes: a point in the crook of two others that touch across it is one too many. */
function withoutCorners(bits: Uint8Array, width: number): Uint8Array {
  for (let i = width + 1; i < bits.length - width - 1; i++) {
    if (!bits[i]) continue;
    const [n, e, s, w] = [bits[i - width], bits[i + 1], bits[i + width], bits[i - 1]];
    const [ne, se, sw, nw] = [
      bits[i - width + 1],
      bits[i + width + 1],
      bits[i + width - 1],
      bits[i - width - 1],
    ];
    if (
      (n && e && !s && !w && !sw) ||
      (e && s && !n && !w && !nw) ||
      (s && w && !n && !e && !ne) ||
      (w && n && !s && !e && !se)
    )
      bits[i] = 0;
  }
  return bits;
}

/**
 * Length of the lines of a skeleton, in points: a step to the side counts 0.948 and one across 1.340, which is right on
 * average for lines of any direction (Dorst & Smeulders 1987, Comput. Vis. Graph. Image Process. 40:311).
 */
export function lineLength({ width, bits }: Mask): number {
  let [straight, across] = [0, 0];
  for (let i = 0; i < bits.length - width - 1; i++) {
    if (!bits[i]) continue;
    if (bits[i + 1]) straight++;
    if (bits[i + width]) straight++;
    // A corner is one step across, not two to the side and one across as well.
    if (bits[i + width + 1] && !bits[i + 1] && !bits[i + width]) across++;
    if (i % width > 0 && bits[i + width - 1] && !bits[i - 1] && !bits[i + width]) across++;
  }
  return 0.948 * straight + 1.34 * across;
}
