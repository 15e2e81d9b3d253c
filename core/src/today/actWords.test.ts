import { describe, expect, it } from 'vitest';
import { dayOf } from '../calendar/day';
import { shortDate, yearOf } from '../words/dates';
import { actWords } from './actWords';
import { ruleNames, type Act } from './lotActs';

const TODAY = dayOf('2026-11-24');
/** Every figure that any rule writes from, on days about which the reason speaks. */
const figures = (around: number) => ({
  since: around,
  chance: 0.8,
  fill: 0.9,
  half: around + 10,
  from: around - 5,
  until: around + 60,
  seasons: 2,
  last: around - 60,
  fromStart: 0.7,
  plants: 11,
  around,
  lastCount: around - 12,
  chanceReady: 0.6,
  chanceBound: 0.2,
  vigourFromStart: 0.4,
  heightCm: 20,
  headroomCm: 40,
  missed: around - 30,
  next: around + 200,
  share: 0.6,
  harm: 1,
  mediumC: -9,
  limitC: -6,
  airC: -15,
  frozen: 1,
  on: around - 9,
});
const act = (rule: (typeof ruleNames)[number], by: number): Act => ({
  lotId: 'a',
  rule,
  when: 'now',
  by,
  figures: figures(by),
  trees: 400,
});

describe('an act in words', () => {
  it.each(ruleNames)('%s names the lot, a reason, and what waiting costs', (rule) => {
    const words = actWords(act(rule, TODAY + 10), '26-ALN-07', TODAY);
    expect(words.title).toContain('26-ALN-07');
    expect(words.reason).toMatch(/\.$/);
    expect(words.waiting).toMatch(/\.$/);
    expect(JSON.stringify(words)).not.toMatch(/NaN|undefined|Infinity/);
  });
  it.each(ruleNames)('%s carries no day in its title that is past', (rule) => {
    for (const ago of [1, 30, 400]) {
      const { title } = actWords(act(rule, TODAY - ago), '26-ALN-07', TODAY);
      expect(title).not.toContain(shortDate(TODAY - ago, yearOf(TODAY)));
    }
  });
  it('asks for as many heights as its measure run', () => {
    expect(actWords(act('measure', TODAY), 'x', TODAY).waiting).toMatch(/^11 heights/);
  });
});
