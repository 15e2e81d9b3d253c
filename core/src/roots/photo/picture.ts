/** A picture as pixels: red, green, blue and opacity a point, row by row, 0–255. */
export interface Picture {
  width: number;
  height: number;
  rgba: Uint8ClampedArray | Uint8Array;
}

/** One figure a point, row by row. */
export interface Grey {
  width: number;
  height: number;
  values: Float32Array;
}

/** Brightness of each point (Rec. 709 luma), 0–255. */
export function brightness({ width, height, rgba }: Picture): Grey {
  const values = new Float32Array(width * height);
  for (let i = 0; i < values.length; i++)
    values[i] = 0.2126 * rgba[4 * i] + 0.7152 * rgba[4 * i + 1] + 0.0722 * rgba[4 * i + 2];
  return { width, height, values };
}

/** Means over squares of side 2·radius + 1, by running sums: the same time whatever the radius. Edges repeat. */
export function boxMean({ width, height, values }: Grey, radius: number): Grey {
  const rows = new Float32Array(values.length);
  const out = new Float32Array(values.length);
  pass(values, rows, height, width, width, 1, radius);
  pass(rows, out, width, height, 1, width, radius);
  return { width, height, values: out };
}

function pass(
  from: Float32Array,
  to: Float32Array,
  lines: number,
  length: number,
  lineStep: number,
  step: number,
  radius: number,
): void {
  const size = 2 * radius + 1;
  const last = (length - 1) * step;
  const reach = radius * step;
  for (let line = 0; line < lines; line++) {
    const start = line * lineStep;
    const end = start + last;
    let sum = (radius + 1) * from[start];
    for (let i = 1; i <= radius; i++) sum += from[Math.min(end, start + i * step)];
    for (let i = start; i <= end; i += step) {
      to[i] = sum / size;
      const comes = i + reach + step;
      const goes = i - reach;
      sum += from[comes > end ? end : comes] - from[goes < start ? start : goes];
    }
  }
}

/**
 * The value that best parts figures in two (Otsu 1979, IEEE Trans. SMC 9:62), with how well it does: the share of their
 * variance that lies between the parts, 0–1.
 */
export function parting(values: ArrayLike<number>, bins = 128): { at: number; clearness: number } {
  let [least, most] = [Infinity, -Infinity];
  for (let i = 0; i < values.length; i++) {
    least = Math.min(least, values[i]);
    most = Math.max(most, values[i]);
  }
  if (!(most > least)) return { at: most, clearness: 0 };
  const counts = new Float64Array(bins);
  const scale = (bins - 1e-6) / (most - least);
  for (let i = 0; i < values.length; i++) counts[Math.floor((values[i] - least) * scale)]++;
  const total = values.length;
  let all = 0;
  let squares = 0;
  for (let b = 0; b < bins; b++) {
    all += b * counts[b];
    squares += b * b * counts[b];
  }
  const variance = squares / total - (all / total) ** 2;
  let [below, sum, best, cut] = [0, 0, -1, 0];
  for (let b = 0; b < bins - 1; b++) {
    below += counts[b];
    sum += b * counts[b];
    if (below === 0 || below === total) continue;
    const between =
      (below / total) * (1 - below / total) * (sum / below - (all - sum) / (total - below)) ** 2;
    if (between > best) [best, cut] = [between, b];
  }
  return { at: least + (cut + 1) / scale, clearness: variance > 0 ? best / variance : 0 };
}
