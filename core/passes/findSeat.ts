import { itemAt } from '#core/collections/itemAt.ts';
import type { CutRole } from '#core/drawing/roles/lineRoles.ts';
import { AppError } from '#core/errors/appError.ts';
import type { ToolSeat } from '#core/station/machine.ts';

/** The seat a role is cut from. */
export interface SeatChoice {
  /** From 1. */
  readonly seat: number;
  readonly name: string;
  /** What hands must fit first, or `null` when it sits there. */
  readonly change: string | null;
}

/**
 * Which tool seat cuts a role: one that holds its tool; where none does, the first that could, with what to fit.
 *
 * @throws AppError `cannotPlan` on a machine without seats
 * @example findSeat(machine.toolSeats, 'kiss').seat // 1
 */
export function findSeat(seats: readonly ToolSeat[], role: CutRole): SeatChoice {
  const needs = role === 'crease' ? 'crease' : 'blade';
  const found = seats.findIndex(({ holds }) => holds === needs);
  if (found >= 0) {
    const { name } = itemAt(seats, found);
    return { seat: found + 1, name, change: null };
  }
  const spare = Math.max(
    0,
    seats.findIndex(({ holds }) => holds === 'empty'),
  );
  const seat = seats[spare];
  if (!seat) throw new AppError('cannotPlan', 'this machine has no tool seat');
  const tool = needs === 'crease' ? 'the crease tool' : 'the blade';
  return { seat: spare + 1, name: seat.name, change: `Fit ${tool} in the ${seat.name} seat` };
}
