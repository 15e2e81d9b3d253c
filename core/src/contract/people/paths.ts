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
  addNursery: ['POST', '/nurseries'],
  account: ['GET', '/account'],
  changePassword: ['POST', '/account/password'],
  endBrowser: ['POST', '/account/browsers/:browser/end'],
  offerSecondFactor: ['POST', '/account/second-factor/offer'],
  confirmSecondFactor: ['POST', '/account/second-factor/confirm'],
  dropSecondFactor: ['POST', '/account/second-factor/drop'],
  seeInvite: ['POST', '/invites/see'],
  join: ['POST', '/invites/join'],
  seePasswordLink: ['POST', '/password-links/see'],
  setPasswordByLink: ['POST', '/password-links/use'],
  crew: ['GET', '/nurseries/:nursery/crew'],
  invite: ['POST', '/nurseries/:nursery/invites'],
  withdrawInvite: ['POST', '/nurseries/:nursery/invites/:invite/withdraw'],
  changeRole: ['POST', '/nurseries/:nursery/people/:person/role'],
  removePerson: ['POST', '/nurseries/:nursery/people/:person/remove'],
  makePasswordLink: ['POST', '/nurseries/:nursery/people/:person/password-link'],
} as const satisfies Record<string, Path>;
