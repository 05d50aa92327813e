import type { LineGroup, Role } from '#core/drawing/roles/lineRoles.ts';

/** A rule of the workshop's own: which lines take which role. What is `null` is not asked. */
export interface RoleRule {
  /** Found anywhere in the layer's name, whatever the case. */
  readonly layer: string | null;
  /** #rrggbb, exactly. */
  readonly colour: string | null;
  readonly isDashed: boolean | null;
  readonly role: Role;
}

/**
 * The rule that speaks most closely of a group: one that asks more wins, then the earlier one.
 *
 * @returns `null` when none fits
 * @example findRule([{ layer: 'cut', colour: null, isDashed: null, role: 'through' }], { layer: 'Cut 1', colour: '#000000', dash: null })?.role // 'through'
 */
export function findRule(
  rules: readonly RoleRule[],
  group: Pick<LineGroup, 'layer' | 'colour' | 'dash'>,
): RoleRule | null {
  const fitting = rules.filter(
    ({ layer, colour, isDashed }) =>
      (layer === null || (group.layer ?? '').toLowerCase().includes(layer.toLowerCase())) &&
      (colour === null || colour.toLowerCase() === group.colour) &&
      (isDashed === null || isDashed === (group.dash !== null)) &&
      (layer ?? colour ?? isDashed) !== null,
  );
  return fitting.reduce<RoleRule | null>(
    (best, rule) => (best === null || asks(rule) > asks(best) ? rule : best),
    null,
  );
}

function asks({ layer, colour, isDashed }: RoleRule): number {
  return (layer === null ? 0 : 1) + (colour === null ? 0 : 1) + (isDashed === null ? 0 : 1);
}

/**
 * The rule that a role given by hand to a group would make: its layer where it has one, else its colour.
 *
 * @example ruleFromGroup({ layer: 'cut', colour: '#ff0000', dash: null }, 'through').role // 'through'
 */
export function ruleFromGroup(group: Pick<LineGroup, 'layer' | 'colour' | 'dash'>, role: Role): RoleRule {
  return {
    layer: group.layer,
    colour: group.layer === null && group.colour.startsWith('#') ? group.colour : null,
    isDashed: group.dash === null ? null : true,
    role,
  };
}
