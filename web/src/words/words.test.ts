import { dayOf, type Decision, type Status } from '@kauri/core';
import { describe, expect, it } from 'vitest';
import { accountWords, causeWords } from './causes';
import { dateWords, longDate, shortDate } from './dates';
import { decisionWords, statusWords } from './decision';
import { careDoneWords, eventDoneWords, treatedWords } from './growing';
import { count, odds, percent, several } from './numbers';

const view = dayOf('2026-11-24');
const day = (iso: string) => dayOf(iso);

describe('dates in words', () => {
  it('are named as a grower writes them, the year only where it is another', () => {
    expect(longDate(view, 2026)).toBe('Tue 24 Nov');
    expect(longDate(day('2027-03-17'), 2026)).toBe('Wed 17 Mar 2027');
    expect(shortDate(day('2026-12-01'), 2026)).toBe('1 Dec');
    expect(longDate(view + 0.4, 2026)).toBe('Tue 24 Nov');
    expect(longDate(Infinity)).toBe('beyond the forecast');
  });
  it('come from ISO dates, and leave alone what is none', () => {
    expect(dateWords('2026-02-28')).toBe('28 Feb 2026');
    expect(dateWords('soon')).toBe('soon');
  });
});

describe('numbers in words', () => {
  it('group thousands, and agree with what is counted', () => {
    expect(count(1234567)).toBe('1\u202f234\u202f567');
    expect(several(1, 'tree')).toBe('1 tree');
    expect(several(0, 'tree')).toBe('0 trees');
    expect(percent(0.065, 1)).toBe('6.5\u00a0%');
  });
  it('give chances as so many of ten, never a false certainty', () => {
    expect(odds(0.01)).toBe('fewer than 1 of 20');
    expect(odds(0.07)).toBe('1 of 10');
    expect(odds(0.5)).toBe('5 of 10');
    expect(odds(1)).toBe('nearly all');
  });
});

describe('accounts in words', () => {
  it('say where seeds and trees are', () => {
    expect(accountWords('out:not-emerged')).toBe('did not come up');
    expect(accountWords('sown')).toBe('in the ground');
    expect(accountWords('lifted')).toBe('lifted');
    expect(causeWords('sampled')).toBe('pulled to look at roots');
  });
});

const decisions: Decision[] = [
  { kind: 'await-emergence', from: day('2027-04-11'), around: day('2027-04-19'), by: day('2027-05-05') },
  { kind: 'await-emergence', from: day('2026-10-25'), around: day('2026-11-01'), by: day('2026-11-20') },
  { kind: 'await-emergence', from: Infinity, around: Infinity, by: Infinity },
  { kind: 'write-off', since: day('2026-07-16') },
  { kind: 'let-fill', readyAround: day('2027-05-20'), chanceReady: 0.2, bound: Infinity },
  { kind: 'let-fill', readyAround: Infinity, chanceReady: 0, bound: Infinity },
  { kind: 'move-by', holdsSince: day('2026-09-19'), by: day('2027-05-18'), half: day('2027-06-07') },
  { kind: 'move-by', holdsSince: day('2026-09-19'), by: day('2026-11-01'), half: Infinity },
  { kind: 'move-by', holdsSince: day('2026-09-19'), by: Infinity, half: Infinity },
  { kind: 'move-now', boundSince: day('2026-11-06'), chanceBound: 0.97 },
  { kind: 'raise-lid', reached: day('2026-07-02') },
  { kind: 'grow-on', liftFrom: day('2026-12-01'), liftUntil: day('2027-03-28'), rests: true, missed: null },
  { kind: 'grow-on', liftFrom: day('2026-12-01'), liftUntil: Infinity, rests: true, missed: null },
  { kind: 'lift', from: day('2026-11-14'), bestBefore: day('2027-03-17'), until: day('2027-03-28') },
  { kind: 'done' },
];

describe('a decision in words', () => {
  it.each(decisions)('$kind says what to do, and why', (decision) => {
    const { headline, detail, short } = decisionWords(decision, view);
    expect(headline).toMatch(/^[A-Z].*[^.]$/);
    expect(detail).toMatch(/^[A-Z].*\.$/);
    for (const text of [headline, detail, short]) expect(text).not.toMatch(/NaN|undefined|Infinity|null|!/);
  });
  it('has the verb and the date first', () => {
    expect(decisionWords(decisions[6], view).headline).toBe('Move on by Tue 18 May 2027');
    expect(decisionWords(decisions[7], view).headline).toBe('Move it on; pull plugs to be sure');
    expect(decisionWords(decisions[13], view).headline).toBe('Lift between Sat 14 Nov and Sun 28 Mar 2027');
  });
  it('has a word for every status', () => {
    const all: Status[] = [
      'waiting',
      'failed',
      'filling',
      'ready',
      'holding',
      'bound',
      'growing',
      'lift',
      'lifted',
      'ended',
    ];
    expect(new Set(all.map((status) => statusWords[status])).size).toBe(all.length);
  });
});

describe('work done and what happened, in words', () => {
  const show = (value: number, quantity: string) => `${value} ${quantity}`;
  const fed = { on: '2026-05-14', done: { what: 'feed', ratedMonths: 5, gramsPerLitre: 3 } } as const;
  const weeded = { on: '2026-06-01', done: { what: 'weed', how: 'pulled' } } as const;
  const nodules = { on: '2026-06-02', done: { what: 'inoculum', source: 'nodules' } } as const;
  it('groups lots by what may tell in their roots, by the day they were pulled', () => {
    expect(treatedWords([fed, weeded, nodules], '2026-05-20')).toBe('Fed');
    expect(treatedWords([fed, weeded, nodules], '2026-07-01')).toBe('Inoculated, fed');
    expect(treatedWords([weeded], '2026-07-01')).toBe('Nothing written down');
  });
  it('says how much and where', () => {
    expect(careDoneWords(fed.done, show)).toBe('prills for 5 months at 21 temperature, 3 dose');
    expect(careDoneWords({ what: 'water', mm: null }, show)).toBe('watered by hand');
    const deer = { what: 'browsing', hit: 40, dead: 6, patch: 'north end' } as const;
    expect(eventDoneWords(deer)).toBe('browsed: 40 hit, 6 dead, north end');
    expect(eventDoneWords({ ...deer, what: 'recovery', dead: 0 })).toBe('40 recovered, north end');
  });
});

it('a sowing of a fast kind is not looked for before the day it was sown', () => {
  const warm = { from: day('2026-12-04'), around: day('2026-12-05'), by: day('2026-12-06') };
  const say = (view: string) => decisionWords({ kind: 'await-emergence', ...warm }, day(view)).headline;
  expect(say('2026-12-02')).toBe('Wait; look from Fri 4 Dec');
  expect(say('2026-12-04')).toBe('Look for seedlings now');
});
