import { describe, expect, it } from 'vitest';
import { tapped } from './tapped';

describe('a count by taps', () => {
  it('up from a blank one is a tally, and goes on from what is typed', () => {
    expect(tapped('', 1, 244)).toBe('1');
    expect(tapped('', 10)).toBe('10');
    expect(tapped('37', 1, 244)).toBe('38');
  });
  it('down from a blank one is one fewer than there were, never none of all of them', () => {
    expect(tapped('', -1, 244)).toBe('243');
    expect(tapped(tapped('', -1, 244), -1, 244)).toBe('242');
  });
  it('is never less than none', () => {
    expect(tapped('', -1)).toBe('0');
    expect(tapped('0', -1, 244)).toBe('0');
  });
  it('begins anew where what stands there is no number', () => {
    expect(tapped('many', 1, 244)).toBe('1');
  });
});
