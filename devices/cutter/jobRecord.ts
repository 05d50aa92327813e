import type { CutterEvent } from '#devices/cutter/cutter.ts';
import type { Span } from '#devices/cutter/sheet/cutSheet.ts';

/** How far the cutter is with the job it was loaded for. `broken`: its bytes ended before the job did. */
export type JobState = 'loaded' | 'working' | 'paused' | 'finished' | 'stopped' | 'broken';

/** What the cutter remembers of one job until it is loaded anew or loses power. */
export interface JobMemory {
  readonly key: string | null;
  readonly state: JobState;
  readonly reached: readonly { readonly index: number; readonly spans: readonly Span[] }[];
  readonly cutMetres: number;
  readonly reason: string;
}

/** The memory of a cutter: asked again, it tells what it did, however the link fared. */
export class JobRecord {
  private memory: JobMemory | null = null;
  private begun = new Set<string>();

  /** @returns false when a job of this key was begun before: it is never cut twice */
  load(key: string | null): boolean {
    if (key !== null && this.begun.has(key)) return false;
    this.memory = { key, state: 'loaded', reached: [], cutMetres: 0, reason: '' };
    return true;
  }

  /** @returns false when this job was cut already and nothing was loaded since */
  begin(): boolean {
    if (this.memory?.key && this.begun.has(this.memory.key)) return false;
    if (this.memory?.key) this.begun.add(this.memory.key);
    this.set({ state: 'working', reached: [], cutMetres: 0, reason: '' });
    return true;
  }

  /** Stop at the panel before the first byte came: this job will not be cut any more. */
  cancel(): void {
    if (this.memory?.state !== 'loaded') return;
    if (this.memory.key) this.begun.add(this.memory.key);
    this.set({ state: 'stopped', reason: 'stopped at the panel' });
  }

  note(event: CutterEvent): void {
    if (event.event === 'stroke') {
      const { index, spans } = event;
      this.set({ reached: [...(this.memory?.reached ?? []), { index, spans }] });
    }
    if (event.event === 'finished') this.set({ state: 'finished', cutMetres: event.cutMetres });
    if (event.event === 'stopped') this.set({ state: 'stopped', reason: event.reason });
  }

  /** The bytes ended; what was said of the job stands. */
  break(cutMetres: number): void {
    if (this.memory?.state === 'working' || this.memory?.state === 'paused') {
      this.set({ state: 'broken', cutMetres });
    }
  }

  pause(isPaused: boolean): void {
    if (this.memory?.state === 'working' && isPaused) this.set({ state: 'paused' });
    if (this.memory?.state === 'paused' && !isPaused) this.set({ state: 'working' });
  }

  forget(): void {
    this.memory = null;
    this.begun = new Set();
  }

  tell(): JobMemory | null {
    return this.memory;
  }

  private set(change: Partial<JobMemory>): void {
    const before = this.memory ?? { key: null, state: 'loaded', reached: [], cutMetres: 0, reason: '' };
    this.memory = { ...before, ...change };
  }
}
