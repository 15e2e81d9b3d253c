import { told } from '../told';
import { z } from 'zod';
import { isTimeZone } from '../../calendar/day';
import { Id, Name, numberBetween, RoleName } from '../basics';

const Email = z
  .string()
  .trim()
  .toLowerCase()
  .max(200)
  .pipe(z.email(told`This is not an e-mail address.`));
const Password = z
  .string()
  .min(10, told`A password has at least 10 characters.`)
  .max(200, told`At most 200 characters.`);

/** A password as it is typed to be checked. */
const TypedPassword = z
  .string()
  .min(1, told`Type the password.`)
  .max(200, told`At most 200 characters.`);

/** What a browser is: one at a desk, which is left when work ends, or a device of the yard’s own. */
export const deviceKinds = ['desk', 'yard'] as const;
const DeviceKind = z.enum(deviceKinds);

/** Six digits of an authenticator, or a recovery code. */
const Code = z
  .string()
  .trim()
  .max(40, told`A code has at most 40 characters.`);

export const SignIn = z.object({
  email: Email,
  password: TypedPassword,
  /** Only where a second factor is kept. */
  code: Code.optional(),
  device: DeviceKind.default('desk'),
});

/** The secret of a link that is sent by hand: 32 random bytes, made by whoever makes the link; only its digest is kept. */
const Secret = z
  .string()
  .regex(/^[\w-]{43}$/, told`This link is not whole. Copy all of it, to the last letter.`);
export const BySecret = z.object({ secret: Secret });

const Instant = z.string();

/** Everybody of a nursery, as its owner sees them. */
export const Crew = z.object({
  people: z.array(
    z.object({
      id: Id,
      name: z.string(),
      email: z.string(),
      role: RoleName,
      since: Instant,
      /** When a browser of theirs was last used, to the quarter of an hour; null while none is signed in. */
      seenAt: Instant.nullable(),
      secondFactor: z.boolean(),
    }),
  ),
  invites: z.array(
    z.object({
      id: Id,
      name: z.string(),
      role: RoleName,
      by: z.string(),
      endsAt: Instant,
    }),
  ),
});
export type Crew = z.infer<typeof Crew>;

export const Invite = z.object({ id: Id, name: Name, role: RoleName, secret: Secret });
/** What whoever holds an invitation is told before they take it. */
export const InviteSeen = z.object({
  nurseryName: z.string(),
  role: RoleName,
  name: z.string(),
  by: z.string(),
});
export type InviteSeen = z.infer<typeof InviteSeen>;

const NewPerson = z.object({ id: Id, name: Name, email: Email, password: Password });
/** Takes an invitation: as somebody new, or as whoever is signed in. */
export const Join = z.object({ secret: Secret, person: NewPerson.nullable() });

export const ChangeRole = z.object({
  id: Id,
  role: RoleName,
  /** The role they had on the screen. */
  was: RoleName,
});
export const MakePasswordLink = z.object({ id: Id, secret: Secret });
export const PasswordLinkSeen = z.object({ name: z.string(), email: z.string() });
export const SetPasswordByLink = z.object({ secret: Secret, password: Password });
export const ChangePassword = z.object({ current: TypedPassword, next: Password });
export const JustPassword = z.object({ password: TypedPassword });
export const JustCode = z.object({ code: Code });

/** One's own account. */
export const Account = z.object({
  secondFactor: z.boolean(),
  /** Recovery codes not used yet. */
  recoveryLeft: z.number().int(),
  browsers: z.array(
    z.object({
      id: z.uuid(),
      /** What the browser calls itself. */
      agent: z.string(),
      device: DeviceKind,
      here: z.boolean(),
      startedAt: Instant,
      seenAt: Instant,
    }),
  ),
});
export type Account = z.infer<typeof Account>;

/** A secret for an authenticator, not in force before a code of it is given. */
export const SecondFactorOffer = z.object({ secret: z.string(), uri: z.string() });
export const RecoveryCodes = z.object({ codes: z.array(z.string()) });

/** A language, BCP 47; English where Kauri has no file of it. */
const Language = z.string().regex(/^[a-z]{2,3}(-[A-Z]{2})?$/, told`A language is written as es or en-US.`);

export const NewNursery = z.object({
  id: Id,
  name: Name,
  placeName: Name,
  latitudeDeg: numberBetween('Latitude', -66, 66, '° (north is positive)'),
  longitudeDeg: numberBetween('Longitude', -180, 180, '° (east is positive)'),
  elevationM: numberBetween('Height above sea', -100, 4500, 'm'),
  timeZone: z.string().refine(isTimeZone, told`Choose a time zone such as Europe/London.`),
  units: z.enum(['metric', 'us']),
  language: Language.optional(),
});
export const NurseryLanguage = z.object({ language: Language });

export const Setup = z.object({
  /** Null where the first nursery is to come from an archive. */
  nursery: NewNursery.nullable(),
  person: NewPerson,
});

export const Me = z.object({
  person: z.object({ id: Id, name: z.string(), email: z.string() }),
  memberships: z.array(
    z.object({
      nurseryId: Id,
      nurseryName: z.string(),
      role: RoleName,
      language: z.string(),
      /** Made for this person alone to try things in: nothing in it is real. */
      practice: z.boolean(),
    }),
  ),
});
export type Me = z.infer<typeof Me>;

export const practiceStates = ['none', 'making', 'ready', 'failed'] as const;
/** The nursery somebody practises in, and how far it has come. */
export const Practice = z.object({ state: z.enum(practiceStates), nurseryId: Id.nullable() });
export type Practice = z.infer<typeof Practice>;
/** Makes it, in place of one that was there. */
export const MakePractice = z.object({ id: Id, south: z.boolean(), language: Language });

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
