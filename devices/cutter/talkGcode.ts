import type { Socket } from 'node:net';
import { GcodeDecoder } from '#devices/cutter/decodeGcode.ts';
import { DecodeError } from '#devices/cutter/instruction.ts';
import { JobWork } from '#devices/cutter/jobWork.ts';
import type { CutterState } from '#devices/cutter/obeyPanel.ts';

/** Motions that are planned ahead: a line is answered when there is room for it. */
const PLANNED = 16;
const HOLD = '!';
const RESUME = '~';
const ASK = '?';
const CANCEL = '\u0018';
const GREETING = 'ready\n';

/**
 * One job in G-code on its link: every line is answered by `ok` or `error`, a dwell and the end only when all before is
 * done. Hold, go on, a question and cancel are obeyed wherever they stand among the bytes.
 */
export function talkGcode(socket: Socket, state: CutterState): void {
  new GcodeTalk(socket, state).open();
}

class GcodeTalk {
  private readonly decoder = new GcodeDecoder();
  private readonly lines: string[] = [];
  private readonly work: JobWork;
  private waiting = '';
  private isAnswering = false;
  private room: () => void = () => undefined;

  constructor(
    private readonly socket: Socket,
    private readonly state: CutterState,
  ) {
    this.work = new JobWork(
      {
        tell: (event) => {
          if (event.event === 'stopped') this.say(`alarm: ${event.reason}\n`);
        },
        makeRoom: () => this.room(),
        hangUp: () => {
          this.lines.length = 0;
          this.room();
        },
        breakLink: () => socket.destroy(),
      },
      state,
    );
  }

  open(): void {
    this.work.add([{ kind: 'begin' }]);
    this.say(GREETING);
    this.socket.on('data', (bytes) => this.take(bytes.toString('latin1')));
    this.socket.on('close', () => this.work.breakOff());
    this.socket.on('error', () => this.work.breakOff());
  }

  private say(text: string): void {
    if (this.socket.writable) this.socket.write(text);
  }

  private take(text: string): void {
    for (const character of text) {
      if (this.obeyAtOnce(character)) continue;
      if (character === '\n') {
        this.lines.push(this.waiting);
        this.waiting = '';
      } else if (character !== '\r') this.waiting += character;
    }
    void this.answer();
  }

  private obeyAtOnce(character: string): boolean {
    const { state, work } = this;
    switch (character) {
      case HOLD:
      case RESUME:
        state.isPaused = character === HOLD && state.isBusy;
        state.record.pause(state.isPaused);
        return true;
      case ASK:
        this.say(`<${state.isPaused ? 'hold' : work.waiting > 0 || this.isAnswering ? 'run' : 'idle'}>\n`);
        return true;
      case CANCEL:
        this.lines.length = 0;
        this.waiting = '';
        work.drop('stopped over its link');
        this.say(GREETING);
        return true;
      default:
        return false;
    }
  }

  private async answer(): Promise<void> {
    if (this.isAnswering) return;
    this.isAnswering = true;
    for (let text = this.lines.shift(); text !== undefined; text = this.lines.shift()) {
      if (await this.doLine(text)) this.say('ok\n');
    }
    this.isAnswering = false;
  }

  /** @returns whether it was taken; a dwell and the end only when all before is done */
  private async doLine(text: string): Promise<boolean> {
    const { work, state } = this;
    if (work.hasEnded) return false;
    try {
      const { instructions, dwellSeconds, isEnd } = this.decoder.read(text);
      while (work.waiting >= PLANNED && !work.hasEnded) {
        await new Promise<void>((resolve) => (this.room = resolve));
      }
      work.add(instructions);
      if (dwellSeconds === null && !isEnd) return !work.hasEnded;
      await work.settled();
      if (dwellSeconds) await pause((1000 * dwellSeconds) / state.pace);
      return isEnd || !work.hasEnded;
    } catch (error) {
      if (!(error instanceof DecodeError)) throw error;
      this.say(`error: ${error.message}\n`);
      return false;
    }
  }
}

function pause(milliseconds: number): Promise<void> {
  return new Promise((resolve) => setTimeout(resolve, milliseconds));
}
