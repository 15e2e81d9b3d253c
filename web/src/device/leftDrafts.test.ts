import { beforeEach, describe, expect, it, vi } from 'vitest';
import { forgetTyped, keepTyped } from './leftDrafts';

/** A browser's stores, its tabs and their locks, as far as they matter here. */
class Store {
  [key: string]: unknown;
  getItem(key: string) {
    return Object.hasOwn(this, key) ? (this[key] as string) : null;
  }
  setItem(key: string, value: string) {
    this[key] = value;
  }
  removeItem(key: string) {
    delete this[key];
  }
  clear() {
    for (const key of Object.keys(this)) delete this[key];
  }
}
let shared: Store;
let held: Set<string>;

/** Opens a tab; what it is given is its own store. */
async function openTab(own = new Store()) {
  const handlers = new Map<string, () => void>();
  vi.stubGlobal('sessionStorage', own);
  vi.stubGlobal('localStorage', shared);
  vi.stubGlobal('addEventListener', (kind: string, handler: () => void) => handlers.set(kind, handler));
  vi.stubGlobal('document', { addEventListener: () => undefined, visibilityState: 'visible' });
  vi.stubGlobal('navigator', {
    locks: {
      query: () => Promise.resolve({ held: [...held].map((name) => ({ name })) }),
      request: (name: string) => {
        held.add(name);
        return new Promise(() => undefined);
      },
    },
  });
  await keepTyped();
  const name = own.getItem('kauri.tab')!;
  const here = () => {
    vi.stubGlobal('sessionStorage', own);
    vi.stubGlobal('localStorage', shared);
  };
  return {
    own,
    here,
    close: () => {
      here();
      handlers.get('pagehide')!();
      held.delete(`kauri.tab.${name}`);
    },
  };
}
const SHEET = 'kauri.n1.ada.draft.lot.new';

beforeEach(() => {
  shared = new Store();
  held = new Set();
});

describe('what is half typed', () => {
  it('in a tab that is closed is there in the next one, once', async () => {
    const first = await openTab();
    first.own.setItem(SHEET, 'BED-1');
    first.own.setItem('kauri.n1.ada.id.lot.new', 'an id');
    first.close();
    const second = await openTab();
    expect(second.own.getItem(SHEET)).toBe('BED-1');
    expect(second.own.getItem('kauri.n1.ada.id.lot.new')).toBe('an id');
    expect((await openTab()).own.getItem(SHEET)).toBeNull();
  });
  it('in a tab that is open stays there, though it was put away a while', async () => {
    const first = await openTab();
    first.own.setItem(SHEET, 'BED-1');
    first.close();
    held.add(`kauri.tab.${first.own.getItem('kauri.tab')}`);
    expect((await openTab()).own.getItem(SHEET)).toBeNull();
  });
  it('is kept through a reload by the tab itself, and a copy of a tab is another tab', async () => {
    const first = await openTab();
    first.own.setItem(SHEET, 'BED-1');
    first.close();
    const again = await openTab(first.own);
    expect(again.own.getItem(SHEET)).toBe('BED-1');
    const copy = Object.assign(new Store(), again.own);
    await openTab(copy);
    expect(copy.getItem('kauri.tab')).not.toBe(again.own.getItem('kauri.tab'));
  });
  it('is gone with whoever signs out, and nothing else of the browser’s is left to others', async () => {
    const first = await openTab();
    first.own.setItem(SHEET, 'BED-1');
    first.own.setItem('kauri.n1.ada.batch', 'a choice, no sheet');
    first.close();
    expect(JSON.stringify(shared)).not.toContain('a choice');
    const again = await openTab(first.own);
    again.here();
    forgetTyped();
    again.close();
    expect((await openTab()).own.getItem(SHEET)).toBeNull();
  });
});
