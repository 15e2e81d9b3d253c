import { isoOf, type EpochDay, type LineState, type TreeForm } from '@kauri/core';
import type { OrderLine } from '@kauri/core/contract';
import { v7 as newId } from 'uuid';
import { treeOrder } from '../db/schema/index';
import type { Work } from '../http/context';

/** A line: species, trees, form, sizes in cm, days from today, how far it has come, trees sent, price. */
type Line = [string, number, TreeForm, number | null, number | null, number, LineState, number?, number?];

export interface DemoOrder {
  buyer: string;
  reach?: string;
  note?: string;
  /** Days in which the trees will do, from the first. */
  days?: number;
  goesTo?: string;
  lines: Line[];
}

const trust = { buyer: 'Merrow rivers trust', reach: 'planting office', goesTo: 'wet, browsed' };
const parish = { buyer: 'Beckside parish', reach: 'the clerk' };
const hedges = { buyer: 'Dale hedging', reach: 'at the yard on Fridays', goesTo: 'browsed' };
const school = { buyer: 'Carr Lane school', reach: 'the garden group' };
const moor = { buyer: 'Moor End farm', reach: 'in the evening', goesTo: 'dry' };
const carr = { buyer: 'Low Carr farm', goesTo: 'wet' };
const hill = { buyer: 'Hill Top farm', goesTo: 'rock, dry' };

/** Withybeck's order book over two years: met, part sent, missed, to come, one that cannot be met; and hopes. */
// One a line.
// prettier-ignore
export const withybeckOrders: DemoOrder[] = [
  { ...trust, lines: [['ALN', 600, 'bare-root', 40, 60, -640, 'sent', 600, 0.9]] },
  { ...trust, lines: [['BPU', 300, 'bare-root', 40, 60, -630, 'sent', 300, 0.85], ['SVI', 400, 'bare-root', 60, null, -630, 'sent', 400, 0.7]] },
  { ...parish, lines: [['QPE', 60, 'pot', 60, 90, -610, 'sent', 60, 4.5]] },
  { ...hedges, lines: [['CRA', 800, 'bare-root', 40, 60, -600, 'fell through', 0, 0.65]], note: 'None were ready; they went elsewhere.' },
  { ...school, lines: [['SOR', 25, 'plug', 20, 40, -590, 'sent', 25, 1.2]] },
  { ...moor, lines: [['BPE', 250, 'bare-root', 40, 60, -380, 'sent', 250, 0.85]] },
  { ...carr, lines: [['ALN', 400, 'plug', 20, 40, -330, 'sent', 400, 0.7]] },
  { ...trust, lines: [['ALN', 500, 'bare-root', 40, 60, -300, 'sent', 500, 0.9], ['SCA', 200, 'bare-root', 60, null, -300, 'sent', 180, 0.8]] },
  { ...hill, lines: [['PSY', 300, 'plug', 15, 30, -290, 'sent', 300, 0.6]] },
  { ...parish, lines: [['TCO', 12, 'pot', 60, null, -280, 'fell through', 0, 9]], note: 'The layers were not rooted in time.' },
  { ...hedges, lines: [['PSP', 500, 'bare-root', 40, 60, -275, 'sent', 500, 0.6]] },
  { ...school, lines: [['ACA', 30, 'plug', 20, 40, -250, 'sent', 30, 1.3]] },
  { ...trust, days: 60, lines: [['ALN', 150, 'plug', 20, 40, 14, 'promised', 0, 0.75], ['BPU', 100, 'plug', 20, 40, 14, 'promised', 0, 0.75]] },
  { ...hedges, days: 90, lines: [['CBE', 300, 'bare-root', 30, 60, -10, 'promised', 0, 0.6]] },
  { ...parish, days: 45, lines: [['QPE', 250, 'bare-root', 20, 40, 30, 'promised', 0, 1.1]] },
  { ...moor, days: 60, lines: [['SOR', 120, 'plug', 20, 40, 40, 'promised', 0, 0.95]] },
  { ...hill, days: 40, lines: [['PSY', 200, 'plug', 10, 30, 90, 'promised', 0, 0.6]] },
  { ...carr, days: 30, lines: [['SCA', 350, 'bare-root', 60, null, 60, 'promised', 0, 0.8]] },
  { ...school, days: 20, lines: [['ACA', 40, 'bare-root', 20, 60, 100, 'asked', 0, 1.3]] },
  { ...trust, days: 45, note: 'More than the yard ever raised of them: say so soon.', lines: [['ALN', 9000, 'plug', 40, 60, 110, 'asked', 0, 0.8]] },
  { ...parish, days: 60, lines: [['SOR', 30, 'pot', 40, null, 560, 'asked', 0, 6]] },
  { ...hedges, days: 90, lines: [['CRA', 600, 'bare-root', 20, null, 370, 'asked', 0, 0.65], ['PSP', 400, 'bare-root', 20, null, 370, 'asked', 0, 0.6]] },
  { ...moor, days: 60, lines: [['BPE', 300, 'bare-root', 30, null, 380, 'asked', 0, 0.85]] },
  { ...trust, days: 60, lines: [['ALN', 800, 'bare-root', 30, null, 390, 'promised', 0, 0.9]] },
  { buyer: '', note: 'For the spring market.', days: 30, lines: [['SOR', 60, 'plug', 20, 40, 110, 'asked']] },
  { buyer: '', note: 'For the spring market.', days: 30, lines: [['VOP', 40, 'pot', 40, null, 110, 'asked']] },
  { buyer: '', note: 'Our own shelter belt.', days: 60, goesTo: 'dry, windy', lines: [['PSY', 150, 'plug', 15, 40, 120, 'asked']] },
  { buyer: '', note: 'Our own shelter belt.', days: 60, goesTo: 'dry, windy', lines: [['BPE', 100, 'bare-root', 40, null, 60, 'asked']] },
  { buyer: '', note: 'If the stools give enough.', days: 60, lines: [['SVI', 300, 'bare-root', 60, null, 70, 'asked']] },
  { buyer: '', note: 'To see whether it sells.', days: 60, lines: [['JCO', 40, 'pot', 15, null, 480, 'asked']] },
];

/** Piedra Clara's, half a year on. */
// prettier-ignore
export const piedraClaraOrders: DemoOrder[] = [
  { buyer: 'Comisión de fomento', reach: 'la secretaría', days: 30, goesTo: 'ladera seca', lines: [['NPU', 200, 'plug', 10, 30, 200, 'promised', 0, 900]] },
  { buyer: 'Escuela del valle', days: 20, lines: [['NAN', 60, 'plug', 10, null, 190, 'asked', 0, 850]] },
  { buyer: '', note: 'Para el cortaviento propio.', days: 60, lines: [['NDO', 120, 'bare-root', 15, null, 560, 'asked']] },
];

/** Writes the order book, dated from today; lines of the past among them. */
export async function makeOrders(
  work: Work,
  orders: readonly DemoOrder[],
  speciesIds: ReadonlyMap<string, string>,
  today: EpochDay,
): Promise<void> {
  if (orders.length === 0) return;
  await work.tx.insert(treeOrder).values(
    orders.map(({ buyer, reach = '', note = '', days = 30, goesTo = '', lines }) => ({
      nurseryId: work.nurseryId,
      id: newId(),
      buyer,
      reach,
      note,
      lines: lines.map(([species, count, form, fromCm, toCm, on, state, sent = 0, price]): OrderLine => ({
        id: newId(),
        speciesId: speciesIds.get(species)!,
        provenance: '',
        form,
        fromCm,
        toCm,
        count,
        sent,
        on: isoOf(today + on),
        until: isoOf(today + on + days),
        goesTo,
        price: price ?? null,
        state,
        lots: [],
      })),
    })),
  );
}
