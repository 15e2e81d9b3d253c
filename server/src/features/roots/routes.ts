import type { KeptRootRules } from '@kauri/core/contract';
import type { rootsRoutes } from '@kauri/core/contract';
import type { HandlersOf } from '../../http/context';
import { lotDetail } from '../lots/lotDetail';
import { workOf } from '../../nursery/work';
import { keepValue, readValue } from '../../nursery/values';
import { inspectRoots } from './inspect';

export const rootHandlers: HandlersOf<typeof rootsRoutes> = {
  async inspectRoots(call) {
    await inspectRoots(await workOf(call), call.params.lot, call.body);
    return lotDetail(call.tx, call.nurseryId, call.params.lot);
  },
  async rootRules(call) {
    const { version, value } = await readValue(call, 'roots');
    return { version, rules: value } as KeptRootRules;
  },
  async setRootRules(call) {
    const { version, rules } = call.body;
    const kept = await keepValue(await workOf(call), 'roots', version, rules);
    return { version: kept.version, rules: kept.value };
  },
};
