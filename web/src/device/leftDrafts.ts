/*
 * What is half typed lives in its tab's own store, so that two tabs never type into each other's sheets. A tab
 * that is closed, or a phone's browser that is put away, leaves it here; the next tab takes up what a tab that
 * is gone has left. Keys bear person and nursery: nobody is shown another's.
 */
const TAB = 'kauri.tab';
const LEFT = 'kauri.left.';
/** What is typed is left once the keys rest, ms. */
const QUIET_MS = 400;
/** Sheets, and the ids they would be kept under. */
const isTyped = (key: string) => /^kauri\..*\.(draft|id)\./.test(key);

const typedHere = (): [string, string][] =>
  Object.keys(sessionStorage)
    .filter(isTyped)
    .map((key) => [key, sessionStorage.getItem(key)!]);

/** The tabs that are open now, by the lock each holds while it lives. */
async function openTabs(): Promise<Set<string>> {
  const { held = [] } = await navigator.locks.query();
  return new Set(held.map(({ name }) => name!));
}

/** Takes up what tabs that are gone left half typed, and leaves what is typed here when this one goes. */
export async function keepTyped(): Promise<void> {
  // An old browser keeps what is typed through a reload, as ever.
  if (!('locks' in navigator)) return;
  let tab = sessionStorage.getItem(TAB);
  const open = await openTabs();
  // A tab that was duplicated has the other's name as well as its store.
  if (tab === null || open.has(`${TAB}.${tab}`)) {
    const isNew = tab === null;
    tab = crypto.randomUUID();
    sessionStorage.setItem(TAB, tab);
    if (isNew) takeUp(open);
  }
  localStorage.removeItem(LEFT + tab);
  void navigator.locks.request(`${TAB}.${tab}`, () => new Promise(() => undefined));
  const leave = () => {
    const typed = typedHere();
    if (typed.length) localStorage.setItem(LEFT + tab, JSON.stringify(typed));
    else localStorage.removeItem(LEFT + tab);
  };
  addEventListener('pagehide', leave);
  // A browser that is killed says no goodbye.
  let due: ReturnType<typeof setTimeout> | undefined;
  addEventListener('input', () => {
    clearTimeout(due);
    due = setTimeout(leave, QUIET_MS);
  });
  document.addEventListener('visibilitychange', () => document.visibilityState === 'hidden' && leave());
}

function takeUp(open: Set<string>): void {
  const left = Object.keys(localStorage).filter(
    (key) => key.startsWith(LEFT) && !open.has(`${TAB}.${key.slice(LEFT.length)}`),
  );
  for (const key of left) {
    for (const [name, value] of JSON.parse(localStorage.getItem(key)!) as [string, string][])
      // Of two tabs that are gone, the sheet with more typed into it: one that was only opened left a blank.
      if ((sessionStorage.getItem(name) ?? '').length < value.length) sessionStorage.setItem(name, value);
    localStorage.removeItem(key);
  }
}

/** Nothing that was half typed here is left for whoever sits down next. */
export function forgetTyped(): void {
  const tab = sessionStorage.getItem(TAB);
  sessionStorage.clear();
  if (tab === null) return;
  sessionStorage.setItem(TAB, tab);
  localStorage.removeItem(LEFT + tab);
}
