import { exposureAt, type ExposureState } from '@kauri/core';
import { useIntervalFn } from '@vueuse/core';
import { computed, ref, watch, type Ref } from 'vue';

const TICK_MS = 1000;
/** How a hand feels a warning, ms of shaking and rest; browsers that cannot shake do nothing. */
const SHAKES: Partial<Record<ExposureState, number[]>> = {
  soon: [200, 100, 200],
  over: [400, 150, 400, 150, 400],
};
const TONES: Partial<Record<ExposureState, number>> = { soon: 660, over: 880 };

/** A short tone; nothing where the browser has no sound, or none is allowed yet. */
function tone(hertz: number, seconds: number): void {
  try {
    const audio = new AudioContext();
    const sound = audio.createOscillator();
    const volume = audio.createGain();
    volume.gain.value = 0.2;
    sound.frequency.value = hertz;
    sound.connect(volume).connect(audio.destination);
    sound.onended = () => void audio.close();
    sound.start();
    sound.stop(audio.currentTime + seconds);
  } catch {
    // A warning that cannot be heard is still seen and felt.
  }
}

/**
 * The clock of bare roots in the air, which warns by shape, sound and shaking.
 * @param outSince ms; null while they are covered
 * @param standMinutes what they stand in the air of the day; null where it is not known
 */
export function useExposureClock(outSince: Ref<number | null>, standMinutes: () => number | null) {
  const now = ref(Date.now());
  useIntervalFn(() => (now.value = Date.now()), TICK_MS);
  const exposure = computed(() => exposureAt(outSince.value, now.value, standMinutes()));
  watch(
    () => exposure.value.state,
    (state) => {
      const shake = SHAKES[state];
      if (shake) navigator.vibrate?.(shake);
      const hertz = TONES[state];
      if (hertz) tone(hertz, state === 'over' ? 1.2 : 0.4);
    },
  );
  return {
    exposure,
    uncover() {
      now.value = Date.now();
      outSince.value = now.value;
    },
    cover: () => (outSince.value = null),
  };
}
