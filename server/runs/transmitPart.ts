import { randomUUID } from 'node:crypto';
import { AppError } from '#core/errors/appError.ts';
import { cutMetresOf } from '#core/run/measureRun.ts';
import type { Run } from '#core/run/run.ts';
import { spanOfPart, writePart, type ProgramPart, type RunProgram } from '#core/program/runProgram.ts';
import { IDENTITY } from '#core/geometry/affine.ts';
import type { DepthGrade } from '#core/stack/depthGrade.ts';
import type { HpglOptions } from '#core/protocol/writeHpgl.ts';
import { addStrokeOutcome } from '#store/repositories/runs.ts';
import { rememberSending, type RunProgress } from '#store/repositories/runProgress.ts';
import { askCutter } from '#server/links/askCutter.ts';
import { orderAtPanel, sendToCutter, type CutterReport } from '#server/links/cutterLink.ts';
import { enterState, haltAfterStop, type Drive, type Halt } from '#server/runs/runState.ts';
import { publishRunEvent } from '#server/runs/runHub.ts';

/** Somebody who looks at the sheet says what a machine that tells nothing has cut. */
const SILENT = 'Sent. This machine reports nothing back: watch it there, then look at the sheet.';
const BROKEN =
  'The link broke while the file went out, and this machine does not say how far it got: look at the sheet.';

/**
 * Sends a part from a stroke on. What is sent is written down before the first byte goes out, under a name that the
 * cutter takes once.
 *
 * @returns why the run stands still, or `null` when what was sent is done or must be asked for
 */
export async function transmitPart(
  drive: Drive,
  run: Run,
  part: ProgramPart,
  next: number,
  { program, partIndex }: RunProgress,
): Promise<Halt | null> {
  const { runId, context, address } = drive;
  let bootId: string | null;
  try {
    bootId = (await askCutter(address))?.bootId ?? null;
  } catch (error) {
    return heldBy(error);
  }
  // Run, part and first stroke for those who read it; the rest makes it the only one of its name.
  const sentKey = `run-${runId}/${partIndex}/${next}/${randomUUID()}`;
  await rememberSending(context.store, runId, { bootId, sentKey });
  await enterState(context, runId, 'cutting', '');
  try {
    await loadSheet(drive, run, part, program, sentKey);
  } catch (error) {
    return heldBy(error);
  }
  const file = writePart(run.strokes, part, next, program);
  const writes: Promise<void>[] = [];
  const onReport = (report: CutterReport) => {
    const write = record(drive, report, next, (y) => run.sheetHeightMm - y, program.hpgl);
    // A report that cannot be written now is asked for again: the cutter remembers it.
    write.catch(() => undefined);
    writes.push(write);
  };
  try {
    const result = await sendToCutter(address, file, onReport);
    await Promise.all(writes);
    if (result.kind === 'silent') return await trustSilence(drive, part);
    if (result.kind === 'finished') return null;
    return haltAfterStop(drive, result.reason);
  } catch (error) {
    if (!(error instanceof AppError) || error.code !== 'deviceUnreachable') throw error;
    if (address.panelPort === null) return { kind: 'held', message: BROKEN };
    await enterState(context, runId, 'cutting', 'The link to the cutter broke. Asking it how far it got …');
    return null;
  }
}

function heldBy(error: unknown): Halt {
  if (error instanceof AppError) return { kind: 'held', message: `${error.message} Nothing was sent.` };
  throw error;
}

/** All that a silent machine was given counts as cut until somebody looks. */
async function trustSilence({ runId, context }: Drive, part: ProgramPart): Promise<Halt | null> {
  const { from, to } = spanOfPart(part);
  for (let index = from; index < to; index++) {
    await addStrokeOutcome(context.store, runId, { index, spans: [] });
  }
  publishRunEvent(runId, { kind: 'state', state: 'cutting', message: SILENT });
  return null;
}

/** Writes down a report; `next` is the stroke of the run that the cutter counts as its first. */
async function record(
  drive: Drive,
  report: CutterReport,
  next: number,
  turnY: (yMm: number) => number,
  { placing }: HpglOptions,
): Promise<void> {
  if (report.event === 'position') {
    const { leftMm = 0, bottomMm = 0 } = placing ?? {};
    const [x, y] = [report.xMm - leftMm, turnY(report.yMm - bottomMm)];
    publishRunEvent(drive.runId, { kind: 'position', x, y, stroke: report.stroke + next });
  }
  if (report.event === 'stroke') await recordStroke(drive, report.index + next, report.spans);
}

/** Writes down what a stroke reached and tells everyone who watches. Said twice, it is written once. */
export async function recordStroke(
  { runId, context }: Drive,
  index: number,
  reached: readonly { readonly from: number; readonly to: number; readonly grade: number }[],
): Promise<void> {
  const spans = reached.map((span) => ({ ...span, grade: span.grade as DepthGrade }));
  await addStrokeOutcome(context.store, runId, { index, spans });
  publishRunEvent(runId, { kind: 'stroke', index, spans });
}

/** What hands do at a real machine is told to the stand-in: which sheet lies on it, the exposure, the dials. */
async function loadSheet(
  { address }: Drive,
  run: Run,
  part: ProgramPart,
  program: RunProgram,
  jobKey: string,
): Promise<void> {
  const first = part.passes[0];
  await orderAtPanel(address, {
    order: 'load',
    jobKey,
    sheet: program.sheet,
    exposureMm: part.exposureMm > 0 ? part.exposureMm : 0.1,
    bladeMetres: program.bladeMetres + cutMetresOf(run),
    isFreshSheet: run.outcomes.length === 0,
    ...(program.hold ? { hold: program.hold } : {}),
    ...(program.isPrinted
      ? {
          printed: {
            widthMm: run.sheetWidthMm,
            heightMm: run.sheetHeightMm,
            gloss: program.gloss,
            corrected: program.hpgl.placing?.correction ?? IDENTITY,
          },
        }
      : {}),
    ...(!program.hpgl.carriesNumbers && first
      ? { dialled: { force: first.values.force, speed: first.values.speed } }
      : {}),
  });
}
