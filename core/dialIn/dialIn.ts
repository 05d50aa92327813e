import { CONFIRMING_CELLS } from '#core/dialIn/chooseLadder.ts';
import type { BoxMm } from '#core/geometry/box.ts';
import type { DepthOperation } from '#core/stack/operation.ts';
import type { SpotShape, TestPieceKind } from '#core/dialIn/testPiece.ts';

/** Whether a search is still going, ended with a kept setting, or was given up. */
export const DIAL_IN_STATES = ['open', 'kept', 'closed'] as const;
export type DialInState = (typeof DIAL_IN_STATES)[number];

/** A card that was cut and waits to be graded: one force per cell, on the machine's scale. */
export interface PendingCard {
  /** Which load of the dial-in it is, from 1. */
  readonly load: number;
  readonly purpose: 'ladder' | 'confirm';
  readonly forces: readonly number[];
}

/**
 * A card over the whole range looks for the window; a short one confirms what was found.
 *
 * @example purposeOf([60, 70, 80, 90, 100, 110]) // 'ladder'
 */
export function purposeOf(forces: readonly number[]): PendingCard['purpose'] {
  return forces.length > CONFIRMING_CELLS ? 'ladder' : 'confirm';
}

/** What the cards are cut from: a rest or a free corner, and what is taken of it, mm. */
export interface DialInScrap {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly piece: TestPieceKind;
  readonly taken: readonly BoxMm[];
  /** The lines of the piece `spot`, with the job they are from. */
  readonly spot?: SpotShape | undefined;
}

/** A search for one setting: of a sheet, on a machine, for an operation. Exposure in mm, speed on the machine's scale. */
export interface DialIn {
  readonly id: number;
  readonly machineId: number;
  readonly conditionId: number;
  readonly lot: string;
  readonly colour: string;
  readonly operation: DepthOperation;
  readonly passes: number;
  readonly speed: number;
  readonly exposureMm: number;
  readonly state: DialInState;
  readonly loadCount: number;
  readonly card: PendingCard | null;
  readonly scrap: DialInScrap;
  readonly author: string;
  readonly openedAt: string;
  readonly changedAt: string;
  readonly version: number;
}
