/** What people may do in a nursery, each including those before it. */
export const roles = ['visitor', 'crew', 'grower', 'owner'] as const;
export type Role = (typeof roles)[number];

/** Whether a role may do what another is needed for. */
export function mayAct(has: Role, needed: Role): boolean {
  return roles.indexOf(has) >= roles.indexOf(needed);
}
