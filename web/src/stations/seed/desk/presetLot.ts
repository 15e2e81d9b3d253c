import type { CuttingKind } from '@kauri/core';
import type { Router } from 'vue-router';

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
  sessionStorage.setItem('kauri.draft.lot.new', JSON.stringify({ origin: 'seed', ...preset }));
  void router.push({ name: 'grow', query: { new: '1' } });
}
