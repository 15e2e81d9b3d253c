/** Longest a slice of work holds the page, ms: half a frame, so that the other half is the page’s own. */
const SLICE_MS = 8;

const channel = new MessageChannel();
const waiting: (() => void)[] = [];
channel.port1.onmessage = () => waiting.shift()?.();

/** Lets the page do what waits: paint, answer a key or a pointer. */
const aBreath = (): Promise<void> =>
  new Promise((resolve) => {
    waiting.push(resolve);
    channel.port2.postMessage(null);
  });

/** Works through items without ever holding the page longer than half a frame and the longest item. */
export async function inSlices<T>(items: Iterable<T>, work: (item: T) => void): Promise<void> {
  let begun = performance.now();
  for (const item of items) {
    work(item);
    if (performance.now() - begun < SLICE_MS) continue;
    await aBreath();
    begun = performance.now();
  }
}

/** Items in parts of a size, the last one shorter. */
export function parts<T>(items: readonly T[], size: number): T[][] {
  return Array.from({ length: Math.ceil(items.length / size) }, (_, i) =>
    items.slice(i * size, (i + 1) * size),
  );
}
