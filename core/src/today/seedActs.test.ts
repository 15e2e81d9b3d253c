import { describe, expect, it } from 'vitest';
import { batchActs, emergenceActs, layerActs, storeActs } from './seedActs';
import type { TreatmentClock } from '../seed/treatmentClock';

const clock = (more: Partial<TreatmentClock> = {}): TreatmentClock => ({
  asOf: 100,
  phases: [],
  ready: { p10: 190, p50: 200, p90: 210 },
  readyNow: 0,
  lastToSow: { p10: 230, p50: 240, p90: 250 },
  chilled: { days: 20, of: 45, dormancy: 0.6 },
  surprising: false,
  radiclesNow: 0,
  weeks: [{ until: 107, chance: 0.2 }],
  nextCheck: 150,
  radiclesSeenOn: null,
  ...more,
});

describe('what a batch asks for', () => {
  it('is sowing at once when radicles are out, whatever else', () => {
    const [act] = batchActs('b', clock({ radiclesSeenOn: 98, ready: { p10: 300, p50: 300, p90: 300 } }));
    expect(act).toMatchObject({ rule: 'radicles-out', when: 'now', by: 102 });
  });
  it('is sowing when ready, a look when one is due, else nothing', () => {
    expect(batchActs('b', clock({ ready: { p10: 90, p50: 95, p90: 99 } }))[0]).toMatchObject({
      rule: 'sow-batch',
      when: 'now',
    });
    expect(batchActs('b', clock({ nextCheck: 105 }))[0]).toMatchObject({ rule: 'check-batch', when: 'week' });
    expect(batchActs('b', clock())).toEqual([]);
  });
  it('is no look where nothing shows in a hundred forecasts', () => {
    const weeks = [{ chance: 0.004 }] as never;
    expect(batchActs('b', clock({ nextCheck: 105, weeks }))).toEqual([]);
  });
});

describe('what a bag asks for', () => {
  const now = { mean: 0.4, p10: 0.2, p90: 0.6, beta: { alpha: 4, beta: 6 } };
  it('is a test when one is due, a warning when likely dead, nothing when empty or young', () => {
    expect(storeActs('s', { now, deadOn: 500, retestOn: 90, tested: true }, 50, 100)[0]).toMatchObject({
      rule: 'retest',
      when: 'week',
    });
    expect(storeActs('s', { now, deadOn: 80, retestOn: 90, tested: true }, 50, 100)[0].rule).toBe(
      'likely-dead',
    );
    expect(storeActs('s', { now, deadOn: 500, retestOn: 90, tested: true }, 0, 100)).toEqual([]);
    expect(storeActs('s', { now, deadOn: 500, retestOn: 300, tested: true }, 50, 100)).toEqual([]);
    // A bag just received was never tested, and nothing about it is late.
    expect(storeActs('s', { now, deadOn: 500, retestOn: 100, tested: false }, 50, 100)[0].when).toBe('weeks');
  });
});

describe('what a layer asks for', () => {
  const outlook = {
    good: { from: 0, to: 90 },
    season: 'good' as const,
    rooted: { p10: 150, p50: 170, p90: 200 },
    severBy: 220,
    window: { from: 200, by: 220, keptOn: false },
    firstFrost: { p10: 250, p50: 262, p90: 270 },
    chanceInTime: 0.95,
    potL: 5,
  };
  it('is severing once many roots show, or few near the last day', () => {
    expect(layerActs('l', outlook, 140, 'many', 160)[0]).toMatchObject({
      rule: 'sever',
      when: 'weeks',
      by: 220,
    });
    expect(layerActs('l', outlook, 190, 'few', 220)[0]).toMatchObject({ rule: 'sever', when: 'now' });
  });
  it('is never severing where roots are not there nine times in ten by the last day, unless they were seen', () => {
    const late = { ...outlook, chanceInTime: 0.3, window: { from: 480, by: 585, keptOn: true } };
    for (const roots of ['none', 'few'] as const)
      for (const today of [160, 219, 230])
        expect(layerActs('l', late, 190, roots, today)[0]).toMatchObject({ rule: 'keep-on' });
    expect(layerActs('l', late, 190, 'none', 219)[0].when).toBe('weeks');
    expect(layerActs('l', late, 190, 'many', 200)[0]).toMatchObject({ rule: 'sever' });
  });
  it('is keeping on over winter once it is too late', () => {
    // Told while it can still be wrapped before frost, then only watched.
    expect(layerActs('l', outlook, 190, 'many', 221)[0]).toMatchObject({ rule: 'keep-on', when: 'weeks' });
    expect(layerActs('l', outlook, 190, 'many', 300)[0]).toMatchObject({ rule: 'keep-on', when: 'watch' });
  });
  it('is a look from when roots may show, four weeks apart', () => {
    expect(layerActs('l', outlook, 100, 'none', 100)).toEqual([]);
    expect(layerActs('l', outlook, 100, 'none', 145)[0]).toMatchObject({
      rule: 'look-layer',
      when: 'week',
      by: 150,
    });
    expect(layerActs('l', outlook, 150, 'few', 155)[0]).toMatchObject({ rule: 'look-layer', by: 178 });
  });
});

describe('what a sown lot asks for', () => {
  const outlook = (late: boolean) => ({
    late,
    upNow: 3,
    expectedNow: 160.4,
    final: { p10: 20, p50: 90, p90: 240 },
  });
  it('is a look when it is late, with what is up and what was to be expected; nothing in time', () => {
    expect(emergenceActs('lot', outlook(true))).toEqual([
      {
        part: 'up',
        subjectId: 'lot',
        rule: 'late-up',
        when: 'week',
        by: null,
        figures: { up: 3, expected: 160.4, final: 90 },
      },
    ]);
    expect(emergenceActs('lot', outlook(false))).toEqual([]);
  });
});
