import { inWords } from '@kauri/core';
import type { ContainerKind, PlantingSite } from '@kauri/core';

export const containerKindWords: Record<ContainerKind, string> = inWords({
  flat: 'Open flat',
  'plug-closed': 'Closed plug tray',
  'plug-open': 'Open-walled plug tray',
  'plug-paper': 'Paper-wrapped plugs',
  tube: 'Tubes in a rack',
  'slit-cell': 'Slit-wall cells',
  band: 'Open-bottomed bands',
  'tree-pot': 'Deep square tree pot',
  'ribbed-pot': 'Ribbed vented pot',
  block: 'Root-pruning block',
  'fabric-bag': 'Fabric bag',
  'round-pot': 'Round pot',
});

export const siteWords: Record<PlantingSite, string> = inWords({
  ordinary: 'Ordinary ground',
  dry: 'Dry ground',
  rocky: 'Rock or shallow soil',
  weedy: 'Tall weeds',
  browsed: 'Browsed',
});
