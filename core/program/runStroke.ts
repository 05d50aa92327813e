import type { CutRole } from '#core/drawing/roles/lineRoles.ts';
import type { PointMm } from '#core/geometry/point.ts';

/** One stroke of a run as it was sent: its points on the sheet in mm. */
export interface RunStroke {
  readonly operation: CutRole;
  /** Along a tab, where the kiss force is wanted. */
  readonly isTab: boolean;
  /** The machine lifts the tool over tabs of its own along it. */
  readonly ownTabs?: { readonly cutLengthMm: number; readonly tabLengthMm: number } | undefined;
  readonly contourId: number;
  readonly repeat: number;
  readonly points: readonly PointMm[];
}
