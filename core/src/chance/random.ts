/** A source of uniform numbers in [0, 1). The core never makes one without a seed. */
export type Random = () => number;

/** Seeded generator (mulberry32): same seed, same sequence, on every machine. */
export function seededRandom(seed: number): Random {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** A seed from a text, e.g. a lot's id (FNV-1a). */
export function seedFrom(text: string): number {
  let hash = 0x811c9dc5;
  for (let i = 0; i < text.length; i++) hash = Math.imul(hash ^ text.charCodeAt(i), 0x01000193);
  return hash >>> 0;
}

/** One standard normal draw (Box & Muller 1958). */
export function normalDraw(random: Random): number {
  return Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
}

/** One gamma draw (Marsaglia & Tsang 2000). `shape` > 0, `scale` > 0. */
export function gammaDraw(random: Random, shape: number, scale: number): number {
  if (shape < 1) return gammaDraw(random, shape + 1, scale) * (1 - random()) ** (1 / shape);
  const d = shape - 1 / 3;
  const c = 1 / Math.sqrt(9 * d);
  for (;;) {
    const x = normalDraw(random);
    const v = (1 + c * x) ** 3;
    if (v > 0 && Math.log(1 - random()) < 0.5 * x * x + d - d * v + d * Math.log(v)) return d * v * scale;
  }
}

/** A fixed order of 0…n−1, shuffled by a seeded source (Fisher & Yates). */
export function shuffledIndices(n: number, random: Random): number[] {
  const order = Array.from({ length: n }, (_, i) => i);
  for (let i = n - 1; i > 0; i--) {
    const j = Math.floor(random() * (i + 1));
    [order[i], order[j]] = [order[j], order[i]];
  }
  return order;
}
