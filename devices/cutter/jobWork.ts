import type { CutterEvent } from '#devices/cutter/cutter.ts';
import type { Instruction } from '#devices/cutter/instruction.ts';
import type { CutterState } from '#devices/cutter/obeyPanel.ts';

/** What a job on a link needs of that link. */
export interface JobLink {
  /** Tells what happened, in whatever way the machine tells anything. */
  tell(event: CutterEvent): void;
  /** There is room for more. */
  makeRoom(): void;
  /** The job is over. */
  hangUp(): void;
  /** The link breaks at once, as a fault. */
  breakLink(): void;
}

/** One job: instructions are done one after the other, faults strike when they are due. */
export class JobWork {
  private readonly queue: Instruction[] = [];
  private readonly bootId: string;
  private isWorking = false;
  private isOver = false;
  private isCut = false;
  private settlers: (() => void)[] = [];

  constructor(
    private readonly link: JobLink,
    private readonly state: CutterState,
  ) {
    this.bootId = state.bootId;
    state.isBusy = true;
    state.cutter.takeOn();
    state.listener = (event) => link.tell(event);
  }

  /** How many instructions wait. */
  get waiting(): number {
    return this.queue.length;
  }

  /** Whether it is over: nothing more is done. */
  get hasEnded(): boolean {
    return this.isOver;
  }

  add(instructions: readonly Instruction[]): void {
    this.queue.push(...instructions);
    void this.work();
  }

  /** When everything that was added is done, or the job is over. */
  settled(): Promise<void> {
    if (this.isOver || (this.queue.length === 0 && !this.isWorking)) return Promise.resolve();
    return new Promise((resolve) => this.settlers.push(resolve));
  }

  /** Whatever waits is dropped, and the machine stands still. */
  drop(reason: string): void {
    if (this.isOver) return;
    this.queue.length = 0;
    this.state.isPaused = false;
    this.state.cutter.stop(reason);
    this.report({ event: 'stopped', reason });
    this.finish();
  }

  /** The link is gone: what arrived whole is still done. */
  breakOff(): void {
    if (this.isOver) return;
    this.isCut = true;
    if (!this.isWorking) this.finish();
  }

  private async work(): Promise<void> {
    if (this.isWorking) return;
    this.isWorking = true;
    for (let next = this.queue.shift(); next && !this.isOver; next = this.queue.shift()) {
      while (this.state.isPaused && !this.isOver) await pause(20);
      if (this.state.bootId !== this.bootId || this.isOver) break;
      if (next.kind === 'begin') this.state.cutter.disturb(this.state.faults.takeSense());
      if (!(await this.state.cutter.act(next))) this.finish();
      this.strike();
      this.link.makeRoom();
    }
    this.isWorking = false;
    if (this.isCut && !this.isOver) this.finish();
    this.settle();
  }

  private settle(): void {
    for (const done of this.settlers.splice(0)) done();
  }

  /** Lets a fault that is due happen. */
  private strike(): void {
    if (this.isOver) return;
    const strokes = this.state.cutter.strokesCut;
    const fault = this.state.faults.take(
      ['linkLost', 'halfCommand', 'marksNotRead', 'jam', 'panelStop', 'powerLoss'],
      strokes,
    );
    if (fault === 'linkLost' || fault === 'halfCommand') this.link.breakLink();
    if (fault === 'marksNotRead') this.state.cutter.stop('the marks were not found');
    if (fault === 'jam') this.state.cutter.stop('jam: a loose piece caught under the blade');
    if (fault === 'panelStop') this.state.cutter.stop('stopped at the panel');
    if (fault === 'powerLoss') {
      this.isOver = true;
      this.state.losePower();
    }
  }

  private finish(): void {
    if (this.isOver) return;
    this.isOver = true;
    this.state.isBusy = false;
    this.state.isPaused = false;
    this.state.listener = null;
    this.state.record.break(this.state.cutter.cutMetres);
    this.link.hangUp();
    this.settle();
  }

  /** Something the cutter itself does not know of. */
  report(event: CutterEvent): void {
    this.state.record.note(event);
    this.link.tell(event);
    for (const watch of this.state.watchers) watch(event);
  }
}

/** One JSON value a line. */
export function line(value: object): string {
  return `${JSON.stringify(value)}\n`;
}

function pause(milliseconds: number): Promise<void> {
  return new Promise((resolve) => setTimeout(resolve, milliseconds));
}
