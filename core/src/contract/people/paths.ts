import type { Path } from '../route';

/** Accounts and nurseries: method and path of every route. */
export const peoplePaths = {
  health: ['GET', '/health'],
  door: ['GET', '/door'],
  setup: ['POST', '/setup'],
  signIn: ['POST', '/sign-in'],
  signOut: ['POST', '/sign-out'],
  signOutEverywhere: ['POST', '/sign-out-everywhere'],
  me: ['GET', '/me'],
} as const satisfies Record<string, Path>;
