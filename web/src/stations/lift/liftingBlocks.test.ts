import { expect, it } from 'vitest';
import { blocksByDay } from './liftingBlocks';

it('a crumb at the end of a day is done with the lot’s block beside it; a short lot keeps its own', () => {
  const byDay = blocksByDay([
    { day: 1, id: 'a', hours: 6 },
    { day: 1, id: 'b', hours: 0.1 },
    { day: 2, id: 'b', hours: 3.6 },
    { day: 2, id: 'c', hours: 0.2 },
    { day: 2, id: 'd', hours: 8 },
    { day: 3, id: 'd', hours: 0.05 },
  ]);
  expect([...byDay.keys()]).toEqual([1, 2]);
  expect(byDay.get(1)).toEqual([{ day: 1, id: 'a', hours: 6 }]);
  expect(byDay.get(2)!.map(({ id, hours }) => [id, hours])).toEqual([
    ['b', 3.7],
    ['c', 0.2],
    ['d', 8.05],
  ]);
});
