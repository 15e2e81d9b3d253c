import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { effectScope, shallowRef } from 'vue';
import { useSteady } from './useSteady';

describe('a list under a finger', () => {
  beforeEach(() => void vi.useFakeTimers());
  afterEach(() => void vi.useRealTimers());
  const listed = () => {
    const now = shallowRef(['first', 'second']);
    const pointers = new EventTarget();
    const scope = effectScope();
    return { now, pointers, scope, ...scope.run(() => useSteady(now, pointers))! };
  };

  it('follows what comes as long as nothing presses it', () => {
    const { now, steady } = listed();
    now.value = ['second', 'first'];
    expect(steady.value).toEqual(['second', 'first']);
  });
  for (const end of ['pointerup', 'pointercancel'])
    it(`stands still while it is pressed, and through the click that follows a ${end}`, () => {
      const { now, pointers, steady, press } = listed();
      press();
      now.value = ['second', 'first'];
      expect(steady.value).toEqual(['first', 'second']);
      pointers.dispatchEvent(new Event(end));
      expect(steady.value).toEqual(['first', 'second']);
      vi.runAllTimers();
      expect(steady.value).toEqual(['second', 'first']);
    });
  it('hears no more once its page is gone', () => {
    const { now, pointers, scope, steady, press } = listed();
    press();
    now.value = ['second', 'first'];
    scope.stop();
    pointers.dispatchEvent(new Event('pointerup'));
    expect(vi.getTimerCount()).toBe(0);
    expect(steady.value).toEqual(['first', 'second']);
  });
});
