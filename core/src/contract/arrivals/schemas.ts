import { told } from '../told';
import { z } from 'zod';
import { arrivalFaults, arrivalKinds } from '../../propagation/arrival';
import { Id, Note, numberBetween, PlainDate, wholeNumber, wordsOf } from '../basics';
import { LotCode, NewStage } from '../lots/schemas';

const Words = wordsOf(120);

const fields = {
  on: PlainDate,
  speciesId: Id,
  kind: z.enum(arrivalKinds),
  supplier: Words.min(1, told`Say who they came from; your own name where you dug them yourself.`),
  /** Where their seed, or they themselves, come from. */
  provenance: Words,
  /** Numbers of the papers that came with them. */
  papers: Words,
  count: wholeNumber('Plants that came', 1, 1_000_000),
  /** Of one, in the nursery's money; null where it is not known. */
  price: numberBetween('Price', 0, 100_000).nullable(),
  looked: wholeNumber('Plants looked at', 0, 10_000),
  failing: wholeNumber('With faults', 0, 10_000),
  faults: z
    .array(z.object({ fault: z.enum(arrivalFaults), count: wholeNumber('Plants', 1, 10_000) }))
    .max(20),
  accepted: wholeNumber('Plants taken', 0, 1_000_000),
  /** They stay apart until then; null where they need not. */
  quarantineUntil: PlainDate.nullable(),
  note: Note,
};

export const NewArrival = z
  .object({
    id: Id,
    ...fields,
    /** What is taken becomes a lot; null where nothing is. */
    lot: z
      .object({
        id: Id,
        code: LotCode,
        stage: NewStage,
        heightsCm: z.array(numberBetween('Height', 0.1, 2000, 'cm')).max(200, told`At most 200 heights.`),
        diametersMm: z.array(numberBetween('Collar', 0.1, 500, 'mm')).max(200, told`At most 200 collars.`),
      })
      .nullable(),
  })
  .refine(({ accepted, lot }) => accepted > 0 === (lot !== null), {
    ...told`What is taken becomes a lot; where nothing is taken there is none.`,
    path: ['lot'],
  })
  .refine(({ quarantineUntil, on }) => quarantineUntil === null || quarantineUntil > on, {
    ...told`Quarantine ends after they came.`,
    path: ['quarantineUntil'],
  });

export const Arrival = z.object({
  id: Id,
  ...fields,
  lotId: Id.nullable(),
  code: z.string().nullable(),
  by: z.string(),
});
export type Arrival = z.infer<typeof Arrival>;
export const Arrivals = z.object({ arrivals: z.array(Arrival) });
export type Arrivals = z.infer<typeof Arrivals>;
export const EndQuarantine = z.object({ id: Id, until: PlainDate.nullable() });
