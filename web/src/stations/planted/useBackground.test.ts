import { describe, expect, it, vi } from 'vitest';
import { useBackground, verdictGroups } from './useBackground';

const world = vi.hoisted(() => ({ call: 'accept' }));
// Spanish, say: every sentence of the catalogue is another one.
vi.mock('@kauri/core', async (actual) => ({
  ...(await actual<object>()),
  say: (words: TemplateStringsArray) => `es: ${words.join('')}`,
}));
vi.mock('../../stores/nursery', () => ({ useNursery: () => ({}) }));
vi.mock('../../stores/arrivals', () => ({ useArrivals: () => ({ all: [] }) }));
vi.mock('../../stores/roots', () => ({
  useRoots: () => ({ verdictOf: () => ({ value: { sequential: { pulled: 3, call: world.call } } }) }),
}));

describe('the verdict on roots of planted trees', () => {
  it('is found again by its name, whatever language it is said in', () => {
    const { rootsOf } = useBackground();
    for (const call of ['accept', 'reject', 'pull'] as const) {
      world.call = call;
      expect(rootsOf('a lot')).toBe(verdictGroups()[call]);
      expect(rootsOf('a lot')).toMatch(/^es: /);
    }
  });
});
