import { itemAt } from '#core/collections/itemAt.ts';
import { groupBy } from '#core/collections/groupBy.ts';
import type { Drawing, DrawnContour } from '#core/drawing/drawing.ts';
import type { Operation } from '#core/stack/operation.ts';

/** What a line is for, in the order in which they are cut. `art` is printed, `ignore` is neither printed nor cut. */
export const ROLES = ['crease', 'score', 'kiss', 'slit', 'perforated', 'through', 'art', 'ignore'] as const;
export type Role = (typeof ROLES)[number];

/** Roles that a blade or tool follows. */
export const CUT_ROLES = ['crease', 'score', 'kiss', 'slit', 'perforated', 'through'] as const;
export type CutRole = (typeof CUT_ROLES)[number];

/** Roles whose line frees a piece from its sheet. */
export const FREEING_ROLES: ReadonlySet<Role> = new Set<Role>(['perforated', 'through']);

/** Which setting a role is cut with: a slit is a through cut that frees nothing. */
export const OPERATION_OF: Readonly<Record<CutRole, Operation>> = {
  crease: 'crease',
  score: 'score',
  kiss: 'kiss',
  slit: 'through',
  perforated: 'perforated',
  through: 'through',
};

/** Roles by group key, and by line for those set by hand: a line's own role wins. */
export interface GivenRoles {
  readonly roles: Readonly<Record<string, Role>>;
  readonly lineRoles: Readonly<Record<string, Role>>;
}

/**
 *
 *
 * @example isCutRole('art') // false
 */
export function isCutRole(role: Role | null): role is CutRole {
  return role !== null && role !== 'art' && role !== 'ignore';
}

/**
 * The role of a line, or `null` when nobody gave it one. A copy on a sheet has the role of the line it was made from.
 *
 * @example roleOf(drawing.contours[0], given) // 'through'
 */
export function roleOf(
  line: DrawnContour & { readonly sourceId?: number },
  { roles, lineRoles }: GivenRoles,
): Role | null {
  const given = lineRoles[line.sourceId ?? line.id] ?? roles[groupKey(line)];
  if (given !== undefined) return given;
  if (line.isBehind) return 'art';
  // Gradients were once one group with what is black.
  return (line.isServed ? roles[groupKey({ ...line, isServed: false })] : undefined) ?? null;
}

/** Lines that look alike: one layer, one colour, one dash. Roles are given to groups. */
export interface LineGroup {
  /** Stable name of the group within its drawing. */
  readonly key: string;
  readonly layer: string | null;
  readonly colour: string;
  readonly dash: string | null;
  /** False where only fills give the colour. */
  readonly isStroked: boolean;
  readonly contourIds: readonly number[];
}

/** The colour of lines that a gradient or a pattern paints. */
export const GRADIENT = 'gradient';

/**
 * Groups in reading order. A line without stroke goes by its fill.
 *
 * @example groupLines(drawing).length // 2
 */
export function groupLines(drawing: Drawing): readonly LineGroup[] {
  return [...groupBy(drawing.contours, groupKey)].map(([key, lines]): LineGroup => {
    const first = itemAt(lines, 0);
    return {
      key,
      layer: first.layer,
      colour: colourOf(first),
      dash: first.dash,
      isStroked: lines.some(({ strokeColour }) => strokeColour !== null),
      contourIds: lines.map(({ id }) => id),
    };
  });
}

/**
 * The key of the group a line belongs to.
 *
 * @example groupKey(drawing.contours[0]) // '|#ff0000'
 */
export function groupKey(line: DrawnContour): string {
  return `${line.layer ?? ''}|${colourOf(line)}${line.dash === null ? '' : `|${line.dash}`}`;
}

function colourOf(line: DrawnContour): string {
  if (line.isServed) return GRADIENT;
  return line.strokeColour ?? line.fillColour ?? 'none';
}
