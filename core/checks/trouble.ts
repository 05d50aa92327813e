import type { DrawingEdit } from '#core/checks/drawingEdit.ts';
import type { Role } from '#core/drawing/roles/lineRoles.ts';
import type { PointMm } from '#core/geometry/point.ts';
import type { Family } from '#core/stack/families/families.ts';
import type { Operation } from '#core/stack/operation.ts';
import type { MachineKind } from '#core/station/machine.ts';

/** What can be wrong with a drawing. */
export const TROUBLE_KINDS = [
  'openOutline',
  'duplicate',
  'crossing',
  'tooFine',
  'tightCorner',
  'tinyPiece',
  'island',
  'tooClose',
  'throughOnRoll',
  'impossibleRole',
  'noFrame',
] as const;
export type TroubleKind = (typeof TROUBLE_KINDS)[number];

/** What mends a trouble: a change of the drawing or of the roles of its lines. */
export type TroubleFix =
  | { readonly kind: 'edit'; readonly words: string; readonly edit: DrawingEdit }
  | { readonly kind: 'role'; readonly words: string; readonly role: Role };

/** One thing found, with its place on the drawing. */
export interface Trouble {
  readonly kind: TroubleKind;
  /** `stop`: it cannot be cut like this. `careful`: it may go wrong. */
  readonly weight: 'stop' | 'careful';
  readonly what: string;
  /** Why it matters. */
  readonly why: string;
  readonly lineIds: readonly number[];
  readonly at: PointMm;
  readonly fix: TroubleFix | null;
  /** What the line would be after the mend, as path data, where that is worth seeing first. */
  readonly preview?: string;
}

/** What decides whether a drawing can be cut. */
export interface CheckFacts {
  readonly family: Family;
  readonly isLayered: boolean;
  readonly machineKind: MachineKind;
  readonly operations: readonly Operation[];
  /** Of the blade in the machine, mm. */
  readonly offsetMm: number;
  /** Least distance between pieces, mm. */
  readonly spacingMm: number;
}
