import { z } from 'zod';
import { Id, JustId } from '../basics';
import { inNursery, route } from '../route';
import { peoplePaths as paths } from './paths';
import * as people from './schemas';

const atPerson = z.object({ nursery: Id, person: Id });

/** Accounts and nurseries. */
export const peopleRoutes = {
  health: route(paths.health, 'anyone', 'Whether the server and its database answer', {
    answer: z.object({ server: z.literal('up'), database: z.enum(['up', 'down']) }),
  }),
  door: route(paths.door, 'anyone', 'What the sign-in page needs', { answer: people.Door }),
  setup: route(paths.setup, 'anyone', 'First start: the first nursery and its owner', {
    body: people.Setup,
    answer: people.Me,
  }),
  signIn: route(paths.signIn, 'anyone', 'Sign in by e-mail and password', {
    body: people.SignIn,
    answer: people.Me,
  }),
  signOut: route(paths.signOut, 'signed-in', 'Sign out of this browser'),
  signOutEverywhere: route(paths.signOutEverywhere, 'signed-in', 'Sign out of every browser'),
  me: route(paths.me, 'anyone', 'Who is signed in, and where they belong; null if nobody is', {
    answer: people.Me.nullable(),
  }),
  addNursery: route(
    paths.addNursery,
    'signed-in',
    'A nursery more, by somebody who owns one here, or is alone here and has none',
    { body: people.NewNursery, answer: people.Me },
  ),
  practice: route(paths.practice, 'signed-in', 'The nursery one practises in, and how far it has come', {
    answer: people.Practice,
  }),
  makePractice: route(
    paths.makePractice,
    'signed-in',
    'Makes a nursery to practise in, in its third season, in place of one that was there; off the thread that answers',
    { body: people.MakePractice, answer: people.Practice },
  ),
  account: route(paths.account, 'signed-in', 'One’s own account: second factor and signed-in browsers', {
    answer: people.Account,
  }),
  changePassword: route(
    paths.changePassword,
    'signed-in',
    'Change one’s password; other browsers are signed out',
    {
      body: people.ChangePassword,
    },
  ),
  endBrowser: route(paths.endBrowser, 'signed-in', 'Sign one of one’s browsers out', {
    params: z.object({ browser: z.uuid('There is no such browser.') }),
    answer: people.Account,
  }),
  offerSecondFactor: route(
    paths.offerSecondFactor,
    'signed-in',
    'A secret for an authenticator app (RFC 6238), not in force yet',
    { body: people.JustPassword, answer: people.SecondFactorOffer },
  ),
  confirmSecondFactor: route(
    paths.confirmSecondFactor,
    'signed-in',
    'Puts the second factor in force by a code of it; answers recovery codes, said once',
    { body: people.JustCode, answer: people.RecoveryCodes },
  ),
  dropSecondFactor: route(paths.dropSecondFactor, 'signed-in', 'Ends the second factor', {
    body: people.JustPassword,
    answer: people.Account,
  }),
  seeInvite: route(paths.seeInvite, 'anyone', 'What an invitation is to', {
    body: people.BySecret,
    answer: people.InviteSeen,
  }),
  join: route(paths.join, 'anyone', 'Takes an invitation, as somebody new or as whoever is signed in', {
    body: people.Join,
    answer: people.Me,
  }),
  seePasswordLink: route(paths.seePasswordLink, 'anyone', 'Whose password a link sets', {
    body: people.BySecret,
    answer: people.PasswordLinkSeen,
  }),
  setPasswordByLink: route(
    paths.setPasswordByLink,
    'anyone',
    'Sets a password by a one-time link; ends every session and the second factor',
    { body: people.SetPasswordByLink },
  ),
  crew: route(paths.crew, 'owner', 'Everybody of a nursery, and invitations not taken yet', {
    params: inNursery,
    answer: people.Crew,
  }),
  setLanguage: route(
    paths.setLanguage,
    'owner',
    'What the nursery speaks where nobody chose for themselves',
    { params: inNursery, body: people.NurseryLanguage, answer: people.NurseryLanguage },
  ),
  invite: route(paths.invite, 'owner', 'Makes an invitation, good once and for seven days', {
    params: inNursery,
    body: people.Invite,
    answer: people.Crew,
  }),
  withdrawInvite: route(paths.withdrawInvite, 'owner', 'Takes an invitation back', {
    params: z.object({ nursery: Id, invite: Id }),
    body: JustId,
    answer: people.Crew,
  }),
  changeRole: route(paths.changeRole, 'owner', 'Changes what somebody may do', {
    params: atPerson,
    body: people.ChangeRole,
    answer: people.Crew,
  }),
  removePerson: route(paths.removePerson, 'owner', 'Takes somebody out of a nursery; what they wrote stays', {
    params: atPerson,
    body: JustId,
    answer: people.Crew,
  }),
  makePasswordLink: route(
    paths.makePasswordLink,
    'owner',
    'Makes a one-time link by which somebody of the nursery alone sets a new password, good for a day',
    { params: atPerson, body: people.MakePasswordLink },
  ),
} as const;
