import { normalDraw, seededRandom } from '../../chance/random';
import type { Picture } from './picture';

/** A root drawn on a plug’s face: from a point in a direction, in the picture’s points. */
export interface DrawnRoot {
  x: number;
  y: number;
  /** Degrees from upright, downwards. */
  angleDeg: number;
  length: number;
  width: number;
}

export interface Rendered {
  width?: number;
  height?: number;
  /** The face of the plug. */
  plug: { left: number; top: number; right: number; bottom: number };
  roots: readonly DrawnRoot[];
  /** Standard deviation of noise a point, of 255. */
  noise: number;
  ground?: readonly [number, number, number];
  medium?: readonly [number, number, number];
  root?: readonly [number, number, number];
  seed?: number;
}

/** A picture of known truth: what was painted, for the meter to find again. */
export interface RenderedTruth {
  picture: Picture;
  cover: number;
  /** Share of painted root within 30° of upright. */
  down: number;
  /** Length of what can be seen: roots that cross hide one another. */
  lengthPoints: number;
}

/** Paints a plug on a plain ground, roots on its face, with grain and noise. For tests and for trying the meter. */
export function renderPlug({
  width = 600,
  height = 800,
  plug,
  roots,
  noise,
  ground = [172, 186, 196],
  medium = [66, 48, 36],
  root = [222, 208, 178],
  seed = 1,
}: Rendered): RenderedTruth {
  const random = seededRandom(seed);
  const kind = new Uint8Array(width * height);
  for (let y = plug.top; y < plug.bottom; y++) kind.fill(1, y * width + plug.left, y * width + plug.right);
  let down = 0;
  for (const r of roots) {
    const turn = (r.angleDeg * Math.PI) / 180;
    const [dx, dy] = [Math.sin(turn), Math.cos(turn)];
    let inside = 0;
    for (let along = 0; along <= r.length; along += 0.5) {
      const [cx, cy] = [r.x + dx * along, r.y + dy * along];
      if (cx < plug.left || cx >= plug.right || cy < plug.top || cy >= plug.bottom) break;
      inside = along;
      const half = r.width / 2;
      for (let y = Math.floor(cy - half); y <= cy + half; y++)
        for (let x = Math.floor(cx - half); x <= cx + half; x++)
          if (Math.hypot(x - cx, y - cy) <= half && kind[y * width + x] === 1) kind[y * width + x] = 2;
    }
    if (Math.abs(r.angleDeg) <= 30) down += inside * r.width;
  }
  const painted = roots.reduce((t, r) => t + r.length * r.width, 0);
  const rgba = new Uint8ClampedArray(4 * kind.length);
  const meanWidth = roots.reduce((t, r) => t + r.width, 0) / Math.max(1, roots.length);
  let [rootPoints, plugPoints] = [0, 0];
  for (let i = 0; i < kind.length; i++) {
    const colour = [ground, medium, root][kind[i]];
    // The medium has a grain of its own.
    const grain = kind[i] === 1 ? 7 * normalDraw(random) : 0;
    for (let c = 0; c < 3; c++) rgba[4 * i + c] = colour[c] + grain + noise * normalDraw(random);
    rgba[4 * i + 3] = 255;
    if (kind[i]) plugPoints++;
    if (kind[i] === 2) rootPoints++;
  }
  return {
    picture: { width, height, rgba },
    cover: rootPoints / plugPoints,
    down: painted ? down / painted : 0,
    lengthPoints: meanWidth > 0 ? rootPoints / meanWidth : 0,
  };
}

/** Roots strewn over a face, so many, running about an angle. */
export function strewnRoots(
  plug: Rendered['plug'],
  n: number,
  angleDeg: number,
  spreadDeg: number,
  seed: number,
  width = 5,
): DrawnRoot[] {
  const random = seededRandom(seed);
  return Array.from({ length: n }, () => ({
    x: plug.left + 10 + random() * (plug.right - plug.left - 20),
    y: plug.top + 10 + random() * (plug.bottom - plug.top - 60),
    angleDeg: angleDeg + spreadDeg * (2 * random() - 1),
    length: 60 + random() * 120,
    width,
  }));
}
