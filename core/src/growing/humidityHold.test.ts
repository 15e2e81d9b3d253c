import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { holdNoteNames, holdState, LIGHT_STEPS, mustBeStep, OPENINGS, type HoldStep } from './humidityHold';

const BEGUN = 20_000;
const at = (day: number, what: HoldStep['what']): HoldStep => ({ on: BEGUN + day, what });
const openings = (from: number) => Array.from({ length: OPENINGS }, (_, i) => at(from + i, 'opened'));

describe('a hold in humid air', () => {
  it('stays shut until two flushes, or one and three weeks', () => {
    expect(holdState(BEGUN, [], BEGUN + 10)).toMatchObject({
      phase: 'shut',
      next: { what: 'look', on: BEGUN + 4 },
    });
    expect(holdState(BEGUN, [at(8, 'flush')], BEGUN + 10).phase).toBe('shut');
    expect(holdState(BEGUN, [at(8, 'flush')], BEGUN + 21).phase).toBe('opening');
    expect(holdState(BEGUN, [at(8, 'flush'), at(14, 'flush')], BEGUN + 14).phase).toBe('opening');
    expect(holdState(BEGUN, [], BEGUN + 60).phase).toBe('shut');
  });
  it('opens a step a day, seven times, then goes to the light in three', () => {
    const gate = [at(8, 'flush'), at(14, 'flush')];
    const half = holdState(BEGUN, [...gate, at(15, 'opened'), at(16, 'opened')], BEGUN + 16);
    expect(half).toMatchObject({ phase: 'opening', opened: 2, next: { what: 'open', on: BEGUN + 17 } });
    const open = [...gate, ...openings(15)];
    expect(holdState(BEGUN, open, BEGUN + 22)).toMatchObject({ phase: 'light', next: { on: BEGUN + 24 } });
    const through = [...open, at(24, 'light'), at(27, 'light'), at(30, 'light')];
    expect(holdState(BEGUN, through, BEGUN + 30)).toMatchObject({ phase: 'through', light: LIGHT_STEPS });
  });
  it('goes back a step where they wilt, of the light first, and rests a day', () => {
    const gate = [at(8, 'flush'), at(14, 'flush')];
    const wilted = holdState(
      BEGUN,
      [...gate, at(15, 'opened'), at(16, 'opened'), at(17, 'wilted')],
      BEGUN + 17,
    );
    expect(wilted).toMatchObject({ opened: 1, wilted: true, next: { on: BEGUN + 19 } });
    const lit = holdState(BEGUN, [...gate, ...openings(15), at(24, 'light'), at(25, 'wilted')], BEGUN + 25);
    expect(lit).toMatchObject({ phase: 'light', opened: OPENINGS, light: 0 });
  });
  it('leaves seen meanwhile do not put a step off, and shut again by wilting it rests all the same', () => {
    const gate = [at(8, 'flush'), at(14, 'flush')];
    const steps = [...gate, at(15, 'opened'), at(16, 'flush')];
    expect(holdState(BEGUN, steps, BEGUN + 16).next.on).toBe(BEGUN + 16);
    const shut = holdState(BEGUN, [...gate, at(15, 'opened'), at(16, 'wilted')], BEGUN + 16);
    expect(shut).toMatchObject({ phase: 'opening', opened: 0, next: { on: BEGUN + 18 } });
  });
  it('refuses steps out of turn, with a sentence', () => {
    const gate = [at(8, 'flush'), at(14, 'flush')];
    const refused = (steps: HoldStep[], step: HoldStep, said: RegExp) =>
      expect(() => mustBeStep(BEGUN, steps, step)).toThrow(said);
    refused([], at(5, 'opened'), /two flushes/);
    refused(gate, at(15, 'light'), /quite open/);
    refused([...gate, at(15, 'opened')], at(15, 'opened'), /One step a day/);
    refused([...gate, ...openings(15)], at(23, 'opened'), /quite open already/);
    refused([], { on: BEGUN - 1, what: 'flush' }, /before the hold began/);
    expect(() => mustBeStep(BEGUN, gate, at(15, 'opened'))).not.toThrow();
    expect(() => mustBeStep(BEGUN, [], at(2, 'wilted'))).not.toThrow();
  });
  it('whatever is noted, in any order, it never is more open than it can be, nor less than shut', () => {
    const step = fc.record({
      on: fc.integer({ min: BEGUN, max: BEGUN + 60 }),
      what: fc.constantFrom(...holdNoteNames),
    });
    fc.assert(
      fc.property(fc.array(step, { maxLength: 40 }), (steps) => {
        const state = holdState(BEGUN, steps, BEGUN + 60);
        expect(state.opened).toBeGreaterThanOrEqual(0);
        expect(state.opened).toBeLessThanOrEqual(OPENINGS);
        expect(state.light).toBeLessThanOrEqual(LIGHT_STEPS);
        // By the day only: what comes later does not count.
        expect(holdState(BEGUN, steps, BEGUN - 1)).toMatchObject({ phase: 'shut', flushes: 0 });
      }),
    );
  });
});
