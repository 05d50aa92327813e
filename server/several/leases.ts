import { randomUUID } from 'node:crypto';
import { hostname } from 'node:os';
import type { Logger } from 'pino';
import type { Store } from '#store/connection/connectStore.ts';
import {
  LEASE_S,
  releaseLease,
  releaseLeasesOf,
  renewLease,
  takeLease,
  type RunSight,
} from '#store/repositories/several/runLeases.ts';
import { forgetServers, listServersOn, seeServer } from '#store/repositories/several/servers.ts';

/** A lease is renewed so often, ms. */
const RENEW_MS = 500;
/** Other servers are counted so often, ms. */
const SEE_MS = 3_000;
/** A lease counts as over so much sooner here than in the store, ms: who takes it next must find nobody at work. */
const SOONER_MS = 1_000;

interface Held {
  readonly fence: number;
  /** By this process's own clock, which never jumps, ms. */
  goodUntil: number;
  /** Who works with it here: let go when nobody does. */
  users: number;
}

/** What a process knows of the runs it drives. */
export interface Driving {
  /** Where the head of a run is and what has gone out. */
  readonly sightOf: (runId: number) => RunSight;
  /** Another server took a run, or may have: nothing more is sent from here. */
  readonly onLost: (runId: number) => void;
}

/**
 * Which runs this server drives. One of several servers on a store drives a run, and only that one: it holds the run's
 * lease, which lasts four seconds and is renewed twice a second. When it dies, another takes the run, with a higher
 * fencing number; what the first still writes is refused. Where no other server is there, a run goes on although the
 * store is away.
 */
export class Leases {
  readonly holder = randomUUID();
  private readonly held = new Map<number, Held>();
  private readonly letting = new Map<number, Promise<void>>();
  private others = 0;
  private seenAt = -Infinity;
  private isLooking = false;
  private readonly timer: NodeJS.Timeout;

  constructor(
    private readonly store: Store,
    private readonly log: Pick<Logger, 'warn'>,
    private readonly driving: Driving,
    private readonly now: () => number = () => performance.now(),
  ) {
    this.timer = setInterval(() => void this.look(), RENEW_MS).unref();
  }

  /** Takes the lease of a run, or uses the one that is held. @returns false while another server drives it */
  async take(runId: number): Promise<boolean> {
    await this.letting.get(runId);
    const known = this.held.get(runId);
    if (known) {
      known.users += 1;
      return true;
    }
    if (this.seenAt === -Infinity) await this.see();
    const asked = this.now();
    const fence = await takeLease(this.store, runId, this.holder);
    if (fence === null) return false;
    const meanwhile = this.held.get(runId);
    if (meanwhile) meanwhile.users += 1;
    else this.held.set(runId, { fence, goodUntil: asked + goodFor, users: 1 });
    return true;
  }

  /** One more works with a lease that is held. */
  use(runId: number): void {
    const lease = this.held.get(runId);
    if (lease) lease.users += 1;
  }

  /** One fewer works with it; the last lets it go. */
  leave(runId: number): void {
    const lease = this.held.get(runId);
    if (!lease) return;
    lease.users -= 1;
    if (lease.users > 0) return;
    this.held.delete(runId);
    const letGo = releaseLease(this.store, runId, this.holder)
      .catch((error: unknown) => this.log.warn({ err: error, runId }, 'a lease was not let go'))
      .finally(() => this.letting.delete(runId));
    this.letting.set(runId, letGo);
  }

  /** Whether this server may still act for a run. */
  holds(runId: number): boolean {
    const lease = this.held.get(runId);
    return lease !== undefined && (this.others === 0 || this.now() < lease.goodUntil);
  }

  /**
   * Whether more may be sent for a run. A process that stood still asks first; where it knows of no other server and the
   * store is away, the run goes on.
   */
  async confirm(runId: number): Promise<boolean> {
    const lease = this.held.get(runId);
    if (!lease) return false;
    if (this.now() < lease.goodUntil) return true;
    if (this.isAlone) await this.renew(runId).catch(() => undefined);
    return this.holds(runId);
  }

  /** The fencing number under which this server writes a run; `null` when it holds none. */
  fenceOf(runId: number): { readonly holder: string; readonly fence: number } | null {
    const lease = this.held.get(runId);
    return lease ? { holder: this.holder, fence: lease.fence } : null;
  }

  /** Whether no other server works on the store. */
  get isAlone(): boolean {
    return this.others === 0;
  }

  runs(): readonly number[] {
    return [...this.held.keys()];
  }

  /** Lets everything go: this server ends. */
  async close(): Promise<void> {
    clearInterval(this.timer);
    await releaseLeasesOf(this.store, [this.holder]);
    await forgetServers(this.store, [this.holder]);
  }

  private async look(): Promise<void> {
    for (const runId of this.runs()) if (!this.holds(runId)) this.lose(runId);
    if (this.isLooking) return;
    this.isLooking = true;
    try {
      if (this.now() - this.seenAt > SEE_MS) await this.see();
      await Promise.all(this.runs().map((runId) => this.renew(runId)));
    } catch (error) {
      this.log.warn({ err: error }, 'leases were not renewed');
    } finally {
      this.isLooking = false;
    }
  }

  private async renew(runId: number): Promise<void> {
    const lease = this.held.get(runId);
    if (!lease) return;
    const asked = this.now();
    const { holder } = this;
    const sight = this.driving.sightOf(runId);
    const isOwn = await renewLease(this.store, runId, { holder, fence: lease.fence, sight });
    if (this.held.get(runId) !== lease) return;
    if (isOwn) lease.goodUntil = asked + goodFor;
    else this.lose(runId);
  }

  private lose(runId: number): void {
    if (!this.held.delete(runId)) return;
    this.log.warn({ runId }, 'another server may drive this run now');
    this.driving.onLost(runId);
  }

  /** Counts the others; those of this computer that are gone hold nothing any more, and nobody waits for them. */
  private async see(): Promise<void> {
    const host = hostname();
    this.seenAt = this.now();
    const gone = (await listServersOn(this.store, host, this.holder)).filter(({ pid }) => !isAlive(pid));
    if (gone.length > 0) {
      const ids = gone.map(({ id }) => id);
      await releaseLeasesOf(this.store, ids);
      await forgetServers(this.store, ids);
    }
    this.others = await seeServer(this.store, { id: this.holder, host, pid: process.pid });
  }
}

const goodFor = LEASE_S * 1000 - SOONER_MS;

function isAlive(pid: number): boolean {
  try {
    process.kill(pid, 0);
    return pid !== process.pid;
  } catch (error) {
    // Somebody else's process is alive as well.
    return (error as NodeJS.ErrnoException).code === 'EPERM';
  }
}
