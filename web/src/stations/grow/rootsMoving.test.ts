import { describe, expect, it } from 'vitest';
import { blankRoots, rootsMovingWords, rootsTyped } from './rootsMoving';

describe('roots counted while a lot is moved on', () => {
  it('are nothing as long as nothing is typed, and none where nothing was found', () => {
    expect(rootsTyped(blankRoots(), 80)).toBeNull();
    expect(rootsTyped({ ...blankRoots(), looked: '30' }, 80)).toEqual({
      looked: 30,
      circling: 0,
      teased: 0,
      shaved: 0,
      rejected: 0,
    });
  });
  it('are of all that stand unless somebody says how many were looked at', () => {
    expect(rootsTyped({ ...blankRoots(), circling: ' 4 ' }, 80)).toMatchObject({ looked: 80, circling: 4 });
  });
  it('stay wrong where what was typed is no number, so that it is refused and not taken for none', () => {
    expect(rootsTyped({ ...blankRoots(), rejected: 'two' }, 80)!.rejected).toBeNaN();
  });
  it('are told by what was found', () => {
    const roots = { looked: 60, circling: 9, teased: 7, shaved: 0, rejected: 4 };
    expect(rootsMovingWords(roots)).toBe('60 looked at: 9 circling, 7 teased, 4 rejected');
    expect(rootsMovingWords({ ...roots, circling: 0, teased: 0, rejected: 0 })).toBe(
      '60 looked at: none circling',
    );
  });
});
