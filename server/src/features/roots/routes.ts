import type { KeptRootRules } from '@kauri/core/contract';
import type { Handlers } from '../handlers';
import { lotDetail } from '../lots/lotDetail';
import { workOf } from '../yard/routes';
import { keepValue, readValue } from '../yard/values';
import { inspectRoots } from './inspect';

export const rootHandlers: Pick<Handlers, 'inspectRoots' | 'rootRules' | 'setRootRules'> = {
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
