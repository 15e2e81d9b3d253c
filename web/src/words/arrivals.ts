import { inWords } from '@kauri/core';
import type { ArrivalFault, ArrivalKind } from '@kauri/core';

export const arrivalWords: Record<ArrivalKind, string> = inWords({
  liner: 'liners',
  'bare-root': 'bare-root plants',
  'rooted cutting': 'rooted cuttings',
  graft: 'grafts',
  'dug plant': 'plants dug',
  seedling: 'seedlings',
});

export const faultWords: Record<ArrivalFault, string> = inWords({
  'j-root': 'J-root',
  'one-sided': 'roots on one side',
  circling: 'circling roots',
  dry: 'dry roots',
  mouldy: 'mould',
  broken: 'broken',
  pests: 'pests or disease',
  'wrong plant': 'not what was ordered',
});
