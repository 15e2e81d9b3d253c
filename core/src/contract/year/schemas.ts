import { told } from '../told';
import { z } from 'zod';
import { cullReasons } from '../../lifting/culls';
import { Id, PlainDate } from '../basics';
import { origins } from '../lots/schemas';

/** Days of a year told of, the first and the last of them. */
export const YearQuery = z
  .object({ from: PlainDate, until: PlainDate })
  .refine(({ from, until }) => from <= until, {
    ...told`It ends before it begins.`,
    path: ['until'],
  });

/** Seeds and trees of all lots of a species, as the ledger has them: what each account held before, and what moved since. */
export const Year = z.object({
  opening: z.array(z.object({ speciesId: Id, account: z.string(), count: z.number() })),
  /** By how the lots began: what is pricked out, set apart or bought in was not raised of seed that year. */
  flows: z.array(
    z.object({
      speciesId: Id,
      origin: z.enum(origins),
      from: z.string(),
      to: z.string(),
      count: z.number(),
    }),
  ),
  /** Why trees were culled at lifts, as far as it was said. */
  culls: z.array(z.object({ speciesId: Id, why: z.enum(cullReasons), count: z.number() })),
});
export type Year = z.infer<typeof Year>;
