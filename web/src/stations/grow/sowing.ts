import type { CuttingKind } from '@kauri/core';
import type { Patch } from '@kauri/core/contract';
import type { TypedPatch } from './patch';
import type { TypedStage } from './useStage';

/** A sowing as it is typed: of what, when, from where, and where it stands. */
export interface TypedSowing extends TypedStage, TypedPatch {
  speciesId: string;
  sownOn: string;
  code: string;
  seedState: 'ready' | 'fresh';
  origin: 'seed' | 'cuttings';
  seedLotId: string;
  treatmentId: string;
  stockBedId: string;
  cutting: CuttingKind;
  seeds: string;
}

/** What a lot was begun with, as it is written down: what belongs to the other way of beginning is left out. */
export function sowingOf({
  speciesId,
  sownOn,
  seedState,
  origin,
  seedLotId,
  treatmentId,
  stockBedId,
  cutting,
}: TypedSowing) {
  const fromSeed = origin === 'seed';
  return {
    speciesId,
    sownOn,
    seedState,
    origin,
    seedLotId: fromSeed ? seedLotId || null : null,
    treatmentId: fromSeed && seedLotId ? treatmentId || null : null,
    stockBedId: fromSeed ? null : stockBedId || null,
    cutting: fromSeed ? null : cutting,
  };
}

/** A patch as it is typed. */
export function typedPatch(patch: Patch | null, shown: (mm: number) => string): TypedPatch {
  return {
    patchFrom: patch ? shown(patch.fromMm) : '',
    patchTo: patch ? shown(patch.toMm) : '',
    rows: patch?.lastRow ? String(patch.lastRow) : '',
  };
}
