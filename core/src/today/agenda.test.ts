import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { agendaOf, restUntil, type ActMark, type AgendaItem, type Tuning } from './agenda';
import { ruleTerms, todayRules } from './rules';
import { minutesFor, startingRates, workKinds, workRates } from './work';

const rates = workRates([]);
const item = (more: Partial<AgendaItem> = {}): AgendaItem => ({
  rule: 'hold-ends',
  subjectId: 'lot-1',
  when: 'weeks',
  by: 120,
  figures: {},
  trees: 500,
  ...more,
});
const mark = (more: Partial<ActMark> = {}): ActMark => ({
  id: 'm1',
  rule: 'hold-ends',
  subjectId: 'lot-1',
  mark: 'done',
  on: 100,
  until: 121,
  reason: '',
  minutes: null,
  trees: 500,
  assignedTo: null,
  ...more,
});
const on = (items: AgendaItem[], marks: ActMark[] = [], tuning: Tuning = {}, day = 100) =>
  agendaOf(items, marks, tuning, rates, day);

describe('the agenda of a day', () => {
  it('puts the soonest first, then what saves most trees an hour', () => {
    const small = item({ subjectId: 'small', rule: 'measure', when: 'week', trees: 20 });
    const big = item({
      subjectId: 'big',
      rule: 'root-bound',
      when: 'week',
      trees: 900,
      figures: { chance: 0.9 },
    });
    const now = item({ subjectId: 'now', rule: 'measure', when: 'now', trees: 1 });
    const { lines } = on([small, big, now]);
    expect(lines.map((l) => l.item.subjectId)).toEqual(['now', 'big', 'small']);
    expect(lines[1].loss).toBeCloseTo(900 * (0.05 + 0.25 * 0.9));
    expect(lines[1].minutes).toBeCloseTo(20 + 0.5 * 900);
    expect(lines[1].lossPerHour).toBeCloseTo((lines[1].loss / lines[1].minutes) * 60);
  });
  it('hides what was done until its rule may ask again, and shows it then', () => {
    const done = mark({ until: restUntil('hold-ends', 100) });
    expect(on([item()], [done]).lines).toHaveLength(0);
    expect(on([item()], [done]).hidden[0].mark.id).toBe('m1');
    expect(on([item()], [done], {}, 100 + ruleTerms['hold-ends'].rest).lines).toHaveLength(1);
  });
  it('asks again from the day a skipped act was put off to, and knows nothing of a mark still to come', () => {
    const skipped = mark({ mark: 'skipped', until: 105, reason: 'no hands' });
    expect(on([item()], [skipped], {}, 104).lines).toHaveLength(0);
    expect(on([item()], [skipped], {}, 105).lines).toHaveLength(1);
    expect(on([item()], [skipped], {}, 99).lines).toHaveLength(1);
  });
  it('says whose an act is, until it is done', () => {
    const given = mark({ id: 'm0', mark: 'assigned', on: 98, until: 463, assignedTo: 'kit' });
    expect(on([item()], [given]).lines[0].assigned?.assignedTo).toBe('kit');
    const again = on([item()], [given, mark({ on: 99, until: 100 })]).lines[0];
    expect(again.assigned).toBeNull();
  });
  it('marks one lot and leaves the others alone', () => {
    const lines = on([item(), item({ subjectId: 'lot-2' })], [mark()]).lines;
    expect(lines.map((l) => l.item.subjectId)).toEqual(['lot-2']);
  });
  it('mutes a rule, and brings another up as many days sooner as is wanted', () => {
    const muted = on([item(), item({ rule: 'measure' })], [], { measure: { muted: true, leadDays: 0 } });
    expect(muted.lines.map((l) => l.item.rule)).toEqual(['hold-ends']);
    expect(muted.muted).toBe(1);
    const early = (leadDays: number) =>
      on([item()], [], { 'hold-ends': { muted: false, leadDays } }).lines[0].when;
    expect([0, 13, 20].map(early)).toEqual(['weeks', 'week', 'now']);
    // An act without a last day cannot come earlier, and none comes later than it would.
    expect(on([item({ by: null })], [], { 'hold-ends': { muted: false, leadDays: 90 } }).lines[0].when).toBe(
      'weeks',
    );
    expect(
      on([item({ when: 'now' })], [], { 'hold-ends': { muted: false, leadDays: 3 } }).lines[0].when,
    ).toBe('now');
  });
  it('shows, hides or mutes every act exactly once, whatever is marked', () => {
    const items = fc.array(
      fc.record({
        rule: fc.constantFrom(...todayRules),
        subjectId: fc.constantFrom('a', 'b', null),
        when: fc.constantFrom('now' as const, 'week' as const, 'weeks' as const, 'watch' as const),
        by: fc.option(fc.integer({ min: 80, max: 140 })),
        figures: fc.constant({ chance: 0.4, seasons: 1 }),
        trees: fc.nat(5000),
      }),
      { maxLength: 20 },
    );
    const marks = fc.array(
      fc.record({
        id: fc.uuid(),
        rule: fc.constantFrom(...todayRules),
        subjectId: fc.constantFrom('a', 'b', null),
        mark: fc.constantFrom('done' as const, 'skipped' as const, 'assigned' as const),
        on: fc.integer({ min: 90, max: 110 }),
        until: fc.integer({ min: 91, max: 130 }),
        reason: fc.constant(''),
        minutes: fc.constant(null),
        trees: fc.constant(0),
        assignedTo: fc.constant('x'),
      }),
      { maxLength: 12 },
    );
    fc.assert(
      fc.property(items, marks, (these, done) => {
        const { lines, hidden, muted } = on(these, done, { lift: { muted: true, leadDays: 0 } });
        expect(lines.length + hidden.length + muted).toBe(these.length);
        for (const line of lines) {
          expect(line.loss).toBeGreaterThanOrEqual(0);
          expect(line.minutes).toBeGreaterThan(0);
        }
      }),
    );
  });
});

describe('rates of work', () => {
  it('start as given and move towards what was written down', () => {
    expect(rates.move).toMatchObject({ ...startingRates.move, factor: 1, times: 0, startingShare: 1 });
    const expected = minutesFor(startingRates.move, 1000);
    const slow = workRates([{ work: 'move', trees: 1000, minutes: 2 * expected }]);
    expect(slow.move.factor).toBeCloseTo((60 + 2 * expected) / (60 + expected));
    expect(slow.lift.factor).toBe(1);
    const many = workRates(
      Array.from({ length: 60 }, () => ({ work: 'move' as const, trees: 1000, minutes: 2 * expected })),
    );
    expect(many.move.factor).toBeCloseTo(2, 2);
    expect(many.move.startingShare).toBeLessThan(0.01);
  });
  it('have a starting value for every kind of work a rule asks for, and refuse a time of none', () => {
    for (const rule of todayRules) expect(workKinds).toContain(ruleTerms[rule].work);
    expect(() => workRates([{ work: 'look', trees: 0, minutes: 0 }])).toThrow(/above 0/);
  });
});
