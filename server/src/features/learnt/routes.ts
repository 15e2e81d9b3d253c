import type { KeptLearnt } from '@kauri/core/contract';
import type { learntRoutes } from '@kauri/core/contract';
import type { HandlersOf } from '../../http/context';
import { workOf } from '../../nursery/work';
import { keepValue, readValue } from '../../nursery/values';

export const learntHandlers: HandlersOf<typeof learntRoutes> = {
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
