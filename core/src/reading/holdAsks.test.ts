import { describe, expect, it } from 'vitest';
import { dayOf } from '../calendar/day';
import type { Hold } from '../contract';
import { holdActWords } from '../today/holdAsk';
import { itemsOf } from '../today/todayOf';
import { holdAsks, throughHolds } from './holdAsks';

const hold = (more: Partial<Hold> = {}): Hold => ({
  id: 'h',
  lotId: 'lot',
  code: '26-TCO-09',
  speciesId: 'TCO',
  begunOn: '2026-08-01',
  cause: 'severed layer',
  cover: 'bag',
  count: 10,
  note: '',
  by: 'Isla',
  steps: [],
  ended: null,
  ...more,
});
const step = (on: string, what: Hold['steps'][number]['what']) => ({
  id: on,
  on,
  what,
  note: '',
  by: 'Isla',
});
const asks = (day: string, ...holds: Hold[]) => holdAsks(holds, dayOf(day));

describe('a hold asks Today', () => {
  it('for a look while it is shut, then for a step on each day it is due, and for nothing in between', () => {
    expect(asks('2026-08-03', hold())).toEqual([]);
    const [look] = asks('2026-08-05', hold());
    expect(holdActWords(look, dayOf('2026-08-05')).title).toBe('Look into the hold of 26-TCO-09');
    const open = hold({ steps: [step('2026-08-10', 'flush'), step('2026-08-15', 'flush')] });
    const [first] = asks('2026-08-15', open);
    expect(holdActWords(first, dayOf('2026-08-15')).title).toMatch(/step 1 of 7/);
    const done = hold({ steps: [...open.steps, step('2026-08-16', 'opened')] });
    expect(asks('2026-08-16', done)).toEqual([]);
    expect(asks('2026-08-17', done)).toHaveLength(1);
    expect(itemsOf([], [], dayOf('2026-08-17'), { holds: asks('2026-08-17', done) })[0]).toMatchObject({
      rule: 'humidity-hold',
      of: 'lot',
      subjectId: 'lot',
    });
  });
  it('until it is ended, and not before it began', () => {
    expect(asks('2026-07-20', hold())).toEqual([]);
    expect(asks('2026-09-20', hold({ ended: { on: '2026-09-10', alive: 8 } }))).toEqual([]);
  });
});

it('what came through is compared by why it was held', () => {
  const ended = { on: '2026-09-10', alive: 8 };
  const { groups } = throughHolds([
    hold({ ended }),
    hold({ cause: 'dug in summer', ended: { ...ended, alive: 3 } }),
    hold({ cause: 'dug in summer', speciesId: 'ALN', ended: { ...ended, alive: 10 } }),
    hold(),
  ]);
  expect(groups.map(({ group, alive, dead }) => [group, alive, dead]).sort()).toEqual([
    ['dug in summer', 13, 7],
    ['severed layer', 8, 2],
  ]);
  expect(throughHolds([hold({ ended })], 'ALN').groups).toEqual([]);
});
