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

/** A drawing with roles on its lines, laid on a sheet, for one material on one machine. */
export interface Job {
  readonly id: number;
  readonly name: string;
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

/** A job without the text of its drawing, which can be many megabytes. */
export type JobHead = Omit<Job, 'source'>;
