import type { Role } from '#core/drawing/lineRoles.ts';
import type { Sheet } from '#core/sheet/sheetSize.ts';
import type { Placement } from '#core/sheet/placeDrawing.ts';

/** A drawing with roles on its lines, laid on a sheet, for one material on one machine. */
export interface Job {
  readonly id: number;
  readonly name: string;
  readonly svg: string;
  readonly roles: Readonly<Record<string, Role>>;
  /** True while roles are only guessed and nobody has looked at them. */
  readonly areRolesGuessed: boolean;
  readonly sheet: Sheet;
  readonly placement: Placement;
  readonly conditionId: number;
  readonly machineId: number;
  /** Counts changes, so that two people do not overwrite each other. */
  readonly version: number;
  readonly updatedAt: string;
}
