import type { CuttingKind } from '@kauri/core';
import type { Router } from 'vue-router';
import type { Desk } from './useDesk';
import { keptKey } from '../../../stores/kept';

/** Fields of the sowing sheet that the desk fills in. */
export interface LotPreset {
  speciesId: string;
  seedLotId: string;
  treatmentId: string;
  seeds: string;
  target: string;
  chance: string;
  seedState: 'ready' | 'fresh';
  origin?: 'seed' | 'cuttings';
  stockBedId?: string;
  cutting?: CuttingKind;
  placeId?: string;
  containerTypeId?: string;
  trays?: string;
  density?: string;
  area?: string;
  patchFrom?: string;
  patchTo?: string;
  rows?: string;
}

/** Opens the sowing sheet with what the desk has worked out; everything in it can still be changed. */
export function sowPreset(router: Router, preset: LotPreset): void {
  sessionStorage.setItem(keptKey('draft.lot.new'), JSON.stringify({ origin: 'seed', ...preset }));
  void router.push({ name: 'grow', query: { new: '1' } });
}

/** What the desk knows of a sowing, whatever it goes into. */
export function presetOf(desk: Desk, seeds: number): LotPreset {
  const { species, lot, batch, target } = desk;
  return {
    speciesId: species.value.id,
    seedLotId: lot.value?.id ?? '',
    treatmentId: batch.value?.id ?? '',
    seeds: String(seeds),
    target: String(target.value),
    chance: '0.9',
    seedState: batch.value || species.value.values.winters === 0 ? 'ready' : 'fresh',
  };
}
