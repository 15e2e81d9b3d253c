import { told } from '../told';
import { z } from 'zod';
import { growingLosses } from '../../ledger/ledger';
import { treeForms } from '../../plan/orderLine';
import { storeSigns } from '../../today/storeAsk';
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
  .refine(sized, { ...told`A grade ends above where it begins.`, path: ['toCm'] });
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
  /** Whether they were sent, and came back. */
  cameBack: z.boolean(),
  /** Trees it began with, and that are still there. */
  count: z.number(),
  held: z.number(),
});
export type Parcel = z.infer<typeof Parcel>;

/** Trees of a sending that came back, all together. */
export const Returned = z.object({
  id: Id,
  on: z.string(),
  /** Whether the line they were sent for wants as many again; null where it was for none. */
  wantedAgain: z.boolean().nullable(),
  note: z.string(),
  by: z.string(),
  /** Of each parcel that was sent: the parcel they came into, how many came, and how many of them were dead. */
  parts: z.array(z.object({ parcelId: Id, intoId: Id, lotId: Id, count: z.number(), dead: z.number() })),
});
export type Returned = z.infer<typeof Returned>;

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
  returns: z.array(Returned),
});
export type Sending = z.infer<typeof Sending>;

/** Trees of a parcel that are set aside for a line of an order. */
export const Aside = z.object({ parcelId: Id, orderId: Id, lineId: Id, count: z.number() });
export type Aside = z.infer<typeof Aside>;

/** What was seen where lifted trees lie. */
export const Look = z.object({
  id: Id,
  place: z.string(),
  on: z.string(),
  /** Of a cold store, °C. */
  tempC: z.number().nullable(),
  seen: z.array(z.enum(storeSigns)),
  note: z.string(),
  by: z.string(),
});
export type Look = z.infer<typeof Look>;
export const NewLook = z.object({
  id: Id,
  place: Words,
  on: PlainDate,
  tempC: numberBetween('Temperature', -30, 40, '°C').nullable(),
  seen: z
    .array(z.enum(storeSigns))
    .max(storeSigns.length)
    .refine((seen) => new Set(seen).size === seen.length, { ...told`A sign is named twice.` }),
  note: Note,
});

/** What papers that travel with trees say of the nursery: names and numbers that local rules ask for, in its own words. */
export const Papers = z.object({
  schema: z.literal(1),
  fields: z
    .array(z.object({ name: wordsOf(60).min(1, told`A line has a name.`), value: wordsOf(200) }))
    .max(20, told`At most 20 lines.`),
});
export type Papers = z.infer<typeof Papers>;
export const KeptPapers = z.object({ version: z.number(), papers: Papers });
export const EditedPapers = z.object({ version: wholeNumber('Version', 0, 1e9), papers: Papers });

/** What was lifted and lies there, or left within a year and a little. */
export const Parcels = z.object({
  parcels: z.array(Parcel),
  sendings: z.array(Sending),
  asides: z.array(Aside),
  looks: z.array(Look),
});
export type Parcels = z.infer<typeof Parcels>;

export const PutParcel = z.object({ id: Id, place: Words });

/** So many of which parcels, each named once. */
const parts = (least: number) =>
  z
    .array(z.object({ parcelId: Id, count: wholeNumber('Trees', 1, 10_000_000) }))
    .min(least, told`Say how many of which parcel go.`)
    .max(200, told`At most 200 parcels at once.`)
    .refine((all) => new Set(all.map(({ parcelId }) => parcelId)).size === all.length, {
      ...told`A parcel is named twice.`,
    });

/** All that is set aside for a line from now on; without parts, nothing is. */
export const SetAside = z.object({ id: Id, order: z.object({ id: Id, lineId: Id }), parts: parts(0) });

export const SendTrees = z
  .object({
    id: Id,
    on: PlainDate,
    /** The line of an order it serves; null for trees that go without one. */
    order: z.object({ id: Id, lineId: Id }).nullable(),
    /** Who gets them, in words; empty where the order says. */
    to: Words,
    note: Note,
    parts: parts(1),
  })
  .refine(({ order, to }) => order !== null || to !== '', {
    ...told`Say who gets them.`,
    path: ['to'],
  });

export const BringBack = z.object({
  id: Id,
  on: PlainDate,
  /** Where they lie now. */
  place: Words,
  /** Whether the line wants as many again, or so many fewer; says nothing of what was sent for no line. */
  wantedAgain: z.boolean(),
  /** What the dead died of. */
  cause: z.enum(growingLosses),
  note: Note,
  parts: z
    .array(
      z
        .object({
          parcelId: Id,
          count: wholeNumber('Came back', 1, 10_000_000),
          dead: wholeNumber('Dead', 0, 10_000_000),
        })
        .refine(({ count, dead }) => dead <= count, { ...told`More dead than came back.`, path: ['dead'] }),
    )
    .min(1, told`Say how many of which parcel came back.`)
    .max(200, told`At most 200 parcels at once.`)
    .refine((all) => new Set(all.map(({ parcelId }) => parcelId)).size === all.length, {
      ...told`A parcel is named twice.`,
    }),
});
