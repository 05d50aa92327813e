import { AppError } from '#core/errors/appError.ts';
import type { RunState } from '#core/job/run.ts';
import type { Part } from '#core/passes/splitParts.ts';
import { hpglOptionsOf, writeHpgl } from '#core/protocol/writeHpgl.ts';
import type { DepthGrade } from '#core/stack/depthGrade.ts';
import type { LoadedSheet, Station } from '#core/station/station.ts';
import { addStrokeOutcome, setRunState } from '#store/repositories/runs.ts';
import { wearStation } from '#store/repositories/stations.ts';
import type { ServerContext } from '#web/endpoints/context.ts';
import {
  orderAtPanel,
  sendToCutter,
  type CutterAddress,
  type CutterReport,
  type SendResult,
} from '#web/links/cutterLink.ts';
import { publishRunEvent } from '#web/links/runHub.ts';

/** A run on its way to a machine. */
export interface Drive {
  readonly runId: number;
  readonly station: Station;
  readonly loaded: LoadedSheet;
  readonly address: CutterAddress;
  readonly parts: readonly Part[];
  readonly sheetHeightMm: number;
}

interface Live {
  readonly address: CutterAddress;
  /** Set while the run waits for hands. */
  goOn: (() => void) | null;
  isStopped: boolean;
}

const live = new Map<number, Live>();

/** Drives a run from its first part to its end, recording every report. Never rejects: failures end the run in words. */
export async function driveRun(drive: Drive, context: ServerContext): Promise<void> {
  const state: Live = { address: drive.address, goOn: null, isStopped: false };
  live.set(drive.runId, state);
  try {
    const end = await driveParts(drive, state, context);
    await enter(drive.runId, end.state, end.message, context, true);
  } catch (error) {
    const message = error instanceof AppError ? error.message : 'The server failed during this run.';
    context.log.error({ err: error, runId: drive.runId }, 'run failed');
    await enter(drive.runId, 'failed', message, context, true).catch((again: unknown) =>
      context.log.error({ err: again }, 'the failed run could not be recorded'),
    );
  } finally {
    live.delete(drive.runId);
  }
}

/** Tells a waiting run that hands are done. @throws AppError `conflict` when it is not waiting */
export function continueRun(runId: number): void {
  const goOn = live.get(runId)?.goOn;
  if (!goOn) throw new AppError('conflict', 'This run is not waiting for anything.');
  goOn();
}

/** Stops a run at the machine. @throws AppError `conflict` when it is over already */
export async function stopRun(runId: number): Promise<void> {
  const state = live.get(runId);
  if (!state) throw new AppError('conflict', 'This run is over already.');
  state.isStopped = true;
  if (state.goOn) state.goOn();
  else await orderAtPanel(state.address, { order: 'stop' });
}

interface End {
  readonly state: RunState;
  readonly message: string;
}

async function driveParts(drive: Drive, state: Live, context: ServerContext): Promise<End> {
  let strokesBefore = 0;
  let metres = 0;
  for (const [index, part] of drive.parts.entries()) {
    if (index > 0) await waitForHands(drive.runId, part.before ?? 'Continue when ready', state, context);
    if (state.isStopped) return { state: 'stopped', message: 'Stopped while waiting.' };
    await loadPart(drive, part, index === 0, metres);
    await enter(drive.runId, 'cutting', '', context, false);
    const result = await sendPart(drive, part, strokesBefore, context);
    if (result.kind === 'finished') metres += result.cutMetres;
    strokesBefore += part.passes.reduce((sum, pass) => sum + pass.strokes.length, 0);
    const end = endOf(result, state.isStopped);
    if (end) return end;
  }
  await wearStation(context.store, drive.station.machine.id, metres);
  return { state: 'done', message: '' };
}

function endOf(result: SendResult, isStopped: boolean): End | null {
  if (result.kind === 'silent') {
    return { state: 'done', message: 'Sent. This machine reports nothing back: watch it there.' };
  }
  if (result.kind === 'finished') return null;
  return { state: isStopped ? 'stopped' : 'failed', message: `The cutter stopped: ${result.reason}.` };
}

async function sendPart(
  drive: Drive,
  part: Part,
  strokesBefore: number,
  context: ServerContext,
): Promise<SendResult> {
  const { machine } = drive.station;
  const options = hpglOptionsOf(machine);
  const writes: Promise<void>[] = [];
  const result = await sendToCutter(
    drive.address,
    writeHpgl(part.passes, drive.sheetHeightMm, options),
    (report) => writes.push(record(drive, report, strokesBefore, context)),
  );
  await Promise.all(writes);
  return result;
}

async function record(
  drive: Drive,
  report: CutterReport,
  strokesBefore: number,
  context: ServerContext,
): Promise<void> {
  if (report.event === 'position') {
    const y = drive.sheetHeightMm - report.yMm;
    publishRunEvent(drive.runId, {
      kind: 'position',
      x: report.xMm,
      y,
      stroke: report.stroke + strokesBefore,
    });
  }
  if (report.event !== 'stroke') return;
  const index = report.index + strokesBefore;
  const spans = report.spans.map((span) => ({ ...span, grade: span.grade as DepthGrade }));
  await addStrokeOutcome(context.store, drive.runId, { index, spans });
  publishRunEvent(drive.runId, { kind: 'stroke', index, spans });
}

/** What hands do at a real machine is told to the stand-in: which sheet lies on it, the exposure, the dials. */
async function loadPart(drive: Drive, part: Part, isFreshSheet: boolean, metresSoFar: number): Promise<void> {
  const { material, condition, lot } = drive.loaded;
  const first = part.passes[0];
  await orderAtPanel(drive.address, {
    order: 'load',
    sheet: {
      key: `${material.maker}/${material.name}/${condition.kind}/${lot}`,
      family: material.family,
      darkness: material.darkness,
      layers: condition.stack.map(({ role, caliperUm }) => ({ role, caliperUm })),
    },
    exposureMm: part.exposureMm,
    bladeMetres: (drive.station.blade?.travelMetres ?? 0) + metresSoFar,
    isFreshSheet,
    ...(drive.station.machine.numbersOwner === 'panel' && first
      ? { dialled: { force: first.values.force, speed: first.values.speed } }
      : {}),
  });
}

async function waitForHands(
  runId: number,
  message: string,
  state: Live,
  context: ServerContext,
): Promise<void> {
  const hands = new Promise<void>((resolve) => (state.goOn = resolve));
  await enter(runId, 'waiting', message, context, false);
  await hands;
  state.goOn = null;
}

async function enter(
  runId: number,
  state: RunState,
  message: string,
  context: ServerContext,
  isOver: boolean,
): Promise<void> {
  await setRunState(context.store, runId, state, message, isOver ? new Date() : null);
  publishRunEvent(runId, { kind: 'state', state, message });
}
