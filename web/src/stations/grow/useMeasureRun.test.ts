import { beforeEach, describe, expect, it, vi } from 'vitest';
import { ref } from 'vue';
import type { ShownLot } from '../../parts/useLots';
import { useMeasureRun, type RunDraft } from './useMeasureRun';

const { evidence, units } = vi.hoisted(() => ({ evidence: new Map(), units: { inches: false } }));
vi.mock('../../stores/nursery', () => ({ useNursery: () => ({ evidence }) }));
vi.mock('../../stores/preferences', () => ({
  usePreferences: () => {
    const by = (what: string) => (units.inches ? (what === 'height' ? 2.54 : 25.4) : 1);
    return {
      shown: (value: number, what: string) => value / by(what),
      typed: (value: number, what: string) => value * by(what),
      show: (value: number, what: string, digits = 0) => (value / by(what)).toFixed(digits),
    };
  },
}));

const band = (p50: number) => ({ p10: p50 * 0.7, p50, p90: p50 * 1.3 });
const lot = {
  row: { id: 'lot-1' },
  view: { forecast: { state: { heightCm: band(30), diameterMm: band(4) } } },
} as unknown as ShownLot;
const begin = (mode: RunDraft['mode'] = 'height', heightsCm: number[] = [], diametersMm: number[] = []) => {
  const draft = ref<RunDraft>({ mode, heightsCm: [...heightsCm], diametersMm: [...diametersMm] });
  return { draft, run: useMeasureRun(() => lot, draft) };
};
const type = (run: ReturnType<typeof useMeasureRun>, value: string) => {
  run.typed.value = value;
  run.add();
};
beforeEach(() => {
  evidence.clear();
  units.inches = false;
});

describe('a measure run', () => {
  it('takes height and collar by turns, plant by plant', () => {
    const { draft, run } = begin('both');
    for (const value of ['30', '4', '31', '4.2']) type(run, value);
    expect(draft.value).toMatchObject({ heightsCm: [30, 31], diametersMm: [4, 4.2] });
    expect([run.next.value, run.plant.value]).toEqual(['height', 3]);
  });
  it('keeps centimetres and millimetres of what was typed in inches', () => {
    units.inches = true;
    const { draft, run } = begin('both');
    type(run, '12');
    type(run, '0.16');
    expect(draft.value).toMatchObject({ heightsCm: [30.48], diametersMm: [4.06] });
  });
  it.each(['', 'thirty', '0', '-3', '99999'])(
    'does not take “%s”, says why, and forgets the fault after a good one',
    (value) => {
      const { draft, run } = begin();
      type(run, value);
      expect(draft.value.heightsCm).toEqual([]);
      expect(run.fault.value).toContain(`“${value}” was not taken`);
      type(run, '30');
      expect(run.fault.value).toBeNull();
    },
  );
  it('asks about a value far from the others; kept, it is in, or typed again, it is not', () => {
    const { draft, run } = begin('height', [30, 31, 29, 30, 32]);
    type(run, '300');
    expect(draft.value.heightsCm).toHaveLength(5);
    expect(run.askWords.value).toMatch(/300.0 is far from the others/);
    run.again();
    expect(run.asking.value).toBeNull();
    type(run, '60');
    run.add();
    expect(draft.value.heightsCm.at(-1)).toBe(60);
    expect(run.asking.value).toBeNull();
  });
  it('asks about a first value far from what is forecast', () => {
    const { run } = begin();
    type(run, '3');
    expect(run.askWords.value).toMatch(/far from what is forecast, about 30/);
  });
  it('puts the last value back to be typed anew', () => {
    const { draft, run } = begin('both', [30, 31], [4]);
    run.fixLast();
    expect(run.typed.value).toBe('31');
    expect(draft.value.heightsCm).toEqual([30]);
  });
  it.each([
    ['31 32 35 30', [31, 32, 35, 30]],
    ['31,5\n32\r\n35;30', [31.5, 32, 35, 30]],
    ['31, 32,  35', [31, 32, 35]],
  ])('takes several values given together: “%s”', (text, heights) => {
    const { draft, run } = begin();
    type(run, text);
    expect(draft.value.heightsCm).toEqual(heights);
    expect([run.typed.value, run.fault.value]).toEqual(['', null]);
  });
  it('takes rows of two columns plant by plant, and a single value as it is pasted', () => {
    const { draft, run } = begin('both');
    expect(run.paste('30\t4\n31\t4.2\n')).toBe(true);
    expect(draft.value).toMatchObject({ heightsCm: [30, 31], diametersMm: [4, 4.2] });
    expect(run.paste('32')).toBe(false);
    expect(run.paste('')).toBe(false);
  });
  it('takes none of several where one cannot be read, says which, and loses nothing', () => {
    const { draft, run } = begin();
    expect(run.paste('31\nfew\n33')).toBe(true);
    expect(draft.value.heightsCm).toEqual([]);
    expect(run.fault.value).toContain('“few” was not taken. None of the 3 values was.');
    expect(run.typed.value).toBe('31 few 33');
    type(run, '31 32 33');
    expect(draft.value.heightsCm).toEqual([31, 32, 33]);
    expect(run.fault.value).toBeNull();
  });
  it('lets the others wait for one that is asked about, and puts what is typed anew in its place', () => {
    const { draft, run } = begin('height', [30, 31, 29, 30, 32]);
    type(run, '31 300 33');
    expect(draft.value.heightsCm.at(-1)).toBe(31);
    expect([run.asking.value?.value, run.waiting.value]).toEqual([300, [33]]);
    run.again();
    type(run, '30');
    expect(draft.value.heightsCm.slice(-3)).toEqual([31, 30, 33]);
    type(run, '310 32');
    run.keep();
    expect(draft.value.heightsCm.slice(-2)).toEqual([310, 32]);
    type(run, '300 31');
    run.again();
    run.leaveOut();
    type(run, '29');
    expect(draft.value.heightsCm.at(-1)).toBe(29);
  });
  it('asks about a lot that measures smaller than it did', () => {
    evidence.set('lot-1', { sizes: [{ what: 'height', on: '2026-09-01', n: 12, mean: 40, sd: 3 }] });
    expect(begin('height', [20, 21, 22]).run.shrank.value).toMatch(/They stand lower than on/);
    expect(begin('height', [39, 41, 42]).run.shrank.value).toBeNull();
    expect(begin('height', [20]).run.shrank.value).toBeNull();
  });
});
