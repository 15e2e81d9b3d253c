import fc from 'fast-check';
import { expect, test } from 'vitest';
import type { PlannedSowing } from '../contract';
import { planChange } from './planChange';

const sowing = (id: string, lineId: string, route: string, from: string, placeId = 'p', trees = 100) =>
  ({
    id,
    lineId,
    speciesId: 's',
    route,
    wanted: { trees },
    stages: [{ from, placeId }],
  }) as unknown as PlannedSowing;

test('a plan says what it leaves, moves, adds and takes out, whatever sowings are called', () => {
  const before = [
    sowing('1', 'a', 'Bed', '2027-03-01'),
    sowing('2', 'b', 'Bed', '2027-03-08'),
    sowing('3', 'c', 'Cells', '2027-04-05'),
  ];
  const after = [
    sowing('4', 'a', 'Bed', '2027-03-01'),
    sowing('5', 'b', 'Bed', '2027-03-15'),
    sowing('6', 'd', 'Bed', '2027-03-15'),
  ];
  const change = planChange(before, after);
  expect(change.same).toBe(1);
  expect(change.moved.map(({ from, to }) => [from.id, to.id])).toEqual([['2', '5']]);
  expect(change.added.map(({ id }) => id)).toEqual(['6']);
  expect(change.gone.map(({ id }) => id)).toEqual(['3']);
});

test('nothing is counted twice, and no change is none', () => {
  const one = fc.record({
    line: fc.constantFrom('a', 'b'),
    route: fc.constantFrom('Bed', 'Cells'),
    week: fc.constantFrom('2027-03-01', '2027-03-08'),
  });
  const list = fc.array(one, { maxLength: 8 });
  const planned = (of: { line: string; route: string; week: string }[], name: string) =>
    of.map(({ line, route, week }, i) => sowing(`${name}${i}`, line, route, week));
  fc.assert(
    fc.property(list, list, (a, b) => {
      const [before, after] = [planned(a, 'a'), planned(b, 'b')];
      const { same, moved, added, gone } = planChange(before, after);
      expect(same + moved.length + added.length).toBe(after.length);
      expect(same + moved.length + gone.length).toBe(before.length);
      expect(planChange(before, planned(a, 'c'))).toEqual({ same: a.length, moved: [], added: [], gone: [] });
    }),
  );
});
