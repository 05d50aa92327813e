import type { TestCard } from '#core/dialIn/testCard.ts';
import type { CutRole } from '#core/drawing/roles/lineRoles.ts';
import { OPERATION_OF } from '#core/drawing/roles/lineRoles.ts';
import { followSeats } from '#core/passes/followSeats.ts';
import { itemAt } from '#core/collections/itemAt.ts';
import type { Pass, PlanMachine } from '#core/passes/plan.ts';
import { LOOKS, measureStrokes } from '#core/passes/planPass.ts';
import { cardPasses } from '#core/protocol/cardPasses.ts';
import type { SettingValues } from '#core/setting/settingFields.ts';

/**
 * A test card as a machine runs it: a pass for each force, so that one whose panel owns the force stops before each.
 *
 * @param values everything but force, speed and passes, which each cell has its own of
 * @throws AppError `cannotPlan` on a machine without seats
 * @example planTestCard(testCard, 'kiss', values, machine).length === testCard.cells.length // true
 */
export function planTestCard(
  card: TestCard,
  role: CutRole,
  values: SettingValues,
  machine: PlanMachine,
): readonly Pass[] {
  const seat = itemAt(followSeats(machine.toolSeats, [role], machine.choosesSeats), 0);
  const tabForce = machine.carries.force ? (values.tabForce ?? null) : null;
  let start = { x: 0, y: 0 };
  return cardPasses(card, values, tabForce).map((pass, index): Pass => {
    const measured = measureStrokes(pass.strokes, { values: pass.values, machine, start });
    start = pass.strokes.at(-1)?.points.at(-1) ?? start;
    return {
      ...pass,
      ...measured,
      role,
      operation: OPERATION_OF[role],
      seat: seat.seat,
      seatName: seat.name,
      fitted: seat.fitted,
      setsExposure: index === 0 && role !== 'crease' && machine.exposesByHand,
      perforation: null,
      pauseBefore: index === 0 ? seat.change : null,
      lookAfter: LOOKS[role],
    };
  });
}
