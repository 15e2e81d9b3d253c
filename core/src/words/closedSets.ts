import { inWords } from '../speech/say';

/** Values of closed sets that sentences name as they are: where trees are, and what is done to seed. */
export const closedSetWords = inWords({
  sown: 'sown',
  standing: 'standing',
  lifted: 'lifted',
  soak: 'soak',
  scarify: 'scarify',
  'hot-water': 'hot-water',
  warm: 'warm',
  cold: 'cold',
  'dry-back': 'dry-back',
  germination: 'germination',
  cut: 'cut',
  float: 'float',
} as const);
