import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { startingContainers } from '../container/startingContainers';
import type { Account, Movement } from '../ledger/ledger';
import {
  learntShares,
  shareLearnt,
  stageKindOf,
  stageOutcomes,
  stageShare,
  workOfStage,
  type RaisedLot,
} from './raisingLearnt';

const moved = (day: number, from: Account, to: Account, count: number): Movement => ({
  day,
  from,
  to,
  count,
});
const up = (day: number, count: number) => moved(day, 'sown', 'standing', count);
const out = (day: number, cause: string, count: number) =>
  moved(day, 'standing', `out:${cause}` as Account, count);
const inCells: RaisedLot['spells'] = [{ kind: 'cells', from: 0 }];

describe('what a lot says of a home', () => {
  it('is nothing while it stands there, and all of it once it is empty', () => {
    const standing = [up(20, 100), out(30, 'died', 8), moved(200, 'standing', 'lifted', 80)];
    expect(stageOutcomes({ speciesId: 'a', spells: inCells, movements: standing })).toEqual([]);
    const done = [...standing, out(210, 'culled', 12)];
    expect(stageOutcomes({ speciesId: 'a', spells: inCells, movements: done })).toEqual([
      { kind: 'cells', outcome: { k: 80, n: 100 } },
    ]);
  });
  it('leaves out what was looked into, and counts what was given or sold as gone on', () => {
    const movements = [
      up(20, 100),
      out(40, 'sampled', 10),
      out(90, 'given', 30),
      out(99, 'sold', 50),
      out(99, 'rot', 10),
    ];
    expect(stageOutcomes({ speciesId: 'a', spells: inCells, movements })).toEqual([
      { kind: 'cells', outcome: { k: 80, n: 90 } },
    ]);
  });
  it('is told home by home: what is culled on the day of a move was culled in the home it leaves', () => {
    const spells: RaisedLot['spells'] = [
      { kind: 'cells', from: 0 },
      { kind: 'pots', from: 100 },
    ];
    const movements = [
      up(20, 100),
      out(100, 'culled', 10),
      out(140, 'drought', 9),
      moved(300, 'standing', 'lifted', 81),
    ];
    expect(stageOutcomes({ speciesId: 'a', spells, movements })).toEqual([
      { kind: 'cells', outcome: { k: 90, n: 100 } },
      { kind: 'pots', outcome: { k: 81, n: 90 } },
    ]);
  });
  it('counts nothing that was taken back, whenever it was taken back', () => {
    const movements = [
      up(20, 50),
      out(30, 'died', 20),
      moved(30, 'out:died', 'standing', 20),
      moved(90, 'standing', 'lifted', 50),
    ];
    expect(stageOutcomes({ speciesId: 'a', spells: inCells, movements })).toEqual([
      { kind: 'cells', outcome: { k: 50, n: 50 } },
    ]);
  });
  it('a lot that never came up, or was only begun, says nothing', () => {
    expect(stageOutcomes({ speciesId: 'a', spells: inCells, movements: [] })).toEqual([]);
    expect(stageOutcomes({ speciesId: 'a', spells: [], movements: [up(3, 9)] })).toEqual([]);
  });
  it('holds for any course: no more go on than stood, and a pot begins with what the cells let go', () => {
    const course = fc.record({
      born: fc.integer({ min: 1, max: 500 }),
      cells: fc.double({ min: 0, max: 1, noNaN: true }),
      pots: fc.double({ min: 0, max: 1, noNaN: true }),
    });
    fc.assert(
      fc.property(course, ({ born, cells, pots }) => {
        const lostInCells = Math.floor(born * cells);
        const shifted = born - lostInCells;
        const lostInPots = Math.floor(shifted * pots);
        const outcomes = stageOutcomes({
          speciesId: 'a',
          spells: [
            { kind: 'cells', from: 0 },
            { kind: 'pots', from: 100 },
          ],
          movements: [
            up(10, born),
            out(50, 'died', lostInCells),
            out(150, 'frost', lostInPots),
            moved(200, 'standing', 'lifted', shifted - lostInPots),
          ],
        });
        expect(outcomes[0].outcome).toEqual({ k: shifted, n: born });
        if (shifted > 0) expect(outcomes[1].outcome).toEqual({ k: shifted - lostInPots, n: shifted });
        else expect(outcomes).toHaveLength(1);
      }),
    );
  });
});

describe('a share that goes on', () => {
  const lots = (count: number, kept: number): RaisedLot[] =>
    Array.from({ length: count }, () => ({
      speciesId: 'alder',
      spells: inCells,
      movements: [up(20, 100), out(30, 'died', 100 - kept), moved(200, 'standing', 'lifted', kept)],
    }));
  const after = (count: number, kept: number) =>
    stageShare(0.9, shareLearnt({ shares: learntShares(lots(count, kept)) }, 'alder', 'cells'));

  it('is what was written where no lot says anything, known no better than lots differ', () => {
    const alone = stageShare(0.9);
    expect(alone.goesOn).toBeCloseTo(0.9, 9);
    expect(alone.lots).toBe(0);
    // Lots differ by ρ = 0.05: a share however well known says 1/ρ − 1 = 19 plants' worth of the next lot at most.
    expect(alone.counted).toBeGreaterThan(10);
    expect(alone.counted).toBeLessThan(19);
  });
  it('moves toward own lots, the more the more there are, and is then better known', () => {
    const [one, five, thirty] = [1, 5, 30].map((n) => after(n, 60));
    expect(one.goesOn).toBeLessThan(0.9);
    expect(five.goesOn).toBeLessThan(one.goesOn);
    expect(thirty.goesOn).toBeLessThan(five.goesOn);
    expect(thirty.goesOn).toBeGreaterThan(0.6);
    expect(thirty.goesOn).toBeLessThan(0.65);
    expect(thirty.counted).toBeGreaterThan(stageShare(0.9).counted);
    expect(thirty.lots).toBe(30);
  });
  it('is learnt for a species and a kind of home apart', () => {
    const shares = learntShares([...lots(4, 50), { ...lots(1, 99)[0], spells: [{ kind: 'bed', from: 0 }] }]);
    expect(shares.map(({ kind, lots }) => [kind, lots])).toEqual([
      ['cells', 4],
      ['bed', 1],
    ]);
    expect(shareLearnt({ shares }, 'birch', 'cells')).toBeUndefined();
  });
  it('stays whole where all are said to go on and no lot says otherwise', () => {
    expect(stageShare(1).goesOn).toBe(1);
    expect(
      stageShare(1, shareLearnt({ shares: learntShares(lots(3, 80)) }, 'alder', 'cells')).goesOn,
    ).toBeLessThan(1);
  });
});

describe('stages', () => {
  it('are told by what they stand in', () => {
    expect(stageKindOf(null)).toBe('bed');
    const kinds = new Set(startingContainers.map(stageKindOf));
    expect([...kinds].sort()).toEqual(['cells', 'flat', 'pots']);
  });
  it('begin with work that hours were recorded for, but for the sticking of cuttings', () => {
    expect(workOfStage('treated seed', null)).toBe('sow');
    expect(workOfStage('cuttings', null)).toBeNull();
    expect(workOfStage('cuttings', 'plug holds')).toBe('move');
    expect(workOfStage('fresh seed', 'true leaves')).toBe('prick');
  });
});
