import type { KeptLearnt } from '@kauri/core/contract';
import type { Handlers } from '../handlers';
import { workOf } from '../yard/routes';
import { keepValue, readValue } from '../yard/values';

export const learntHandlers: Pick<Handlers, 'learnt' | 'setLearnt'> = {
  async learnt(call) {
    const { version, value } = await readValue(call, 'learnt');
    return { version, learnt: value } as KeptLearnt;
  },
  async setLearnt(call) {
    const { version, learnt } = call.body;
    const kept = await keepValue(await workOf(call), 'learnt', version, learnt);
    return { version: kept.version, learnt: kept.value };
  },
};
