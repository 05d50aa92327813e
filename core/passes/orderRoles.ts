import { CUT_ROLES, type CutRole } from '#core/drawing/lineRoles.ts';

/** A rule of the order: what must come before what, and why. */
interface OrderRule {
  readonly first: CutRole;
  readonly then: CutRole;
  readonly why: string;
}

const RULES: readonly OrderRule[] = [
  { first: 'crease', then: 'kiss', why: 'a crease presses the sheet: cut edges beside it would lift' },
  { first: 'crease', then: 'slit', why: 'a crease presses the sheet: cut edges beside it would lift' },
  { first: 'crease', then: 'perforated', why: 'a freed piece moves under the crease tool' },
  { first: 'crease', then: 'through', why: 'a freed piece moves under the crease tool' },
  { first: 'score', then: 'slit', why: 'a slit lets the sheet spread under the blade' },
  { first: 'score', then: 'perforated', why: 'a piece that is nearly free shifts under the blade' },
  { first: 'score', then: 'through', why: 'a piece that is free cannot be scored' },
  { first: 'kiss', then: 'slit', why: 'a slit lets the sheet spread under the blade' },
  { first: 'kiss', then: 'perforated', why: 'a piece that is nearly free shifts under the blade' },
  { first: 'kiss', then: 'through', why: 'a piece that is free cannot be kissed' },
  { first: 'slit', then: 'perforated', why: 'the piece is freed last' },
  { first: 'slit', then: 'through', why: 'the piece is freed last' },
  { first: 'perforated', then: 'through', why: 'tabs still hold while the rest is cut' },
];

/**
 * The roles of a job in the order they are cut, and where an order chosen by hand breaks a rule.
 *
 * @param wanted by hand, or `null`; roles it does not name follow in the usual order
 * @example orderRoles(['through', 'kiss'], null).roles // ['kiss', 'through']
 */
export function orderRoles(
  present: readonly CutRole[],
  wanted: readonly CutRole[] | null,
): { readonly roles: readonly CutRole[]; readonly violations: readonly string[] } {
  const usual = CUT_ROLES.filter((role) => present.includes(role));
  if (!wanted) return { roles: usual, violations: [] };
  const named = wanted.filter((role, index) => present.includes(role) && wanted.indexOf(role) === index);
  const roles = [...named, ...usual.filter((role) => !named.includes(role))];
  const violations = RULES.filter(
    ({ first, then }) =>
      roles.includes(first) && roles.includes(then) && roles.indexOf(first) > roles.indexOf(then),
  ).map(({ first, then, why }) => `${then} before ${first}: ${why}`);
  return { roles, violations };
}
