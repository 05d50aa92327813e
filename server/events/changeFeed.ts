import { randomUUID } from 'node:crypto';
import type { Logger } from 'pino';
import type { Store } from '#store/connection/connectStore.ts';
import { forgetChanges, listChanges, type KeptChange } from '#store/repositories/events/changes.ts';
import { SharedReads } from '#server/events/sharedReads.ts';
import { BEAT_MS, beatWatchers, listWatchers, type Watcher } from '#store/repositories/events/watchers.ts';

/** So often the store is asked while somebody watches, ms: what another server wrote shows that soon. */
const LOOK_MS = 250;
const FORGET_MS = 60_000;

type Listener = (change: KeptChange) => void;

/**
 * Tells the pages of this process what was changed, whichever server changed it. All servers on a store see what was
 * kept there: one question at a time, and none while nobody watches.
 */
export class ChangeFeed {
  /** This process, among those that work on the store. */
  readonly server = randomUUID();
  private readonly people = new SharedReads((topic) => listWatchers(this.store, topic, new Date()));
  private readonly listeners = new Map<string, Set<Listener>>();
  /** Numbers that were told, in the order in which they came. */
  private told = new Set<number>();
  private timer: NodeJS.Timeout | null = null;
  private isLooking = false;
  /** What stood when the first one came is nobody's news. */
  private isFirst = true;
  private beatAt = 0;
  private forgetAt = 0;

  constructor(
    private readonly store: Store,
    private readonly log: Pick<Logger, 'error'>,
  ) {}

  /** Watches a topic; call what is returned to stop. */
  watch(topic: string, listener: Listener): () => void {
    const watching = this.listeners.get(topic) ?? new Set<Listener>();
    watching.add(listener);
    this.listeners.set(topic, watching);
    this.timer ??= setInterval(() => void this.look(), LOOK_MS).unref();
    if (this.isFirst) void this.look();
    return () => {
      watching.delete(listener);
      if (watching.size > 0 || this.listeners.get(topic) !== watching) return;
      this.listeners.delete(topic);
      if (this.listeners.size === 0) this.rest();
    };
  }

  /** Who looks at something now; each page of it asks, and the store is asked once for all. */
  peopleOf(topic: string): Promise<readonly Pick<Watcher, 'page' | 'name'>[]> {
    return this.people.read(topic);
  }

  /** Looks at once: this process itself wrote something. */
  nudge(): void {
    if (this.timer) setTimeout(() => void this.look(), 20).unref();
  }

  private rest(): void {
    if (this.timer) clearInterval(this.timer);
    this.timer = null;
    this.isFirst = true;
    this.told = new Set();
  }

  private async look(): Promise<void> {
    if (this.isLooking) return;
    this.isLooking = true;
    try {
      const now = new Date();
      const changes = await listChanges(this.store, now);
      const fresh = changes.filter(({ id }) => !this.told.has(id));
      this.told = new Set(changes.map(({ id }) => id));
      if (!this.isFirst) for (const change of fresh) this.tell(change);
      this.isFirst = false;
      await this.keepUp(now);
    } catch (error) {
      this.log.error({ err: error }, 'changes cannot be read');
    } finally {
      this.isLooking = false;
    }
  }

  private tell(change: KeptChange): void {
    for (const listener of this.listeners.get(change.topic) ?? []) listener(change);
  }

  private async keepUp(now: Date): Promise<void> {
    if (now.getTime() - this.beatAt > BEAT_MS) {
      this.beatAt = now.getTime();
      await beatWatchers(this.store, this.server, now);
    }
    if (now.getTime() - this.forgetAt > FORGET_MS) {
      this.forgetAt = now.getTime();
      await forgetChanges(this.store, now);
    }
  }
}
