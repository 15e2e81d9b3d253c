import { told } from '../told';
import { z } from 'zod';
import { inoculumSources, stakeKinds, weedings, type CareDone } from '../../growing/care';
import { eventKinds } from '../../growing/events';
import { HEIGHT_LIMIT_CM } from '../../growth/readMeasurements';
import { Id, Note, numberBetween, PlainDate, Seen, wholeNumber } from '../basics';

const trees = (what: string) => wholeNumber(what, 0, 10_000_000);
const patch = z
  .string()
  .trim()
  .max(60, told`A patch’s name has at most 60 characters.`)
  .regex(/^[^\p{Cc}]*$/u, told`A patch’s name holds no control characters.`)
  .default('');
const atMost = told`At most 200 lots at once.`;

/** Something that befell one lot, part of it, or all the lots of a bed. Each lot’s part is a record of its own. */
export const RecordEvent = z.object({
  id: Id,
  on: PlainDate,
  note: Note,
  what: z.enum(eventKinds),
  patch,
  photos: z
    .array(Id)
    .max(6, told`At most six photos.`)
    .default([]),
  lots: z
    .array(
      z
        .object({ id: Id, lotId: Id, seen: Seen, hit: trees('Trees hit'), dead: trees('Trees dead') })
        .refine((l) => l.dead <= l.hit, {
          ...told`No more can have died than were hit.`,
          path: ['dead'],
        }),
    )
    .min(1, told`Name at least one lot.`)
    .max(200, atMost),
});

export const CareDoneSchema = z.discriminatedUnion('what', [
  z.object({ what: z.literal('water'), mm: numberBetween('Water', 0.1, 200, 'mm').nullable() }),
  z.object({
    what: z.literal('feed'),
    ratedMonths: numberBetween('Rated life', 1, 24, 'months').nullable(),
    gramsPerLitre: numberBetween('Feed', 0.01, 50, 'g a litre').nullable(),
  }),
  z.object({ what: z.literal('inoculum'), source: z.enum(inoculumSources) }),
  z.object({ what: z.literal('spread'), apart: numberBetween('Room', 1.1, 9, 'times packed tight') }),
  z.object({ what: z.literal('pack') }),
  z.object({ what: z.literal('stake'), stake: z.enum(stakeKinds), staked: trees('Trees staked') }),
  z.object({ what: z.literal('weed'), how: z.enum(weedings) }),
  z.object({ what: z.literal('prune'), toCm: numberBetween('Height left', 1, HEIGHT_LIMIT_CM, 'cm') }),
]) satisfies z.ZodType<CareDone>;

/** Work done to one lot or several, without moving them. */
export const RecordCare = z.object({
  id: Id,
  on: PlainDate,
  note: Note,
  done: CareDoneSchema,
  lots: z
    .array(z.object({ id: Id, lotId: Id, seen: Seen }))
    .min(1, told`Name at least one lot.`)
    .max(200, atMost),
});

/** Lots carried in the trays they stand in; each lot’s move is a record of its own, with the stage it begins. */
export const CarryLots = z.object({
  id: Id,
  on: PlainDate,
  note: Note,
  placeId: Id,
  lots: z
    .array(z.object({ id: Id, lotId: Id, seen: Seen, stageId: Id }))
    .min(1, told`Name at least one lot.`)
    .max(200, atMost),
});

export const EventRecord = z.object({
  entry: Id,
  on: PlainDate,
  what: z.enum(eventKinds),
  hit: z.number(),
  dead: z.number(),
  patch: z.string(),
  photos: z.array(Id),
  note: z.string(),
});
export type EventRecord = z.infer<typeof EventRecord>;

export const CareRecord = z.object({ entry: Id, on: PlainDate, done: CareDoneSchema, note: z.string() });
export type CareRecord = z.infer<typeof CareRecord>;

/** A photo as it was kept: made small, without where and when it was taken. */
export const KeptPhoto = z.object({ id: Id, widthPx: z.number(), heightPx: z.number(), bytes: z.number() });
export type KeptPhoto = z.infer<typeof KeptPhoto>;

/** A reading of a caliper or a height stick as it streams in; a null value is its end. */
export const InstrumentReading = z.object({ value: z.number().nullable(), unit: z.enum(['mm', 'cm']) });
export type InstrumentReading = z.infer<typeof InstrumentReading>;
/** What the simulated tools are told, since they hold no plant. */
export const InstrumentQuery = z.object({
  around: z.coerce.number().min(0.1).max(1000).optional(),
  cv: z.coerce.number().min(0).max(1).optional(),
  seed: z.coerce
    .number()
    .int()
    .min(0)
    .max(2 ** 31)
    .optional(),
  pace: z.coerce.number().int().min(0).max(10_000).optional(),
});
