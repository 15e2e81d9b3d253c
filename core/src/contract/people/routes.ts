import { z } from 'zod';
import { route } from '../route';
import { peoplePaths as paths } from './paths';
import * as people from './schemas';

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
} as const;
