import { setTimeout as pause } from 'node:timers/promises';
import { AppError } from '#core/errors/appError.ts';
import { afterSilence, hearableMs } from '#server/links/hearing.ts';
import type { Said, SendEnd } from '#server/runs/said.ts';

/** So much at a time: a stop must not wait for more. */
const PIECE_BYTES = 4096;
/** A machine that takes nothing for so long, beyond what it can be busy with, is silent. */
const SILENT_MS = 10_000;
const LOOK_EVERY_MS = 500;
const TAKES_NOTHING: SendEnd = { kind: 'silent', reason: 'the machine takes nothing any more' };
/**
 * What nobody can call back is sent so far ahead and no further. It goes by the least that the strokes can take, so that
 * a machine is never kept waiting.
 */
const AHEAD_SECONDS = 3;

/**
 * Lets blocks out as the link takes them. Nothing comes back in this flow; where eyes look on, they say how it ended,
 * and a stop reaches the machine. Otherwise blocks go out little by little, as the machine comes to need them.
 */
export async function streamOut(said: Said): Promise<SendEnd> {
  const { channel, control, watching } = said;
  const halted = new Promise<SendEnd>((resolve) => control.onHalt(() => resolve({ kind: 'halted' })));
  const lost = channel.ended.then((end): SendEnd | Promise<SendEnd> => {
    if (control.isHalted) return { kind: 'halted' };
    if (end.kind === 'lost') return { kind: 'lost', reason: end.reason };
    // Closed from here after all went out: what eyes see counts.
    return new Promise(() => undefined);
  });
  const delivery = watching ? null : watchDelivery(said);
  const ends = [halted, lost, ...(watching ? [watching.end] : []), ...(delivery ? [delivery.silent] : [])];
  try {
    const first = await Promise.race([...ends, letOut(said, halted)]);
    if (first.kind !== 'sentAll') return first;
    return await Promise.race([...ends, ...(watching ? [] : [hangUp(said, halted)])]);
  } finally {
    delivery?.stop();
  }
}

async function letOut(
  { blocks, channel, control, seconds, watching }: Said,
  halted: Promise<SendEnd>,
): Promise<SendEnd> {
  const elapsed = () => (Date.now() - control.begunAt) / 1000;
  try {
    for (const { text, before, after } of piecesOf(blocks)) {
      if (!watching) {
        const early = seconds.least(before) - elapsed() - AHEAD_SECONDS;
        if (early > 0) await Promise.race([pause(1000 * early), halted]);
      }
      if (!(await control.checkMayGoOn())) return { kind: 'halted' };
      control.setOut(after);
      if (!watching) control.tellOut();
      const busy = Math.max(0, seconds.most(after) - elapsed());
      if (!(await withinMs(channel.write(text), SILENT_MS + 1000 * busy))) return TAKES_NOTHING;
    }
  } catch (error) {
    if (!(error instanceof AppError)) throw error;
    return control.isHalted
      ? { kind: 'halted' }
      : { kind: 'lost', reason: 'the link broke while the file went out' };
  }
  return { kind: 'sentAll' };
}

/** When all that was let out has been taken, and the machine can be done with it. */
async function hangUp(
  { blocks, channel, control, seconds }: Said,
  halted: Promise<SendEnd>,
): Promise<SendEnd> {
  const begun = control.begunAt;
  while (!control.isHalted && ((await channel.undelivered()) ?? 0) > 0) await pause(LOOK_EVERY_MS / 5);
  if (control.isHalted) return { kind: 'halted' };
  await channel.end();
  // Nobody looks at a sheet that cannot be done yet; and until then it can be stopped at its own panel.
  const left = 1000 * seconds.least(blocks.at(-1)?.strokesDone ?? 0) - (Date.now() - begun);
  if (left > 0) await Promise.race([pause(left), halted]);
  return { kind: control.isHalted ? 'halted' : 'sentAll' };
}

/** Looks whether bytes arrive: a machine may be gone though its link takes them. */
function watchDelivery({ channel, control, seconds }: Said) {
  const begun = Date.now();
  let arrivedAt = hearableMs();
  /** Strokes that had arrived then: it can be busy with no more. */
  let arrived = 0;
  let finish: (end: SendEnd) => void = () => undefined;
  const silent = new Promise<SendEnd>((resolve) => (finish = resolve));
  const look = async () => {
    const out = control.outTo() - control.from;
    if (((await channel.undelivered()) ?? 0) === 0) [arrivedAt, arrived] = [hearableMs(), out];
    const busyMs = 1000 * seconds.most(arrived) - (Date.now() - begun);
    if (hearableMs() - arrivedAt > SILENT_MS + Math.max(0, busyMs)) finish(TAKES_NOTHING);
  };
  const timer = setInterval(() => void look(), LOOK_EVERY_MS);
  return { silent, stop: () => clearInterval(timer) };
}

interface Piece {
  readonly text: string;
  /** Strokes that are out whole before it, and at least in part after it. */
  readonly before: number;
  readonly after: number;
}

/** Blocks in pieces that are not too long. */
function* piecesOf(blocks: Said['blocks']): Generator<Piece> {
  let before = 0;
  for (const { text, strokesDone } of blocks) {
    for (let at = 0; at < text.length; at += PIECE_BYTES) {
      yield { text: text.slice(at, at + PIECE_BYTES), before, after: strokesDone };
    }
    before = strokesDone;
  }
}

async function withinMs(done: Promise<void>, ms: number): Promise<boolean> {
  let cease = () => {};
  const late = new Promise<false>((resolve) => (cease = afterSilence(ms, () => resolve(false))));
  try {
    return await Promise.race([done.then(() => true), late]);
  } finally {
    cease();
  }
}
