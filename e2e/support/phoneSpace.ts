import { execFileSync } from 'node:child_process';
import { userInfo } from 'node:os';

/** A phone on the workshop's network: a network namespace of a test's own, tied to this computer by one cable. */
export class PhoneSpace {
  private constructor(
    private readonly name: string,
    private readonly cable: string,
    /** This computer, as the phone sees it. */
    readonly host: string,
    readonly ownAddress: string,
  ) {}

  /** @param net the third part of its addresses: one a test @throws Error without root and without sudo */
  static open(net: number): PhoneSpace {
    const one = new PhoneSpace(
      `phone-${process.pid}-${net}`,
      `p${net}x${process.pid}`,
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

  close(): void {
    asRoot('ip', 'link', 'delete', this.cable);
    asRoot('ip', 'netns', 'delete', this.name);
  }
}

function asRoot(...words: readonly string[]): string {
  const all = userInfo().uid === 0 ? words : ['sudo', '-n', ...words];
  return execFileSync(all[0] as string, all.slice(1), { stdio: 'pipe', encoding: 'utf8', timeout: 30_000 });
}
