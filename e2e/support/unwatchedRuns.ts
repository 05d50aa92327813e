import type { Socket } from 'node:net';
import type { FileOptions } from '#core/program/cutProgram.ts';
import { isRunOver, type RunState } from '#core/run/run.ts';
import type { MachineLink } from '#core/station/machine.ts';
import { serveCutter, type CutterService } from '#devices/cutter/serveCutter.ts';
import { addDrivenRun, drivenContext } from '#e2e/support/drivenRun.ts';
import { oddMachine, type OddMachine } from '#e2e/support/oddMachine.ts';
import type { ServerContext } from '#server/context/context.ts';
import { driveRun, isDriven } from '#server/runs/runLoop.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { addMachine } from '#store/repositories/book/machines.ts';
import { findRun } from '#store/repositories/runs/runs.ts';
import { TimeGiven } from '#store/tests/timeGiven.ts';
import { machine, now, openTestStore } from '#store/tests/testStore.ts';

/** Only for tests: runs over links at which nobody looks on, each on a machine of its own. */
export class UnwatchedRuns {
  private count = 0;
  private open: { close: () => unknown }[] = [];

  private constructor(
    readonly db: Store,
    readonly context: ServerContext,
    private readonly conditionId: number,
  ) {}

  static async begin(): Promise<UnwatchedRuns> {
    const { db, conditionId } = await openTestStore();
    return new UnwatchedRuns(db, drivenContext(db, { dataPort: 1, panelPort: 1 }), conditionId);
  }

  /** Closes what a test opened. */
  async tidy(): Promise<void> {
    for (const one of this.open.splice(0)) await one.close();
  }

  closeLater(one: { close: () => unknown }): void {
    this.open.push(one);
  }

  async start(link: MachineLink, file: FileOptions, circles: number) {
    this.count += 1;
    const made = { ...machine, name: `Odd ${this.count}`, language: file.language, link };
    const machineId = await addMachine(this.db, made, now);
    const facts = { machineId, conditionId: this.conditionId, now, key: `odd-machine-${this.count}` };
    const run = await addDrivenRun(this.db, facts, circles, false, false, file);
    void driveRun(run.runId, this.context);
    return run;
  }

  /** @returns the run, and after how long, ms of the time that the machine was given */
  async until(runId: number, state: RunState, withinMs = 40_000) {
    const time = new TimeGiven();
    for (;;) {
      const run = await findRun(this.db, runId);
      const ms = time.ms();
      if (run.state === state && (state === 'cutting' || !isDriven(runId))) return { run, ms };
      if (ms > withinMs || (isRunOver(run.state) && !isDriven(runId))) {
        throw new Error(`the run never was ${state}: ${run.state}, ${run.message}`);
      }
      await pause(20);
    }
  }

  /** A machine that does what the test wants with a connection. */
  async odd(behave: (socket: Socket) => void): Promise<OddMachine> {
    const made = await oddMachine(behave);
    this.open.push(made);
    return made;
  }

  /** The stand-in flatbed with a sheet on it, as a machine on the network. */
  async flatbed(pace: number): Promise<CutterService> {
    const cutter = await serveCutter({ model: 'flat', dataPort: 0, panelPort: 0, seed: 4, pace });
    this.open.push(cutter);
    const layers = [{ role: 'face', caliperUm: 70 }];
    const sheet = { key: 'flat', family: 'plainVinyl', darkness: 0, layers };
    cutter.state.cutter.load({ sheet, exposureMm: 0.4, bladeMetres: 0, isFreshSheet: true });
    return cutter;
  }
}

/** A link to a port of this computer. */
export const at = (port: number) => ({ kind: 'address', host: '127.0.0.1', port }) as const;

export const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
