import { applyEdits, OFFSET_COLOUR } from '#core/checks/applyEdits.ts';
import type { DrawingEdit } from '#core/checks/drawingEdit.ts';
import type { BorderOrder } from '#core/drawing/border/border.ts';
import type { Drawing, DrawnContour } from '#core/drawing/drawing.ts';
import { isCutRole, roleOf, type GivenRoles, type Role } from '#core/drawing/roles/lineRoles.ts';
import type { JobDrawing } from '#core/job/job.ts';

/** The border that a drawing's pieces have of their own: what it is like, and the colour that is printed up to it. */
export interface OwnBorder extends BorderOrder {
  /** #rrggbb; `null` for the sheet's own. */
  readonly colour: string | null;
}

type Bordered = Pick<JobDrawing, 'edits' | 'roles' | 'lineRoles'>;
type OffsetEdit = Extract<DrawingEdit, { kind: 'offset' }>;

const LAYER = 'own border';

/**
 * The border of a drawing.
 *
 * @returns `null` where it is cut at its own outline
 * @example borderOf([]) // null
 */
export function borderOf(edits: readonly DrawingEdit[]): OwnBorder | null {
  const edit = edits.find(isBorder);
  if (!edit) return null;
  const { byMm, closesMm = 0, backing = 'outline', keepsApart, colour } = edit;
  return { byMm, closesMm, backing, ...(keepsApart ? { keepsApart } : {}), colour: colour ?? null };
}

function isBorder(edit: DrawingEdit): edit is OffsetEdit {
  return edit.kind === 'offset' && edit.isOwn === true;
}

/**
 * The mends that come before a border: what it goes around is drawn by them.
 *
 * @example editsBefore([{ kind: 'dropDuplicates' }]).length // 1
 */
export function editsBefore(edits: readonly DrawingEdit[]): readonly DrawingEdit[] {
  const at = edits.findIndex(isBorder);
  return at < 0 ? edits : edits.slice(0, at);
}

/**
 * The outlines that a border goes around, and stands in for: closed lines that are cut, all in one way.
 *
 * @param drawing with the mends before it
 * @returns empty where nothing is cut, or in several ways: then a border would take a line from its work
 * @example bordered({ ...drawing, contours: drawing.contours.slice(0, 1) }, given).length // 1
 */
export function bordered(drawing: Drawing, given: GivenRoles): readonly DrawnContour[] {
  const cut = drawing.contours.filter((line) => isCutRole(roleOf(line, given)));
  const roles = new Set(cut.map((line) => roleOf(line, given)));
  const isPlain = cut.every(({ contour, fillColour }) => contour.isClosed && fillColour === null);
  return roles.size === 1 && isPlain ? cut : [];
}

/** The outlines that a first border goes around, and what they are cut as. */
export interface BorderedLines {
  readonly ids: readonly number[];
  readonly role: Role;
}

/**
 * A drawing with a border, or with another one. The new line is cut as the outline was.
 *
 * @param lines what it goes around; `null` for what the border it has goes around
 * @example setBorder({ ...given, edits: [] }, { ids: [0], role: 'kiss' }, { byMm: 2, closesMm: 0, backing: 'outline', colour: null }).edits.length // 1
 */
export function setBorder(
  one: Bordered,
  lines: BorderedLines | null,
  border: OwnBorder,
): Pick<Bordered, 'edits' | 'roles'> {
  const { edits, roles } = one;
  const at = edits.findIndex(isBorder);
  const before = edits.find(isBorder);
  const { colour, ...shape } = border;
  const edit: OffsetEdit = {
    kind: 'offset',
    lineIds: lines?.ids ?? before?.lineIds ?? [],
    isInked: false,
    isOwn: true,
    layer: LAYER,
    ...shape,
    ...(colour ? { colour } : {}),
  };
  const next = at < 0 ? [...edits, edit] : edits.map((old, index) => (index === at ? edit : old));
  return { edits: next, roles: lines ? { ...roles, [`${LAYER}|${OFFSET_COLOUR}`]: lines.role } : roles };
}

/**
 * A drawing cut at its own outline.
 *
 * @example withoutBorder([{ kind: 'dropDuplicates' }]).length // 1
 */
export function withoutBorder(edits: readonly DrawingEdit[]): readonly DrawingEdit[] {
  return edits.filter((edit) => !isBorder(edit));
}

/**
 * A drawing as it begins with a border.
 *
 * @param drawing as its file has it
 * @returns as it was where there is nothing to go around
 * @example startBorder({ ...given, edits: [] }, drawing, { byMm: 2, closesMm: 0, backing: 'outline', colour: null }).edits // []
 */
export function startBorder(
  one: Bordered,
  drawing: Drawing,
  border: OwnBorder,
): Pick<Bordered, 'edits' | 'roles'> {
  const lines = bordered(applyEdits(drawing, one.edits), one);
  const role = lines[0] ? roleOf(lines[0], one) : null;
  return role ? setBorder(one, { ids: lines.map(({ id }) => id), role }, border) : one;
}
