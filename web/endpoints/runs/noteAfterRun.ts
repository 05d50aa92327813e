import { listPerforated, type Perforated } from '#core/passes/listPerforated.ts';
import type { RunStroke } from '#core/program/runStroke.ts';
import { perforationOf } from '#core/setting/derivePerforated.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { addJudgedPiece } from '#store/repositories/dialIn/judgedPieces.ts';
import { addRegistrationSheet } from '#store/repositories/bench/registration.ts';
import { findDrivenRun } from '#store/repositories/runs/runEvents.ts';
import { findRun, noteRun } from '#store/repositories/runs/runs.ts';
import { nullIfMissing } from '#web/http/nullIfMissing.ts';
import type { RunNoteInput } from '#web/schemas/run.ts';

/**
 * Notes a run and lets everything learn from it that it speaks of: settings from the verdict, tabs from how pieces held,
 * bleed from the shift.
 *
 * @throws AppError as noteRun does
 */
export async function noteAfterRun(
  store: Store,
  runId: number,
  note: RunNoteInput,
  author: string,
  now: Date,
): Promise<void> {
  await noteRun(store, runId, note, author, now);
  const run = await findRun(store, runId);
  const progress = await nullIfMissing(() => findDrivenRun(store, runId)).catch(() => null);
  const perforated = progress?.program.parts
    .flatMap(({ passes }) => passes)
    .find(({ operation }) => operation === 'perforated');
  if (note.tabsHeld !== null && perforated) {
    const { tabLengthMm, cutLengthMm } = perforationOf(perforated.values);
    const given = {
      tabLengthMm,
      cutLengthMm,
      ...smallestPiece(run.strokes.slice(perforated.from, perforated.to)),
    };
    const piece = { quantity: 'tabs', given, seen: note.tabsHeld } as const;
    const where = { conditionId: run.conditionId, machineId: run.machineId, lot: '', author };
    await addJudgedPiece(store, { ...piece, ...where }, now);
  }
  if (note.shift) {
    const at = { x: run.sheetWidthMm / 2, y: run.sheetHeightMm / 2 };
    await addRegistrationSheet(store, run.machineId, [{ at, shift: note.shift }], runId, author, now);
  }
}

/** The piece with the fewest tabs: how the run held is told by it. Nothing where the machine makes its own tabs. */
function smallestPiece(strokes: readonly RunStroke[]): Partial<Perforated> {
  return [...listPerforated({ strokes })].sort((a, b) => a.tabs - b.tabs)[0] ?? {};
}
