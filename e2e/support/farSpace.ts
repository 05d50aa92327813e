import { execFileSync, spawn, type ChildProcess } from 'node:child_process';
import { userInfo } from 'node:os';

/** Something else on the workshop's network, a phone or a machine: a network namespace of a test's own, tied to this computer by one cable. */
export class FarSpace {
  private constructor(
    private readonly name: string,
    private readonly cable: string,
    /** This computer, as it is seen from there. */
    readonly host: string,
    readonly ownAddress: string,
  ) {}

  /** @param net the third part of its addresses: one a test @throws Error without root and without sudo */
  static open(net: number): FarSpace {
    const one = new FarSpace(
      `far-${process.pid}-${net}`,
      `f${net}x${process.pid}`,
      `10.231.${net}.1`,
      `10.231.${net}.2`,
    );
    asRoot('ip', 'netns', 'add', one.name);
    asRoot('ip', 'link', 'add', one.cable, 'type', 'veth', 'peer', 'name', 'far', 'netns', one.name);
    asRoot('ip', 'address', 'add', `${one.host}/30`, 'dev', one.cable);
    one.plug(true);
    asRoot('ip', 'netns', 'exec', one.name, 'ip', 'address', 'add', `${one.ownAddress}/30`, 'dev', 'far');
    asRoot('ip', 'netns', 'exec', one.name, 'ip', 'link', 'set', 'far', 'up');
    return one;
  }

  /** Pulls the cable, or puts it back. */
  plug(isIn: boolean): void {
    asRoot('ip', 'link', 'set', this.cable, isIn ? 'up' : 'down');
  }

  /** Runs JavaScript there. @returns what it printed */
  run(script: string): string {
    return asRoot('ip', 'netns', 'exec', this.name, process.execPath, '-e', script);
  }

  /** Has JavaScript go on there. @returns once it has printed something */
  async keepRunning(script: string): Promise<ChildProcess> {
    const [command = '', ...words] = rootWords(
      'ip',
      'netns',
      'exec',
      this.name,
      process.execPath,
      '-e',
      script,
    );
    const child = spawn(command, words, { stdio: ['ignore', 'pipe', 'ignore'] });
    await new Promise((resolve) => child.stdout.once('data', resolve));
    return child;
  }

  close(): void {
    asRoot('ip', 'link', 'delete', this.cable);
    asRoot('ip', 'netns', 'delete', this.name);
  }
}

function rootWords(...words: readonly string[]): readonly string[] {
  return userInfo().uid === 0 ? words : ['sudo', '-n', ...words];
}

function asRoot(...words: readonly string[]): string {
  const [command = '', ...rest] = rootWords(...words);
  return execFileSync(command, rest, { stdio: 'pipe', encoding: 'utf8', timeout: 30_000 });
}
