import { describe, expect, it } from 'vitest';
import { dayAway } from './clock';

const HOUR = 3_600_000;
const noon = Date.parse('2026-11-24T12:00:00Z');
const seen = (off = 0) => ({ serverMs: noon, deviceMs: noon + off, today: '2026-11-24' });

describe('the day while nobody can be asked', () => {
  it('turns over at the nursery’s midnight, not the device’s', () => {
    expect(dayAway(seen(), 'Europe/London', noon + 11 * HOUR)).toBe('2026-11-24');
    expect(dayAway(seen(), 'Europe/London', noon + 12 * HOUR)).toBe('2026-11-25');
    // Thirteen hours ahead it is one at night there: the day has begun already.
    expect(dayAway(seen(), 'Pacific/Auckland', noon + 22 * HOUR)).toBe('2026-11-24');
    expect(dayAway(seen(), 'Pacific/Auckland', noon + 23 * HOUR)).toBe('2026-11-25');
  });
  it('is right though the device’s clock is wrong by a day, either way', () => {
    for (const off of [-24 * HOUR, 24 * HOUR])
      expect(dayAway(seen(off), 'Europe/London', noon + off + 2 * HOUR)).toBe('2026-11-24');
  });
  it('never goes back where the clock was set back meanwhile', () => {
    expect(dayAway(seen(), 'Europe/London', noon - 72 * HOUR)).toBe('2026-11-24');
  });
  it('counts on from the day that the server said, whatever its clock shows', () => {
    expect(dayAway({ ...seen(), today: '2027-02-10' }, 'Europe/London', noon + 24 * HOUR)).toBe('2027-02-11');
  });
});
