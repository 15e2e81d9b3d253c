import { describe, expect, it } from 'vitest';
import { gathered } from './others';

describe('writes that came together', () => {
  it('are of all their areas, and about all their lots', () => {
    const news = gathered([
      { area: 'lots', lots: ['a', 'b'], page: 'p' },
      { area: 'today', lots: [], page: null },
      { area: 'lots', lots: ['b', 'c'], page: null },
    ]);
    expect([...news.areas!]).toEqual(['lots', 'today']);
    expect([...news.lots!]).toEqual(['a', 'b', 'c']);
  });

  it('may be anything where one of them may', () => {
    expect(
      gathered([
        { area: 'lots', lots: ['a'], page: null },
        { area: 'seed', lots: null, page: null },
      ]),
    ).toEqual({ areas: new Set(['lots', 'seed']), lots: null });
    expect(gathered([{ area: null, lots: null, page: null }]).areas).toBeNull();
  });
});
