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
  sessionStorage.setItem('kauri.draft.lot.new', JSON.stringify(preset));
  void router.push({ name: 'grow', query: { new: '1' } });
}
