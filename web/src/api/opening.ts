import type { RouteName } from '@kauri/core/contract';

/** A page that opens waits so long for the server before it shows what was last seen, ms. */
const PATIENCE_MS = 400;
/** A page opens for so long, ms; what is asked later is waited for. */
const OPENS_FOR_MS = 20_000;

/**
 * What may be shown as it was last seen: what a page opens with and takes in anew when the server says otherwise. Other
 * answers are waited for.
 */
const openedWith = new Set<RouteName>([
  'me',
  'catalogue',
  'weather',
  'climate',
  'learnt',
  'site',
  'lotStamps',
  'today',
  'todayBook',
  'seedRoom',
  'rootRules',
  'plan',
  'plantings',
  'holds',
  'parcels',
]);

/** What was last seen, and when, ms since 1970. */
export interface Seen<T> {
  value: T;
  at: number;
}

/** Who says that something is shown as it was last seen, and takes in what came of it. */
export interface Watcher {
  shown: (at: number) => void;
  /** @param changed whether the server answered, and otherwise than was shown */
  over: (name: RouteName, changed: boolean) => void;
}
let watcher: Watcher = { shown: () => undefined, over: () => undefined };
export function onLastSeen(one: Watcher): void {
  watcher = one;
}

/** Once the server took too long, nothing of this opening is waited for that was seen before. */
let isSlow = false;
/**
 * Where the application itself is not kept on the device, it comes by the network anyway, and a page asked for afresh by force
 * is to be fresh.
 */
const mayShow = () => !!navigator.serviceWorker?.controller && performance.now() < OPENS_FOR_MS;

/** What this page asked for already, by address. */
const askedBefore = new Set<string>();
/** Whether the page asks for this for the first time. */
export function isFirstLook(address: string): boolean {
  if (askedBefore.has(address)) return false;
  askedBefore.add(address);
  return true;
}

/**
 * What the server answers or, where that takes longer than a page should take to open, what was last seen: the answer is told
 * of when it is there.
 * @throws as `answered` does, where nothing was shown in its place
 */
export function orLastSeen<T>(name: RouteName, answered: Promise<T>, seen: Seen<T> | null): Promise<T> {
  if (!seen || !openedWith.has(name) || !mayShow()) return answered;
  return new Promise((resolve, reject) => {
    let isShown = false;
    const late = setTimeout(
      () => {
        isSlow = isShown = true;
        watcher.shown(seen.at);
        resolve(seen.value);
      },
      isSlow ? 0 : PATIENCE_MS,
    );
    answered.then(
      (answer) => {
        clearTimeout(late);
        if (isShown) watcher.over(name, JSON.stringify(answer) !== JSON.stringify(seen.value));
        else resolve(answer);
      },
      (error: unknown) => {
        clearTimeout(late);
        if (isShown) watcher.over(name, false);
        else reject(error as Error);
      },
    );
  });
}
