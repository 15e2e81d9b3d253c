import { z } from 'zod';
import { treeForms } from '../../plan/orderLine';
import { Id, Note, numberBetween, PlainDate, wholeNumber, wordsOf } from '../basics';

const Words = wordsOf(120);

const height = (what: string) => numberBetween(what, 1, 2000, 'cm').nullable();
const sized = <T extends { fromCm: number | null; toCm: number | null }>({ fromCm, toCm }: T) =>
  fromCm === null || toCm === null || fromCm < toCm;

/** Trees of one grade that a lift gives, and where they are put. */
export const NewParcel = z
  .object({
    id: Id,
    /** In the grower's words; empty where they were not graded. */
    grade: Words,
    /** Heights of the grade, where it has any. */
    fromCm: height('Size from'),
    toCm: height('Size to'),
    count: wholeNumber('Trees', 1, 10_000_000),
    /** Trees in a bundle; null where they are loose, or in their trays. */
    bundleOf: wholeNumber('Trees a bundle', 1, 1000).nullable(),
    /** Bay, trench, store or shed, in the grower's words. */
    place: Words,
  })
  .refine(sized, { message: 'A grade ends above where it begins.', path: ['toCm'] });
export type NewParcel = z.infer<typeof NewParcel>;

/** Trees lifted together, of one grade, as they lie now. */
export const Parcel = z.object({
  id: Id,
  lotId: Id,
  code: z.string(),
  speciesId: Id,
  /** The lift they came from. */
  entry: Id,
  form: z.enum(treeForms),
  grade: z.string(),
  fromCm: z.number().nullable(),
  toCm: z.number().nullable(),
  bundleOf: z.number().nullable(),
  place: z.string(),
  /** Lifted on. */
  since: z.string(),
  /** Trees it began with, and that are still there. */
  count: z.number(),
  held: z.number(),
});
export type Parcel = z.infer<typeof Parcel>;

/** Trees that left together for one receiver. */
export const Sending = z.object({
  id: Id,
  on: z.string(),
  orderId: Id.nullable(),
  lineId: Id.nullable(),
  to: z.string(),
  note: z.string(),
  by: z.string(),
  parts: z.array(z.object({ parcelId: Id, lotId: Id, count: z.number() })),
});
export type Sending = z.infer<typeof Sending>;

/** What was lifted and lies there, or left within a year and a little. */
export const Parcels = z.object({ parcels: z.array(Parcel), sendings: z.array(Sending) });
export type Parcels = z.infer<typeof Parcels>;

export const PutParcel = z.object({ id: Id, place: Words });

export const SendTrees = z
  .object({
    id: Id,
    on: PlainDate,
    /** The line of an order it serves; null for trees that go without one. */
    order: z.object({ id: Id, lineId: Id }).nullable(),
    /** Who gets them, in words; empty where the order says. */
    to: Words,
    note: Note,
    parts: z
      .array(z.object({ parcelId: Id, count: wholeNumber('Trees', 1, 10_000_000) }))
      .min(1, 'Say how many of which parcel go.')
      .max(200, 'At most 200 parcels at once.'),
  })
  .refine(({ parts }) => new Set(parts.map(({ parcelId }) => parcelId)).size === parts.length, {
    message: 'A parcel is named twice.',
    path: ['parts'],
  })
  .refine(({ order, to }) => order !== null || to !== '', {
    message: 'Say who gets them.',
    path: ['to'],
  });
