import { told } from '../told';
import { z } from 'zod';
import { todayRules } from '../../today/rules';
import { actParts, actSubjects } from '../../today/todayOf';
import { Id, Name, numberBetween, PlainDate, RoleName, wholeNumber } from '../basics';

const rule = z.enum(todayRules);
const reason = z
  .string()
  .trim()
  .max(300, told`At most 300 characters.`)
  .regex(/^[^\p{Cc}]*$/u, told`A reason holds no control characters.`);
const minutes = numberBetween('Minutes', 1, 100_000).nullable();

/** What was done about an act of Today. */
export const MarkAct = z
  .object({
    id: Id,
    rule,
    subjectId: Id.nullable(),
    mark: z.enum(['done', 'skipped', 'assigned']),
    on: PlainDate,
    /** First day it may be asked for again; for an act done, its rule says. */
    until: PlainDate.nullable(),
    reason: reason.default(''),
    minutes: minutes.default(null),
    trees: wholeNumber('Trees', 0, 10_000_000),
    assignedTo: Id.nullable().default(null),
  })
  .refine((m) => m.mark !== 'skipped' || m.reason !== '', {
    ...told`Say why it is skipped, for whoever looks next.`,
    path: ['reason'],
  })
  .refine((m) => m.mark !== 'skipped' || (m.until !== null && m.until > m.on), {
    ...told`Say from which day it may be asked again.`,
    path: ['until'],
  })
  .refine((m) => m.mark !== 'assigned' || m.assignedTo !== null, {
    ...told`Say whose it is.`,
    path: ['assignedTo'],
  });

/** What was done about several acts at once. */
export const MarkTogether = z.object({ id: Id, marks: z.array(MarkAct).min(1).max(500) });

export const KeptMark = z.object({
  id: Id,
  rule,
  subjectId: Id.nullable(),
  mark: z.enum(['done', 'skipped', 'assigned']),
  on: PlainDate,
  until: PlainDate,
  reason: z.string(),
  minutes: z.number().nullable(),
  trees: z.number(),
  assignedTo: Id.nullable(),
  by: z.string(),
});
export type KeptMark = z.infer<typeof KeptMark>;

/** Which rules are muted, and which come up earlier. */
export const TodayRulesSchema = z.object({
  schema: z.literal(1),
  rules: z.partialRecord(
    rule,
    z.object({ muted: z.boolean(), leadDays: wholeNumber('Days earlier', 0, 90) }),
  ),
});
export type TodayRules = z.infer<typeof TodayRulesSchema>;
export const EditedTodayRules = z.object({
  version: wholeNumber('Version', 0, 1e9),
  rules: TodayRulesSchema,
});

/** What Today needs beside the forecasts. */
export const TodayBook = z.object({
  marks: z.array(KeptMark),
  version: z.number(),
  rules: TodayRulesSchema,
  people: z.array(z.object({ id: Id, name: Name, role: RoleName })),
  /** Whether this person's calendar has an address. */
  calendar: z.boolean(),
});
export type TodayBook = z.infer<typeof TodayBook>;

/** The private address of one person's calendar; shown once, only its digest is kept. */
export const CalendarAddress = z.object({ path: z.string() });

const whenKind = z.enum(['now', 'week', 'weeks', 'watch']);

/** One act as the server works it out. */
export const ServerAct = z.object({
  rule,
  part: z.enum(actParts),
  /** Whose page it leads to. */
  of: z.enum(actSubjects),
  /** The lot, batch, bag or layer, and what it is called; null where it is about several lots. */
  subjectId: Id.nullable(),
  about: z.string(),
  when: whenKind,
  by: PlainDate.nullable(),
  trees: z.number(),
  loss: z.number(),
  minutes: z.number(),
  lossPerHour: z.number(),
  title: z.string(),
  reason: z.string(),
  /** What waiting costs; empty where it costs nothing. */
  waiting: z.string(),
  assignedTo: Id.nullable(),
});
export const TodayQuery = z.object({
  each: z.coerce
    .number()
    .int()
    .min(1)
    .max(1000)
    .optional()
    .describe('At most so many acts of each kind of urgency; all where it is left out'),
});
export const ServerToday = z.object({
  on: PlainDate,
  acts: z.array(ServerAct),
  /** Acts of each kind of urgency, with those left out. */
  counts: z.record(whenKind, z.number()),
  /** Lots forecast anew when it was worked out; the others stood as they were. */
  forecast: z.number(),
  /** Lots whose forecast failed, with why. */
  faults: z.array(z.object({ lotId: Id, code: z.string(), fault: z.string() })),
  /** When it was worked out; null while it never was for this day. */
  workedAt: z.string().nullable(),
  /** Something changed since and is being worked out. */
  working: z.boolean(),
});
