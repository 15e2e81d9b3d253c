import { z } from 'zod';
import { told } from '../told';
import { PlainDate, Id, numberBetween, wholeNumber } from '../basics';

/** How the weeks of lifting are planned: the hands there are, and lots that somebody moved to a day. */
export const LiftingPlan = z.object({
  schema: z.literal(1),
  hands: z.object({
    people: wholeNumber('People', 1, 200),
    hoursADay: numberBetween('Hours a day', 0.25, 16, 'h'),
    /** Monday 0 to Sunday 6. */
    weekdays: z
      .array(wholeNumber('Weekday', 0, 6))
      .min(1, told`Lifting needs a day of the week at least.`)
      .max(7)
      .refine((days) => new Set(days).size === days.length, { ...told`A day of the week is said twice.` }),
  }),
  /** Lots lifted on a day because somebody said so, and not when the order would have them. */
  moved: z
    .array(z.object({ lotId: Id, day: PlainDate }))
    .max(2000)
    .refine((all) => new Set(all.map(({ lotId }) => lotId)).size === all.length, {
      ...told`A lot is moved to one day only.`,
    }),
});
export type LiftingPlan = z.infer<typeof LiftingPlan>;
export const KeptLiftingPlan = z.object({ version: z.number(), plan: LiftingPlan });
export type KeptLiftingPlan = z.infer<typeof KeptLiftingPlan>;
export const EditedLiftingPlan = z.object({ version: wholeNumber('Version', 0, 1e9), plan: LiftingPlan });
