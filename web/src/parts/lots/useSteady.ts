import { useEventListener } from '@vueuse/core';
import { computed, type Ref, shallowRef } from 'vue';

/**
 * What is listed, as it stood when a finger or the mouse went down on it, until that has let go: figures that come
 * meanwhile reorder it after the click, never under it. What let go is heard at `pointers`.
 */
export function useSteady<T>(now: Readonly<Ref<T>>, pointers: EventTarget) {
  const pressed = shallowRef<{ on: T } | null>(null);
  // The click comes after its pointer has let go, before the next task.
  const letGo = () => void setTimeout(() => (pressed.value = null));
  useEventListener(pointers, 'pointerup', letGo);
  useEventListener(pointers, 'pointercancel', letGo);
  return {
    steady: computed(() => (pressed.value ? pressed.value.on : now.value)),
    press: () => void (pressed.value = { on: now.value }),
  };
}
