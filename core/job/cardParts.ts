import type { TestCard } from '#core/dialIn/testCard.ts';
import type { CutRole } from '#core/drawing/roles/lineRoles.ts';
import { AppError } from '#core/errors/appError.ts';
import { planTestCard } from '#core/job/planTestCard.ts';
import { listDialledOnce, numberCuts, type PanelCut } from '#core/passes/panelCuts.ts';
import { splitParts, type Part } from '#core/passes/splitParts.ts';
import { carriedOf, panelCutsOf } from '#core/protocol/findLanguage.ts';
import { fileOptionsOf, writeMachineFile } from '#core/protocol/machineFile.ts';
import { planMachineOf } from '#core/protocol/planMachineOf.ts';
import type { SettingValues } from '#core/setting/settingFields.ts';
import type { Machine } from '#core/station/machine.ts';

/**
 * A test card as parts that a machine runs without a hand in between: one where the file carries the force, or the panel
 * has a numbered cut for each of its forces; else one for each force that is dialled.
 *
 * @param values everything but force, speed and passes, which each cell has its own of
 * @throws AppError `cannotPlan` on a machine without seats
 * @example cardParts(testCard, 'kiss', values, machine).length // 1
 */
export function cardParts(
  card: TestCard,
  role: CutRole,
  values: SettingValues,
  machine: Machine,
): readonly Part[] {
  return splitParts(
    planTestCard(card, role, values, planMachineOf(machine)),
    carriedOf(machine),
    panelCutsOf(machine),
  );
}

/**
 * A whole card as one machine file.
 *
 * @throws AppError `badInput`, with what to do instead, where a hand would have to dial in the middle of it: every cell
 * would be cut alike, and its grades would teach nonsense
 * @example writeCardParts(testCard, cardParts(testCard, 'kiss', values, machine), 297, machine).startsWith('IN;') // true
 */
export function writeCardParts(
  card: TestCard,
  parts: readonly Part[],
  sheetHeightMm: number,
  machine: Machine,
): string {
  if (parts.length > 1) throw refuseOneFile(card, machine);
  return writeMachineFile(parts[0]?.passes ?? [], sheetHeightMm, fileOptionsOf(machine));
}

function refuseOneFile({ cells }: TestCard, machine: Machine): AppError {
  const carries = carriedOf(machine);
  const isForce = !carries.force && new Set(cells.map(({ force }) => force)).size > 1;
  const what = isForce ? 'force' : 'speed';
  const list = cells.map((cell, index) => `${index + 1} at ${cell[what]}`).join(', ');
  const numbered = panelCutsOf(machine);
  const why =
    numbered > 1
      ? `The panel holds ${numbered} numbered cuts, and this card wants ${cells.length}`
      : `The panel owns the ${what}: one file would cut all cells alike`;
  return new AppError(
    'badInput',
    `${why}. Cut the card from here, which stops where you must dial, or take a file for each cell: ${list}.`,
  );
}

/**
 * What is dialled at the panel before a card or a piece is cut, a numbered cut for each force as far as the panel holds
 * them; nothing where the file carries force and speed.
 *
 * @param forces of the cells, on the machine's scale
 * @example listCardDials([70, 90], 200, machine) // []
 */
export function listCardDials(
  forces: readonly number[],
  speed: number,
  machine: Machine,
): readonly PanelCut[] {
  const carries = carriedOf(machine);
  if (carries.force && carries.speed) return [];
  const passes = forces.map((force) => ({
    role: 'kiss' as const,
    seat: 1,
    seatName: '',
    values: { force, speed },
    strokes: [],
  }));
  return listDialledOnce(numberCuts(passes, carries, panelCutsOf(machine)));
}
