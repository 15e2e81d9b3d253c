import { z } from 'zod';
import { holdCauses, holdCovers, holdNoteNames } from '../../growing/humidityHold';
import { Id, Note, PlainDate, wholeNumber } from '../basics';

export const Hold = z.object({
  id: Id,
  lotId: Id,
  code: z.string(),
  speciesId: Id,
  begunOn: PlainDate,
  cause: z.enum(holdCauses),
  cover: z.enum(holdCovers),
  /** Trees it began with. */
  count: z.number(),
  note: z.string(),
  by: z.string(),
  steps: z.array(
    z.object({ id: Id, on: PlainDate, what: z.enum(holdNoteNames), note: z.string(), by: z.string() }),
  ),
  /** Null while it is under way; else the day it ended and how many came through. */
  ended: z.object({ on: PlainDate, alive: z.number() }).nullable(),
});
export type Hold = z.infer<typeof Hold>;
export const Holds = z.object({ holds: z.array(Hold) });
export type Holds = z.infer<typeof Holds>;

export const BeginHold = z.object({
  id: Id,
  on: PlainDate,
  cause: z.enum(holdCauses),
  cover: z.enum(holdCovers),
  note: Note,
});
export const NoteHold = z.object({ id: Id, on: PlainDate, what: z.enum(holdNoteNames), note: Note });
export const EndHold = z.object({
  id: Id,
  on: PlainDate,
  alive: wholeNumber('Alive', 0, 1_000_000),
  note: Note,
});
