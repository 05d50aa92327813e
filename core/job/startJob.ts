import { applyEdits, OFFSET_COLOUR } from '#core/checks/applyEdits.ts';
import type { DrawingEdit } from '#core/checks/drawingEdit.ts';
import type { Drawing, DrawingFormat } from '#core/drawing/drawing.ts';
import {
  guessRoles,
  innerRole,
  lineRolesOf,
  rolesOf,
  type RoleFacts,
  type RoleGuess,
} from '#core/drawing/roles/guessRoles.ts';
import { isCutRole, roleOf, type Role } from '#core/drawing/roles/lineRoles.ts';
import type { RoleRule } from '#core/drawing/roles/roleRules.ts';
import { AppError } from '#core/errors/appError.ts';
import { PLAIN_PRINT, type Job } from '#core/job/job.ts';
import { PLAIN_CHOICES } from '#core/passes/plan.ts';
import { chooseSheet } from '#core/sheet/chooseSheet.ts';
import type { Shelf } from '#core/sheet/offerSheets.ts';
import { splitPieces } from '#core/sheet/nest/splitPieces.ts';
import type { Machine } from '#core/station/machine.ts';

/** What a job begins with, before it belongs to a material. */
export type StartedJob = Omit<Job, 'id' | 'conditionId' | 'machineId' | 'version' | 'updatedAt'>;

/** What the outline around art is called. */
const OUTLINE = 'outline';

/** Lines of that layer, as an offset draws them. */
const OUTLINE_GROUP = `${OUTLINE}|${OFFSET_COLOUR}`;

/** What reading a drawing for a bench comes to. */
interface Opened {
  readonly drawing: Drawing;
  readonly facts: RoleFacts;
  readonly rules: readonly RoleRule[];
}

/**
 * Whether what shows of art has to be traced from its picture, since its lines do not tell.
 *
 * @example isTraced(drawing) // false
 */
export function isTraced({ isMoreThanLines, images }: Pick<Drawing, 'isMoreThanLines' | 'images'>): boolean {
  return isMoreThanLines === true || images.length > 0;
}

/**
 * The roles of a drawing that is all art and has to be traced, so that a job cuts around it.
 *
 * @returns `null` for any other
 * @example rolesToTrace({ drawing, facts: { canKiss: true, isRollFed: false, canCrease: false }, rules: [] }) // null
 */
export function rolesToTrace({ drawing, facts, rules }: Opened): Readonly<Record<string, Role>> | null {
  if (!isTraced(drawing)) return null;
  const guesses = guessRoles(drawing, facts, rules);
  return isAllArt(guesses) ? rolesOf(guesses) : null;
}

function isAllArt(guesses: Readonly<Record<string, RoleGuess>>): boolean {
  const roles = Object.values(guesses).flatMap(({ role, lines = {} }) => [role, ...Object.values(lines)]);
  return roles.includes('art') && !roles.some(isCutRole);
}

/**
 * A job as it begins: roles guessed, the drawing as it is in the corner of the first sheet that takes it. Where
 * everything is art it is cut around once, at its edge.
 *
 * @param covered what the art covers, traced from its picture: path data in mm; see {@link rolesToTrace}
 * @throws AppError `badDrawing` when every line is to be ignored
 * @example startJob({ name: 'Labels.svg', format: 'svg', source: '' }, drawing, machine, { canKiss: true, isRollFed: false, canCrease: false }).name // 'Labels.svg'
 */
export function startJob(
  file: { readonly name: string; readonly format: DrawingFormat; readonly source: string },
  drawing: Drawing,
  bed: Pick<Machine, 'bedWidthMm' | 'bedLengthMm' | 'marginMm'>,
  facts: RoleFacts,
  rules: readonly RoleRule[] = [],
  covered?: string,
  shelf?: Shelf,
): StartedJob {
  const guesses = guessRoles(drawing, facts, rules);
  const outline = isAllArt(guesses) ? cutAround(drawing, guesses, covered) : null;
  const roles = rolesOf(guesses);
  const given = {
    roles: outline ? { ...roles, [OUTLINE_GROUP]: innerRole(facts) } : roles,
    lineRoles: lineRolesOf(guesses),
  };
  const scale = drawing.likelyScale;
  const edits: readonly DrawingEdit[] = [
    ...(scale ? [{ kind: 'scale', factor: scale } as const] : []),
    ...(outline ? [outline] : []),
  ];
  const [piece] = splitPieces(applyEdits(drawing, edits), given, true);
  if (!piece) throw new AppError('badDrawing', 'every line of this drawing is to be ignored');
  const { name, format, source } = file;
  return {
    name,
    format,
    source,
    ...given,
    areRolesGuessed: true,
    edits,
    ...chooseSheet(piece.box, bed, shelf),
    print: PLAIN_PRINT,
    passes: PLAIN_CHOICES,
  };
}

/** The mend that draws an outline around all art. */
function cutAround(
  drawing: Drawing,
  guesses: Readonly<Record<string, RoleGuess>>,
  covered: string | undefined,
): DrawingEdit {
  const roles = rolesOf(guesses);
  const art = drawing.contours.filter((line) => roleOf(line, { roles, lineRoles: {} }) === 'art');
  const lineIds = covered === undefined ? art.map(({ id }) => id) : [];
  return { kind: 'offset', lineIds, byMm: 0, isInked: true, layer: OUTLINE, ...(covered ? { covered } : {}) };
}
