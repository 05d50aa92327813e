import type { DrawingEdit } from '#core/checks/drawingEdit.ts';
import type { Role } from '#core/drawing/lineRoles.ts';
import type { PointMm } from '#core/geometry/point.ts';
import type { Family } from '#core/stack/layer.ts';
import type { SettingOperation } from '#core/setting/setting.ts';
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
  readonly operations: readonly SettingOperation[];
  /** Of the blade in the machine, mm. */
  readonly offsetMm: number;
  /** Least distance between pieces, mm. */
  readonly spacingMm: number;
}

/** Finest detail a drag blade makes in a family, mm. Card: common practice, no source (T11); others likewise. */
export const FINEST_MM: Readonly<Record<Family, number>> = {
  stickerPaper: 0.8,
  printableVinyl: 0.6,
  plainVinyl: 0.6,
  transferFilm: 0.6,
  cardstock: 1.2,
  stencilSheet: 1.2,
  foldingCarton: 1.5,
  other: 1,
};
