import type { CutRole } from '#core/drawing/roles/lineRoles.ts';
import type { Stroke } from '#core/passes/plan.ts';

/** One stroke of a run as it was sent: its points on the sheet in mm, to 0.01 mm. */
export interface RunStroke extends Stroke {
  readonly operation: CutRole;
}
