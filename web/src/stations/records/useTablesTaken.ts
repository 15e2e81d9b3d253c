import { say } from '@kauri/core';
import type { TableTaken } from '@kauri/core/contract';
import { createSharedComposable } from '@vueuse/core';
import { v7 as newId } from 'uuid';
import { shallowRef } from 'vue';
import { call } from '../../api/client';
import { useNursery } from '../../stores/nursery';
import { several } from '../../words/numbers';

export const oneOf = { weather: 'day', measurements: 'plant' } as const;

/** Tables that were taken in lately, each to be taken back as one act. */
export const useTablesTaken = createSharedComposable(() => {
  const nursery = useNursery();
  const tables = shallowRef<readonly TableTaken[] | null>(null);

  async function load(): Promise<void> {
    ({ tables: tables.value } = await call('tablesTaken', { params: nursery.params }));
  }
  /** @returns what became of it, in a sentence */
  async function takeBack(table: string, kind: TableTaken['kind']): Promise<string> {
    const params = { ...nursery.params, table };
    const { tables: now, back, left } = await call('takeTableBack', { params, body: { id: newId() } });
    tables.value = now;
    await (kind === 'weather' ? nursery.reloadWeather() : nursery.fetchLots());
    const one = kind === 'weather' ? 'day' : 'sample';
    return say`${several(back, one)} taken back${left ? say`; ${several(left, one)} stay as they were written since` : ''}.`;
  }
  return { tables, load, takeBack };
});
