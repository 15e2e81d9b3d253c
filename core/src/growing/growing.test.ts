import type { Home } from '../home/home';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { outCauses } from '../ledger/ledger';
import { canopyCover, meetingHeightCm, neighbourMm } from './canopy';
import { carriesNodules } from './care';
import { causeOfEvent, eventKinds, shareOverLots } from './events';

describe('an event over the lots of a bed', () => {
  it('is shared by what stands in each, in whole trees', () => {
    const lots = [
      { lotId: 'a', standing: 300 },
      { lotId: 'b', standing: 100 },
      { lotId: 'c', standing: 0 },
    ];
    expect(shareOverLots(lots, 50, 10)).toEqual([
      { lotId: 'a', hit: 38, dead: 8 },
      { lotId: 'b', hit: 12, dead: 2 },
      { lotId: 'c', hit: 0, dead: 0 },
    ]);
  });
  it('comes to what was counted, and gives no lot more than stands in it', () => {
    fc.assert(
      fc.property(
        fc.array(fc.nat(2000), { minLength: 1, maxLength: 9 }),
        fc.nat(),
        fc.nat(),
        (held, h, d) => {
          const all = held.reduce((t, n) => t + n, 0);
          const hit = all ? h % (all + 1) : 0;
          const dead = hit ? d % (hit + 1) : 0;
          const shares = shareOverLots(
            held.map((standing, i) => ({ lotId: String(i), standing })),
            hit,
            dead,
          );
          expect(shares.reduce((t, s) => t + s.hit, 0)).toBe(hit);
          expect(shares.reduce((t, s) => t + s.dead, 0)).toBe(dead);
          shares.forEach((s, i) => {
            expect(s.hit).toBeLessThanOrEqual(held[i]);
            expect(s.dead).toBeLessThanOrEqual(s.hit);
          });
        },
      ),
    );
  });
  it('refuses more than stand there', () => {
    expect(() => shareOverLots([{ lotId: 'a', standing: 5 }], 6, 0)).toThrow(/only 5 stand/);
    expect(() => shareOverLots([{ lotId: 'a', standing: 5 }], 3, 4)).toThrow(/died/);
  });
  it('names a cause the ledger knows for each kind that kills', () => {
    for (const kind of eventKinds)
      if (causeOfEvent[kind] !== null) expect(outCauses).toContain(causeOfEvent[kind]);
    expect(causeOfEvent.recovery).toBeNull();
  });
});

describe('nodules', () => {
  it.each([
    ['Alnus glutinosa', true],
    ['Hippophae rhamnoides', true],
    ['Robinia pseudoacacia', true],
    ['Gleditsia triacanthos', false],
    ['Betula pendula', false],
  ])('%s: %s', (latin, expected) => expect(carriesNodules(latin)).toBe(expected));
});

describe('leaves that meet', () => {
  const bed: Home = { kind: 'bed', densityPerM2: 100, settledDepthMm: 240, airShare: 0.5, headroomCm: null };
  const tube: Home = {
    kind: 'container',
    name: 'Tube',
    cellMl: 150,
    depthMm: 165,
    airShare: 0.3,
    pitchMm: 50,
    spaceable: true,
  };
  it('do so when crowns are as wide as neighbours are apart', () => {
    expect(neighbourMm(bed)).toBe(100);
    expect(meetingHeightCm({ leaf: 'deciduous' }, bed)).toBe(20);
    expect(meetingHeightCm({ leaf: 'evergreen' }, bed)).toBeCloseTo(28.57, 2);
    expect(meetingHeightCm({ leaf: 'deciduous' }, tube)).toBe(10);
  });
  it('do so later in cells set apart, unless the cells are one block', () => {
    expect(meetingHeightCm({ leaf: 'deciduous' }, tube, 4)).toBe(20);
    expect(meetingHeightCm({ leaf: 'deciduous' }, { ...tube, spaceable: false }, 4)).toBe(10);
  });
  it('is not said of an open flat', () => {
    expect(meetingHeightCm({ leaf: 'deciduous' }, { ...tube, pitchMm: null })).toBeNull();
  });
  it('cover all the ground then, and a quarter at half the height', () => {
    expect(canopyCover({ leaf: 'deciduous' }, bed, 1, 20)).toBe(1);
    expect(canopyCover({ leaf: 'deciduous' }, bed, 1, 10)).toBeCloseTo(0.25);
    expect(canopyCover({ leaf: 'deciduous' }, bed, 1, 60)).toBe(1);
  });
});
