import { fork, type ChildProcess } from 'node:child_process';
import { join } from 'node:path';
import { ROOT } from '#commands/homeFolder.ts';
import type { Asked } from '#e2e/support/serverProcess.ts';

interface Said {
  readonly id: number;
  readonly said?: unknown;
  readonly refused?: string;
}

/** Only for tests: a server among several, in a process of its own. */
export class SeveralServer {
  private readonly child: ChildProcess;
  private count = 0;

  constructor(url: string, cutter: { readonly dataPort: number; readonly panelPort: number }) {
    this.child = fork(join(ROOT, 'e2e/support/serverProcess.ts'), {
      cwd: ROOT,
      execArgv: ['--import', 'tsx'],
      stdio: ['ignore', 'ignore', 'ignore', 'ipc'],
      env: {
        ...process.env,
        FEATHER_DATABASE_URL: url,
        FEATHER_DATA_PORT: String(cutter.dataPort),
        FEATHER_PANEL_PORT: String(cutter.panelPort),
      },
    });
  }

  /** @returns what it answered @throws Error as it was refused */
  ask(order: Asked['order'], runId: number): Promise<unknown> {
    this.count += 1;
    const id = this.count;
    return new Promise((resolve, reject) => {
      const hear = (message: Said) => {
        if (message.id !== id) return;
        this.child.off('message', hear);
        if (message.refused === undefined) resolve(message.said);
        else reject(new Error(message.refused));
      };
      this.child.on('message', hear);
      this.child.send({ id, order, runId } satisfies Asked);
    });
  }

  async kill(): Promise<void> {
    if (this.child.signalCode !== null || this.child.exitCode !== null) return;
    const gone = new Promise((resolve) => this.child.once('exit', resolve));
    this.child.kill('SIGKILL');
    await gone;
  }

  /** Stands still without a word, as a computer does whose lid was closed. */
  freeze(isFrozen: boolean): void {
    this.child.kill(isFrozen ? 'SIGSTOP' : 'SIGCONT');
  }
}
