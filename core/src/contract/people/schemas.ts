import { z } from 'zod';
import { isTimeZone } from '../../calendar/day';
import { Id, Name, numberBetween, RoleName } from '../basics';

const Email = z.string().trim().toLowerCase().max(200).pipe(z.email('This is not an e-mail address.'));
const Password = z
  .string()
  .min(10, 'A password has at least 10 characters.')
  .max(200, 'At most 200 characters.');

export const SignIn = z.object({ email: Email, password: z.string().min(1, 'Type the password.').max(200) });

export const NewNursery = z.object({
  id: Id,
  name: Name,
  placeName: Name,
  latitudeDeg: numberBetween('Latitude', -66, 66, '° (north is positive)'),
  longitudeDeg: numberBetween('Longitude', -180, 180, '° (east is positive)'),
  elevationM: numberBetween('Height above sea', -100, 4500, 'm'),
  timeZone: z.string().refine(isTimeZone, 'Choose a time zone such as Europe/London.'),
  units: z.enum(['metric', 'us']),
});

export const Setup = z.object({
  nursery: NewNursery,
  person: z.object({ id: Id, name: Name, email: Email, password: Password }),
});

export const Me = z.object({
  person: z.object({ id: Id, name: z.string(), email: z.string() }),
  memberships: z.array(z.object({ nurseryId: Id, nurseryName: z.string(), role: RoleName })),
});
export type Me = z.infer<typeof Me>;

/** What the sign-in page needs before anyone is signed in. */
export const Door = z.object({
  needsSetup: z.boolean(),
  demoPeople: z.array(
    z.object({
      name: z.string(),
      role: RoleName,
      nursery: z.string(),
      email: z.string(),
      password: z.string(),
    }),
  ),
});
export type Door = z.infer<typeof Door>;
