import { z } from 'zod';
import { foretold } from '../../forecast/foretold';
import { learntFigures } from '../../growth/learnt';
import { Id, PlainDate, wholeNumber } from '../basics';

/** A value the nursery's own lots taught, taken or turned down. */
export const LearntValue = z.object({
  id: Id,
  speciesId: Id,
  /** The container it was learnt in; null for beds. */
  containerTypeId: Id.nullable(),
  figure: z.enum(learntFigures),
  /** Factor on the species' value, and the spread left, as the standard deviation of its logarithm. */
  factor: z.number().min(0.05).max(20),
  sdLog: z.number().min(0.001).max(3),
  lots: wholeNumber('Lots', 1, 100_000),
  on: PlainDate,
  state: z.enum(['accepted', 'declined']),
});
export type LearntValue = z.infer<typeof LearntValue>;

/** How many times as wide bands of a figure are from now on, by how past forecasts held; taken, and taken back. */
export const BandWidth = z.object({
  figure: z.enum(foretold),
  width: z.number().min(0.5).max(2.5),
  /** Measurements it rests on. */
  n: wholeNumber('Measurements', 1, 10_000_000),
  on: PlainDate,
});
export type BandWidth = z.infer<typeof BandWidth>;

export const LearntSchema = z.object({
  schema: z.literal(1),
  values: z.array(LearntValue).max(2000),
  bands: z.array(BandWidth).max(foretold.length).optional(),
});
export type LearntValues = z.infer<typeof LearntSchema>;
export const KeptLearnt = z.object({ version: z.number(), learnt: LearntSchema });
export type KeptLearnt = z.infer<typeof KeptLearnt>;
export const EditedLearnt = z.object({ version: wholeNumber('Version', 0, 1e9), learnt: LearntSchema });
