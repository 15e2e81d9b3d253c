import { describe, expect, it } from 'vitest';
import { firstSteps, isBegun, type Begun } from './firstHour';

const empty: Begun = {
  where: 'Nowhere',
  weatherDays: 0,
  places: 0,
  lot: null,
  counted: false,
  people: 1,
  owns: true,
};
const open = (begun: Partial<Begun>) =>
  firstSteps({ ...empty, ...begun })
    .filter(({ done }) => !done)
    .map(({ key }) => key);

describe('the first hour', () => {
  it('is ticked by what is there, step by step', () => {
    expect(open({})).toEqual(['weather', 'places', 'sow', 'count', 'people']);
    expect(open({ places: 1 })).toEqual(['weather', 'sow', 'count', 'people']);
    expect(open({ places: 1, lot: 'x', counted: true, weatherDays: 300, people: 2 })).toEqual([]);
  });
  it('leads nowhere before there is something to do it on', () => {
    const to = (begun: Partial<Begun>, key: string) =>
      firstSteps({ ...empty, ...begun }).find((step) => step.key === key)!.to;
    expect(to({}, 'sow')).toBeNull();
    expect(to({ places: 1 }, 'sow')).toEqual({ name: 'grow', query: { new: '1' } });
    expect(to({ places: 1 }, 'count')).toBeNull();
    expect(to({ lot: 'x' }, 'count')).toMatchObject({ params: { lot: 'x' }, query: { do: 'count' } });
  });
  it('is over without weather or a crew, and asks nobody to invite who may not', () => {
    expect(isBegun(firstSteps({ ...empty, places: 1, lot: 'x', counted: true }))).toBe(true);
    expect(isBegun(firstSteps({ ...empty, places: 1, lot: 'x' }))).toBe(false);
    expect(open({ owns: false })).not.toContain('people');
  });
});
