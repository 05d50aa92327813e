import type { Drawing, DrawingFormat } from '#core/drawing/drawing.ts';
import { guessRoles, lineRolesOf, rolesOf, type RoleFacts } from '#core/drawing/roles/guessRoles.ts';
import type { RoleRule } from '#core/drawing/roles/roleRules.ts';
import { AppError } from '#core/errors/appError.ts';
import { PLAIN_PRINT, type Job } from '#core/job/job.ts';
import { PLAIN_CHOICES } from '#core/passes/plan.ts';
import { chooseSheet } from '#core/sheet/chooseSheet.ts';
import { splitPieces } from '#core/sheet/nest/splitPieces.ts';
import type { Machine } from '#core/station/machine.ts';

/** What a job begins with, before it belongs to a material. */
export type StartedJob = Omit<Job, 'id' | 'conditionId' | 'machineId' | 'version' | 'updatedAt'>;

/**
 * A job as it begins: roles guessed, the drawing as it is in the corner of the smallest sheet that takes it.
 *
 * @throws AppError `badDrawing` when every line is to be ignored
 * @example startJob({ name: 'Labels.svg', format: 'svg', source: '' }, drawing, machine, { canKiss: true, isRollFed: false, canCrease: false }).name // 'Labels.svg'
 */
export function startJob(
  file: { readonly name: string; readonly format: DrawingFormat; readonly source: string },
  drawing: Drawing,
  bed: Pick<Machine, 'bedWidthMm' | 'bedLengthMm' | 'marginMm'>,
  facts: RoleFacts,
  rules: readonly RoleRule[] = [],
): StartedJob {
  const guesses = guessRoles(drawing, facts, rules);
  const given = { roles: rolesOf(guesses), lineRoles: lineRolesOf(guesses) };
  const [piece] = splitPieces(drawing, given, true);
  if (!piece) throw new AppError('badDrawing', 'every line of this drawing is to be ignored');
  const { name, format, source } = file;
  return {
    name,
    format,
    source,
    ...given,
    areRolesGuessed: true,
    edits: [],
    ...chooseSheet(piece.box, bed),
    print: PLAIN_PRINT,
    passes: PLAIN_CHOICES,
  };
}
