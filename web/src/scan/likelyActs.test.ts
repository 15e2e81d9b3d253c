import { describe, expect, it } from 'vitest';
import { lotActs, lotSheetAt, type LotAtHand } from './likelyActs';

const lot = (more: Partial<LotAtHand> = {}): LotAtHand => ({
  id: 'x',
  sown: 0,
  standing: 40,
  inBed: false,
  ...more,
});
const words = (of: LotAtHand, asked: Parameters<typeof lotActs>[1] = []) =>
  lotActs(of, asked).map((act) => act.words);

describe('the acts offered where a lot’s tag was read', () => {
  it('are what is done most often of such a lot', () => {
    expect(words(lot())).toEqual(['Count', 'Measure', 'Pull plugs']);
    // A bed has no plugs.
    expect(words(lot({ inBed: true }))).toEqual(['Count', 'Measure', 'Work done']);
    expect(words(lot({ standing: 0, sown: 300 }))).toEqual(['Count what is up', 'Work done', 'Write off']);
    expect(words(lot({ standing: 0 }))).toEqual([]);
  });
  it('begin with what Today asks of it, and none is offered twice', () => {
    const asked = [{ words: 'Measure 26-ALN-01 again', to: lotSheetAt('x', 'measure') }];
    expect(words(lot(), asked)).toEqual(['Measure 26-ALN-01 again', 'Count', 'Pull plugs']);
    const work = [{ words: 'Water', to: lotSheetAt('x', 'care', 'water') }];
    expect(lotActs(lot({ inBed: true }), work).map(({ to }) => to)).toEqual([
      { name: 'grow', params: { lot: 'x' }, query: { do: 'care', work: 'water' } },
      lotSheetAt('x', 'count'),
      lotSheetAt('x', 'measure'),
    ]);
  });
});
