import type { DrawingEdit } from '#core/checks/drawingEdit.ts';
import type { DrawingFormat } from '#core/drawing/drawing.ts';
import type { Role } from '#core/drawing/roles/lineRoles.ts';
import type { PassChoices } from '#core/passes/plan.ts';
import type { Layout } from '#core/sheet/layout.ts';
import type { Sheet } from '#core/sheet/sheetSize.ts';

/** What a person chose for the printed sheet. */
export interface PrintChoices {
  /** Registration marks of the machine's scheme are printed, and cut sheets are found by them. */
  readonly hasMarks: boolean;
  /** Ink beyond the cut line, mm. */
  readonly bleedMm: number;
  /** A corner is kept free for a test cut. */
  readonly keepsTestCorner: boolean;
}

export const PLAIN_PRINT: PrintChoices = { hasMarks: false, bleedMm: 0, keepsTestCorner: false };

/** A file with what people decided about its lines. */
export interface KeptDrawing {
  readonly format: DrawingFormat;
  /** The file as it was opened: every change is kept beside it. */
  readonly source: string;
  readonly roles: Readonly<Record<string, Role>>;
  /** Roles of single lines, by id: they win over those of their group. */
  readonly lineRoles: Readonly<Record<string, Role>>;
  /** True while roles are only guessed and nobody has looked at them. */
  readonly areRolesGuessed: boolean;
  /** Mends to the drawing, in the order they were made. */
  readonly edits: readonly DrawingEdit[];
}

/** A further drawing of a job: a file of its own, with roles and mends of its own. */
export interface JobDrawing extends KeptDrawing {
  /** Its number in the job, from 1 on; the job's first drawing has 0. A number is never given again. */
  readonly number: number;
  readonly name: string;
}

/** A drawing with roles on its lines, laid on a sheet, for one material on one machine. */
export interface Job extends KeptDrawing {
  readonly id: number;
  readonly name: string;
  /** What the first drawing is called, where that is not the name of the job. */
  readonly drawingName?: string | undefined;
  /** Drawings that are laid out beside the first; absent for a job of one. */
  readonly moreDrawings?: readonly JobDrawing[] | undefined;
  readonly sheet: Sheet;
  readonly layout: Layout;
  readonly print: PrintChoices;
  readonly passes: PassChoices;
  readonly conditionId: number;
  readonly machineId: number;
  /** Counts changes, so that two people do not overwrite each other. */
  readonly version: number;
  readonly updatedAt: string;
}

/** A job without the texts of its drawings, which can be many megabytes. */
export interface JobHead extends Omit<Job, 'source' | 'moreDrawings'> {
  readonly moreDrawings?: readonly Omit<JobDrawing, 'source'>[] | undefined;
}
