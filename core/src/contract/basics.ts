import { say, word } from '../speech/say';
import { told } from './told';
import { z } from 'zod';
import { groupThousands } from '../units/units';
import { roles } from './roles';

/** Ids are UUIDv7, made by whoever creates the row, so that a retried write is the same write. */
export const Id = z.uuidv7(told`This id is not a UUIDv7.`);

/** A plain date of work. */
export const PlainDate = z.iso
  .date(told`A date is written YYYY-MM-DD and must exist.`)
  .refine(
    (iso) => iso >= '1950-01-01' && iso <= '2150-12-31',
    told`The date must lie between 1950 and 2150.`,
  );

export const Name = z
  .string()
  .trim()
  .min(1, told`A name is needed.`)
  .max(120, told`At most 120 characters.`)
  .regex(/^[^\p{Cc}]*$/u, told`A name holds no control characters.`);

export const Note = z
  .string()
  .trim()
  .max(2000, told`At most 2 000 characters.`)
  .regex(/^[^\p{Cc}]*(\n[^\p{Cc}]*)*$/u, told`A note holds no control characters.`)
  .default('');

/** A limit as figures are set in Kauri. */
function grouped(limit: number): string {
  return groupThousands(String(limit).replace('-', '−'));
}

/** A whole number within limits, with a sentence in the grower's words. */
export function wholeNumber(what: string, least: number, most: number) {
  const sentence = {
    error: () => say`${word(what)}: a whole number from ${grouped(least)} to ${grouped(most)}.`,
  };
  return z.number(sentence).int(sentence).min(least, sentence).max(most, sentence);
}

/** Words of one line, in the grower's own way; may be empty. */
export const wordsOf = (most: number) =>
  z
    .string()
    .trim()
    .max(most, told`At most ${most} characters.`)
    .regex(/^[^\p{Cc}]*$/u, told`It holds no control characters.`);

/** The id of a write that has nothing else to say: sent again, it is taken once. */
export const JustId = z.object({ id: Id });

/** A number within limits, with a sentence. */
export function numberBetween(what: string, least: number, most: number, unit = '') {
  const sentence = {
    error: () =>
      say`${word(what)}: a number from ${grouped(least)} to ${grouped(most)}${unit && ` ${unit}`}.`,
  };
  return z.number(sentence).min(least, sentence).max(most, sentence);
}

export const RoleName = z.enum(roles);

/** An answer that says what went wrong (RFC 9457). */
export const Problem = z.object({
  type: z.string(),
  title: z.string(),
  status: z.number(),
  detail: z.string(),
  fields: z.array(z.object({ path: z.string(), message: z.string() })).optional(),
  /** For a stale edit: the row as it stands now. */
  current: z.unknown().optional(),
  requestId: z.string().optional(),
});
export type Problem = z.infer<typeof Problem>;

/** The stage a lot stood in, as whoever writes of it saw it: what is written of a lot moved meanwhile is asked about first. */
export const Seen = Id.optional().describe('The stage the lot was seen in');
