import { onUnmounted, ref } from 'vue';
import { listenTo } from '../../api/client';
import { sentenceOf } from '../../api/problem';

/** Listens to a caliper or height stick while it is switched on. */
export function useInstrument(onReading: (value: number) => void) {
  const listening = ref(false);
  const fault = ref<string | null>(null);
  let stop: AbortController | null = null;
  async function listen(tool: 'caliper' | 'stick', around: number, cv: number, seed: number): Promise<void> {
    quiet();
    const mine = new AbortController();
    stop = mine;
    listening.value = true;
    fault.value = null;
    try {
      await listenTo({ params: { tool }, query: { around, cv, seed } }, mine.signal, onReading);
    } catch (error) {
      if (!mine.signal.aborted) fault.value = sentenceOf(error);
    } finally {
      if (stop === mine) listening.value = false;
    }
  }
  function quiet(): void {
    stop?.abort();
    stop = null;
    listening.value = false;
  }
  onUnmounted(quiet);
  return { listening, fault, listen, quiet };
}
