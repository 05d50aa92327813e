import { itemAt } from '#core/collections/itemAt.ts';
import { AppError } from '#core/errors/appError.ts';
import type { Answer, Block, Flow } from '#core/protocol/machineLanguage.ts';
import { hearableMs } from '#server/links/hearing.ts';
import type { Channel } from '#server/links/link.ts';
import type { Said, SendEnd } from '#server/runs/said.ts';

type AnsweredFlow = Extract<Flow, { kind: 'answered' }>;

const ASK_EVERY_MS = 2_000;
/**
 * Nothing was heard for so long, asked again and again: the machine is silent. Between two looks, so that the look after
 * 8 s always finds it, and not now and then the one after 10 s.
 */
const SILENT_MS = 7_000;
/** Idle, and its answer still owed, so many times in a row: it was started anew. */
const MOST_IDLE = 3;
const STOP_ANSWER_MS = 2_500;
const STOP_ASK_MS = 300;

/**
 * Says blocks one at a time; the answer to each lets the next one out, and those that end strokes acknowledge them.
 *
 * @param onDone strokes that were acknowledged: from up to but not including, counted from the first that is sent
 */
export async function sayInTurns(
  { blocks, channel, control, seconds }: Said,
  flow: AnsweredFlow,
  onDone: (strokes: readonly [number, number]) => Promise<void>,
): Promise<SendEnd> {
  const ear = new Ear(channel, flow);
  control.setTeller((order) => tellMachine(order, { channel, flow, ear }));
  const halted = new Promise<SendEnd>((resolve) => control.onHalt(() => resolve({ kind: 'halted' })));
  const lost = channel.ended.then((end): SendEnd =>
    end.kind === 'lost' ? { kind: 'lost', reason: end.reason } : { kind: 'halted' },
  );
  let done = 0;
  for (const [index, block] of blocks.entries()) {
    if (!(await control.checkMayGoOn())) return { kind: 'halted' };
    control.setOut(strokeAt(blocks, index));
    const busyMs = 1000 * (seconds.most(control.outTo() - control.from) - seconds.most(done));
    try {
      await channel.write(block.text);
    } catch (error) {
      if (!(error instanceof AppError)) throw error;
      return Promise.race([halted, lost]);
    }
    const answer = await Promise.race([halted, lost, ear.answer(busyMs)]);
    if (answer.kind === 'halted' && control.isHalted) {
      // What was answered before the stop is still told.
      if (ear.takeDone()) await tellDone(block);
      return { kind: 'halted' };
    }
    const end = endOf(answer);
    if (end) {
      if (end.kind === 'stopped') await channel.write(flow.stop).catch(() => undefined);
      return end;
    }
    await tellDone(block);
  }
  control.setTeller(() => Promise.resolve(false));
  await channel.end();
  return { kind: 'finished' };

  async function tellDone({ strokesDone }: Block): Promise<void> {
    if (strokesDone <= done) return;
    await onDone([done, strokesDone]);
    done = strokesDone;
  }
}

/** Strokes that have begun once a block is out. */
function strokeAt(blocks: readonly Block[], index: number): number {
  const before = blocks[index - 1]?.strokesDone ?? 0;
  for (let at = index; at < blocks.length; at++) {
    const { strokesDone } = itemAt(blocks, at);
    if (strokesDone > before) return strokesDone;
  }
  return before;
}

/** What ends it: not the plain answer to a line. */
function endOf(answer: Answer | SendEnd): SendEnd | null {
  switch (answer.kind) {
    case 'done':
      return null;
    case 'refused':
      return { kind: 'stopped', reason: `it refused a line: ${answer.reason}` };
    case 'lost':
    case 'silent':
      return answer;
    case 'halted':
    case 'stopped':
      return { kind: 'stopped', reason: 'reason' in answer ? answer.reason : '' };
    default:
      return null;
  }
}

interface Line {
  readonly channel: Channel;
  readonly flow: AnsweredFlow;
  readonly ear: Ear;
}

/** Orders that a machine obeys at once. After a stop it must be heard of: a link may take bytes and lead nowhere. */
async function tellMachine(
  order: 'stop' | 'pause' | 'resume',
  { channel, flow, ear }: Line,
): Promise<boolean> {
  const word = flow[order];
  if (word === '') return false;
  const begun = hearableMs();
  await channel.write(word);
  if (order !== 'stop' || flow.ask === '') return true;
  while (hearableMs() - begun < STOP_ANSWER_MS) {
    await new Promise((resolve) => setTimeout(resolve, STOP_ASK_MS));
    if (ear.heardAt > begun) return true;
    await channel.write(flow.ask);
  }
  return false;
}

/** Listens to what comes back. */
class Ear {
  heardAt = hearableMs();
  private waiting: ((answer: Answer | SendEnd) => void) | null = null;
  private early: Answer | null = null;
  private idle = 0;

  constructor(
    private readonly channel: Channel,
    private readonly flow: AnsweredFlow,
  ) {
    channel.onLine((line) => this.take(flow.hear(line)));
  }

  /** The answer to the line that went out last, or that none came. @param busyMs how long it may be at work */
  answer(busyMs: number): Promise<Answer | SendEnd> {
    this.idle = 0;
    this.heardAt = hearableMs();
    const { early } = this;
    if (early) {
      this.early = null;
      return Promise.resolve(early);
    }
    return new Promise((resolve) => {
      // A machine that knows no question is given the time that its work may take.
      const limit = this.flow.ask === '' ? SILENT_MS + Math.max(0, busyMs) : SILENT_MS;
      const timer = setInterval(() => {
        if (hearableMs() - this.heardAt >= limit) {
          this.waiting?.({ kind: 'silent', reason: 'the machine says nothing any more' });
        } else if (this.flow.ask !== '') {
          this.channel.write(this.flow.ask).catch(() => undefined);
        }
      }, ASK_EVERY_MS);
      this.waiting = (answer) => {
        this.waiting = null;
        clearInterval(timer);
        resolve(answer);
      };
    });
  }

  /** Whether an answer came that nobody waits for any more. */
  takeDone(): boolean {
    const isDone = this.early?.kind === 'done';
    this.early = null;
    return isDone;
  }

  private take(answer: Answer): void {
    this.heardAt = hearableMs();
    if (answer.kind === 'noise') return;
    if (answer.kind === 'alive') {
      this.idle = answer.isIdle ? this.idle + 1 : 0;
      if (this.idle >= MOST_IDLE) {
        this.waiting?.({ kind: 'lost', reason: 'the machine was started anew and forgot its work' });
      }
      return;
    }
    if (this.waiting) this.waiting(answer);
    else this.early = answer;
  }
}
