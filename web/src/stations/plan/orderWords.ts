import { dayOf, type LineState, type TreeForm, say, inWords } from '@kauri/core';
import type { KeptOrder, OrderLine } from '@kauri/core/contract';

export const formWords: Record<TreeForm, string> = inWords({
  'bare-root': 'bare-root',
  plug: 'plugs',
  pot: 'in pots',
});
export const lineStateWords: Record<LineState, string> = inWords({
  asked: 'Asked',
  promised: 'Promised',
  'part sent': 'Part sent',
  sent: 'Sent',
  'fell through': 'Fell through',
});

/** Who an order is for; a hope has nobody yet. */
export const buyerOf = ({ buyer }: Pick<KeptOrder, 'buyer'>): string =>
  buyer || say`A hope: nobody has asked yet`;

/** A size wanted, in the grower's units. */
export function sizeWords(
  { fromCm, toCm }: Pick<OrderLine, 'fromCm' | 'toCm'>,
  shown: (cm: number) => number,
  unit: string,
): string {
  const part = (cm: number) => String(Number(shown(cm).toFixed(1)));
  if (fromCm === null && toCm === null) return say`any size`;
  if (toCm === null) return say`${part(fromCm!)} ${unit} and over`;
  if (fromCm === null) return say`up to ${part(toCm)} ${unit}`;
  return `${part(fromCm)}–${part(toCm)} ${unit}`;
}

/** Whether a line still wants trees. */
export const isOpen = ({ state }: Pick<OrderLine, 'state'>): boolean =>
  state === 'asked' || state === 'promised' || state === 'part sent';

/** Day by which an order next wants trees; Infinity once nothing of it is open. */
export const nextOf = ({ lines }: Pick<KeptOrder, 'lines'>): number =>
  Math.min(Infinity, ...lines.filter(isOpen).map((line) => dayOf(line.on)));

/** Fields of an order and its lines, as a sentence names them. */
export const fieldWords: Readonly<Record<string, string>> = inWords({
  buyer: 'the buyer',
  reach: 'how to reach them',
  note: 'the note',
  speciesId: 'species',
  provenance: 'provenance',
  form: 'form',
  fromCm: 'size from',
  toCm: 'size to',
  count: 'trees',
  sent: 'trees sent',
  on: 'day',
  until: 'last day',
  goesTo: 'where they go',
  price: 'price',
  state: 'state',
  lots: 'lots that serve it',
});
