import type { LearntValues } from '@kauri/core/contract';
import { ref } from 'vue';
import { call } from '../../api/client';
import { sentenceOf } from '../../api/problem';
import { useMessages } from '../../stores/messages';
import { useNursery } from '../../stores/nursery';

/** Takes what the nursery's own records teach into its forecasts, and offers to take it back. */
export function useLearnt() {
  const nursery = useNursery();
  const messages = useMessages();
  const fault = ref<string | null>(null);
  async function write(learnt: LearntValues): Promise<void> {
    const { version } = nursery.learnt!;
    nursery.learnt = await call('setLearnt', { params: nursery.params, body: { version, learnt } });
  }
  /** @param change what is learnt after, from what is learnt now */
  async function keep(change: (now: LearntValues) => LearntValues, said: string): Promise<void> {
    const before = nursery.learnt!.learnt;
    try {
      await write(change(before));
      fault.value = null;
      messages.say(said, () => write(before));
    } catch (error) {
      fault.value = sentenceOf(error);
    }
  }
  return { keep, fault };
}
