import type { Stay } from '@kauri/core';
import type { Place, PlannedSowing } from '@kauri/core/contract';
import { describe, expect, it, vi } from 'vitest';
import { putInto, useDrag, whyNotIn } from './useDrag';

const place = (id: string, kind: string) => ({ id, place: { kind, name: id } }) as unknown as Place;
const [bed, bench, bay] = [place('bed', 'bed'), place('bench', 'bench'), place('bay', 'bay')];
const stage = (placeId: string, from: string, containerTypeId: string | null) =>
  ({ placeId, from, containerTypeId }) as PlannedSowing['stages'][number];
const sowing = {
  id: 'p',
  stages: [stage('bench', '2027-03-01', 'c'), stage('bed', '2027-05-03', null)],
} as unknown as PlannedSowing;
const stay = { id: 'p', placeId: 'bench', from: 20_878 } as Stay;
const press = (x: number, y: number, pointerType = 'mouse') =>
  ({
    clientX: x,
    clientY: y,
    button: 0,
    pointerType,
    pointerId: 1,
    currentTarget: { setPointerCapture: vi.fn() },
  }) as unknown as PointerEvent;

describe('a sowing carried over the board', () => {
  it('stands only in what takes it, and only its stage is put elsewhere', () => {
    expect(whyNotIn(sowing.stages[0], bench)).toBeNull();
    expect(whyNotIn(sowing.stages[0], bed)).toMatch(/bench/);
    expect(whyNotIn(sowing.stages[1], bed)).toBeNull();
    expect(whyNotIn(sowing.stages[1], bay)).toMatch(/need a bed/);
    const put = putInto(sowing, stay, 'other');
    expect(put.stages.map(({ placeId }) => placeId)).toEqual(['other', 'bed']);
    expect(sowing.stages[0].placeId).toBe('bench');
  });
  it('is dropped by whole weeks and into the row it is over; a press alone and a finger move nothing', () => {
    const dropped = vi.fn();
    const at = vi.fn(() => bed as Place | null);
    const { grab, carry, release, why, carried, letGo } = useDrag(10, at, dropped);
    grab(press(100, 50), sowing, stay);
    carry(press(102, 51));
    release();
    grab(press(100, 50, 'touch'), sowing, stay);
    carry(press(200, 50, 'touch'));
    release();
    expect(dropped).not.toHaveBeenCalled();
    grab(press(100, 50), sowing, stay);
    carry(press(136, 90));
    expect(carried.value).toMatchObject({ weeks: 4, place: { id: 'bed' } });
    expect(why.value).toMatch(/bench/);
    release();
    expect(dropped).toHaveBeenCalledExactlyOnceWith(expect.objectContaining({ weeks: 4 }));
    expect(carried.value).toBeNull();
    // Let go of, nothing is changed.
    grab(press(100, 50), sowing, stay);
    carry(press(160, 50));
    letGo();
    release();
    expect(dropped).toHaveBeenCalledOnce();
  });
});
