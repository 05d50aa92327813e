import { itemAt } from '#core/collections/itemAt.ts';
import { AppError } from '#core/errors/appError.ts';
import { findLanguage } from '#core/protocol/findLanguage.ts';
import { writePart } from '#core/protocol/writePart.ts';
import type { ProgramPart } from '#core/program/runProgram.ts';
import type { Run } from '#core/run/run.ts';
import type { RunCommand } from '#core/run/runCourse.ts';
import type { Channel, Link } from '#server/links/link.ts';
import { describeLoad } from '#server/runs/describeLoad.ts';
import { retryOnStore } from '#server/runs/retryOnStore.ts';
import { Control } from '#server/runs/control.ts';
import { enterLive, leaveLive } from '#server/runs/live.ts';
import type { Said, SendEnd, Watching } from '#server/runs/said.ts';
import { publishRunEvent } from '#server/runs/runHub.ts';
import type { Scene } from '#server/runs/scene.ts';
import { sayInTurns } from '#server/runs/sayInTurns.ts';
import { streamOut } from '#server/runs/streamOut.ts';
import { strokeSeconds } from '#server/runs/strokeSeconds.ts';
import { watchSheet } from '#server/runs/watchSheet.ts';
import { findRun } from '#store/repositories/runs/runs.ts';

/**
 * Sends a part from a stroke on, over the machine's link and in its language, and tells the run what comes of it. It
 * was named and written down before; it is sent once.
 */
export async function transmit(
  scene: Scene,
  { key, part: partIndex, from }: Extract<RunCommand, { kind: 'transmit' }>,
  findLink: () => Promise<Link>,
): Promise<void> {
  const { context, runId, run: driven } = scene;
  // At once, before anything is waited for: a stop that comes now finds it.
  const control = new Control(key, from, () => context.leases?.confirm(runId) ?? Promise.resolve(true));
  control.onOut((to) => publishRunEvent(runId, { kind: 'out', to }));
  enterLive(runId, control);
  try {
    const link = await findLink();
    const run = await retryOnStore(context, () => findRun(context.store, runId));
    const part = itemAt(driven.program.parts, partIndex);
    await send(scene, { control, link, run, part });
  } finally {
    // One that was halted is still asked how far it got, by whoever ordered the stop.
    if (!control.isHalted) leaveLive(runId, control);
  }
}

interface Sending {
  readonly control: Control;
  readonly link: Link;
  readonly run: Run;
  readonly part: ProgramPart;
}

async function send(scene: Scene, { control, link, run, part }: Sending): Promise<void> {
  const { program } = scene.run;
  const { key, from } = control;
  const language = findLanguage(program.file.language);
  const flow = language.flow(program.file.language.options);
  const blocks = writePart(run.strokes, part, from, program);
  const seconds = strokeSeconds(run.strokes, part, from, program.file);
  let watching: Watching | null = null;
  let channel: Channel;
  try {
    if (control.isHalted) return;
    if (link.hands) {
      control.useHands(link.hands);
      await link.hands.order(describeLoad(run, part, program, key));
      watching = await watchSheet(scene, { hands: link.hands, key, from, run, program });
    }
    channel = await link.open();
  } catch (error) {
    watching?.close();
    if (!(error instanceof AppError)) throw error;
    if (!control.isHalted) await scene.tell({ kind: 'unreachable', reason: error.message });
    return;
  }
  control.attach(channel);
  try {
    const said: Said = { blocks, channel, control, seconds, watching };
    const end =
      flow.kind === 'stream'
        ? await streamOut(said)
        : await sayInTurns(said, flow, (done) => acknowledge(scene, from, done, watching !== null));
    await tellEnd(scene, end, { key, outTo: control.outTo(), canAsk: link.hands !== null });
  } finally {
    watching?.close();
    if (control.isHalted) await control.settled();
    channel.cut();
  }
}

/** Strokes that a machine itself acknowledged; where eyes look on, they say more of them. */
async function acknowledge(
  scene: Scene,
  from: number,
  [first, end]: readonly [number, number],
  isWatched: boolean,
): Promise<void> {
  if (isWatched) return;
  const strokes = Array.from({ length: end - first }, (_, index) => ({
    index: from + first + index,
    spans: [],
  }));
  await scene.tell({ kind: 'reached', strokes });
}

async function tellEnd(
  scene: Scene,
  end: SendEnd,
  { key, outTo, canAsk }: { readonly key: string; readonly outTo: number; readonly canAsk: boolean },
): Promise<void> {
  switch (end.kind) {
    case 'halted':
      return;
    case 'sentAll':
    case 'finished':
      await scene.tell({ kind: end.kind, key });
      return;
    case 'stopped':
      await scene.tell({ kind: 'halted', key, reason: end.reason });
      return;
    case 'lost':
    case 'silent':
      await scene.tell({
        kind: end.kind === 'lost' ? 'linkLost' : 'silent',
        key,
        outTo,
        canAsk,
        reason: `${sentence(end.reason)} This machine does not say how far it got: look at the sheet.`,
      });
  }
}

function sentence(words: string): string {
  const text = words.charAt(0).toUpperCase() + words.slice(1);
  return text.endsWith('.') ? text : `${text}.`;
}
