import { z } from 'zod';
import { lineStates, treeForms } from '../../plan/orderLine';
import { Id, Note, numberBetween, PlainDate, wholeNumber } from '../basics';

const Words = z
  .string()
  .trim()
  .max(200, 'At most 200 characters.')
  .regex(/^[^\p{Cc}]*$/u, 'It holds no control characters.');

/** What is wanted of one species: how many, of what size and form, when. */
export const OrderLine = z
  .object({
    id: Id,
    speciesId: Id,
    /** Where the seed should come from, in the buyer's words; empty where it does not matter. */
    provenance: Words,
    form: z.enum(treeForms),
    fromCm: numberBetween('Size from', 1, 2000, 'cm').nullable(),
    toCm: numberBetween('Size to', 1, 2000, 'cm').nullable(),
    count: wholeNumber('Trees', 1, 10_000_000),
    sent: wholeNumber('Sent', 0, 10_000_000),
    /** The day they are wanted, and the last day that will do; the same day where there is no window. */
    on: PlainDate,
    until: PlainDate,
    /** Where they go to be planted: dry, rock, wet, browsed. */
    goesTo: Words,
    /** For one tree, in the nursery's money; null where none is agreed. */
    price: numberBetween('Price', 0, 1_000_000).nullable(),
    state: z.enum(lineStates),
  })
  .refine((line) => line.until >= line.on, {
    message: 'The last day that will do lies before the day they are wanted.',
    path: ['until'],
  })
  .refine((line) => line.fromCm === null || line.toCm === null || line.fromCm < line.toCm, {
    message: 'The size wanted ends before it begins.',
    path: ['toCm'],
  })
  .refine((line) => line.sent <= line.count, {
    message: 'More were sent than are wanted.',
    path: ['sent'],
  });
export type OrderLine = z.infer<typeof OrderLine>;

const order = {
  /** Who wants them; empty for a hope: stock for sale, or planting of one's own. */
  buyer: Words,
  reach: Words,
  note: Note,
  lines: z.array(OrderLine).min(1, 'An order has a line at least.').max(200, 'At most 200 lines.'),
};
export const NewOrder = z.object({ id: Id, ...order });
export const NewOrders = z.object({
  /** Of the write: sent again, it is taken once. */
  id: Id,
  orders: z.array(NewOrder).min(1, 'Nothing to keep.').max(500, 'At most 500 orders at once.'),
});
export const EditedOrder = z.object({ version: wholeNumber('Version', 0, 1e9), ...order });
export const RemovedOrder = z.object({ version: wholeNumber('Version', 0, 1e9) });
export const KeptOrder = z.object({ id: Id, version: z.number(), ...order });
export type KeptOrder = z.infer<typeof KeptOrder>;
export const Orders = z.object({ orders: z.array(KeptOrder) });
