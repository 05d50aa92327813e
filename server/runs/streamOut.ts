import { AppError } from '#core/errors/appError.ts';
import type { Said, SendEnd } from '#server/runs/said.ts';

/** So much at a time: a stop must not wait for more. */
const PIECE_BYTES = 4096;
/** A machine that takes nothing for so long, beyond what it can be busy with, is silent. */
const SILENT_MS = 10_000;

/**
 * Lets blocks out as the link takes them. Nothing comes back in this flow; where eyes look on, they say how it ended.
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
  const out = letOut(said);
  const first = await Promise.race([halted, lost, out, ...(watching ? [watching.end] : [])]);
  if (first.kind !== 'sentAll' || !watching) return first;
  return Promise.race([halted, lost, watching.end]);
}

async function letOut({ blocks, channel, control, seconds, watching }: Said): Promise<SendEnd> {
  const begun = Date.now();
  const allow = () => 1000 * seconds(control.outTo() - control.from) - (Date.now() - begun);
  try {
    for (const [text, strokes] of piecesOf(blocks)) {
      if (control.isHalted) return { kind: 'halted' };
      control.setOut(strokes);
      const wait = SILENT_MS + Math.max(0, allow());
      if (!(await withinMs(channel.write(text), wait))) {
        return { kind: 'silent', reason: 'the machine takes nothing any more' };
      }
    }
  } catch (error) {
    if (!(error instanceof AppError)) throw error;
    return control.isHalted
      ? { kind: 'halted' }
      : { kind: 'lost', reason: 'the link broke while the file went out' };
  }
  // A stand-in that is watched is still at work: it hangs up when it is done.
  if (!watching) await channel.end();
  return { kind: 'sentAll' };
}

/** Text in pieces, each with the strokes that are out, at least in part, once it is. */
function* piecesOf(blocks: Said['blocks']): Generator<readonly [string, number]> {
  let piece = '';
  let strokes = 0;
  for (const { text, strokesDone } of blocks) {
    strokes = strokesDone;
    piece += text;
    while (piece.length >= PIECE_BYTES) {
      yield [piece.slice(0, PIECE_BYTES), strokes];
      piece = piece.slice(PIECE_BYTES);
    }
  }
  if (piece !== '') yield [piece, strokes];
}

async function withinMs(done: Promise<void>, ms: number): Promise<boolean> {
  let timer: NodeJS.Timeout | undefined;
  const late = new Promise<false>((resolve) => (timer = setTimeout(() => resolve(false), ms)));
  try {
    return await Promise.race([done.then(() => true), late]);
  } finally {
    clearTimeout(timer);
  }
}
