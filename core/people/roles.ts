/** What somebody may do, the least first. `nobody` has not signed in. */
export const ROLES = ['nobody', 'guest', 'operator', 'owner'] as const;
export type Role = (typeof ROLES)[number];

/** Roles that people have. */
export const GIVEN_ROLES = ['guest', 'operator', 'owner'] as const;
export type GivenRole = (typeof GIVEN_ROLES)[number];

/** What each may do, in the words of its form. */
export const ROLE_MEANS: Readonly<Record<GivenRole, string>> = {
  guest: 'looks, starts nothing',
  operator: 'cuts, grades, keeps',
  owner: 'people, machines, beliefs and copies as well',
};

/**
 * What somebody may do who came in by a PIN: four digits make nobody owner.
 *
 * @example roleByPin('owner') // 'operator'
 */
export function roleByPin(role: GivenRole): GivenRole {
  return role === 'owner' ? 'operator' : role;
}

/**
 * Whether a role reaches so far.
 *
 * @example mayAs('operator', 'guest') // true
 */
export function mayAs(role: Role, needed: Role): boolean {
  return ROLES.indexOf(role) >= ROLES.indexOf(needed);
}
