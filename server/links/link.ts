import type { ReachedSpan } from '#core/run/run.ts';
import type { MachineMemory } from '#core/run/runCourse.ts';

/** How a channel ended: closed from here, or lost, with the reason in words. */
export type ChannelEnd = { readonly kind: 'closed' } | { readonly kind: 'lost'; readonly reason: string };

/** An open way to a machine: bytes there, lines back. It knows no machine language. */
export interface Channel {
  /**
   * Resolves when the system took the bytes.
   *
   * @throws AppError `deviceUnreachable` when the link is gone
   */
  write(text: string): Promise<void>;
  /** Hands on every whole line that comes back. */
  onLine(listener: (line: string) => void): void;
  readonly ended: Promise<ChannelEnd>;
  /** Bytes that the other side has not confirmed yet; `null` where nobody tells. */
  undelivered(): Promise<number | null>;
  /** Lets out what was written, then hangs up. */
  end(): Promise<void>;
  /** Hangs up at once: what has not left is dropped. */
  cut(): void;
}

/** What eyes see at a stand-in while it cuts; strokes are counted from the first that was sent. Lengths in mm. */
export type Sight =
  | { readonly event: 'started' }
  | { readonly event: 'position'; readonly xMm: number; readonly yMm: number; readonly stroke: number }
  | {
      readonly event: 'stroke';
      readonly index: number;
      readonly spans: readonly ReachedSpan[];
    }
  | { readonly event: 'finished'; readonly cutMetres: number }
  | { readonly event: 'stopped'; readonly reason: string };

/** What hands and eyes do at a stand-in; a real machine has a person for it. */
export interface Hands {
  /**
   * Gives the panel one order.
   *
   * @returns what it said
   * @throws AppError `deviceUnreachable`, `deviceBusy`, or `deviceRefused` with the reason it gave
   */
  order(order: object): Promise<unknown>;
  /** What the machine remembers of its last job. @throws as `order` does */
  report(): Promise<MachineMemory>;
  /** Looks on until `close` is called; `onLost` once, should the view be lost. @throws as `order` does */
  watch(onSight: (sight: Sight) => void, onLost: () => void): Promise<{ readonly close: () => void }>;
}

/** Where a machine is reached. */
export interface Link {
  /** For people: "192.168.1.5, port 9100". */
  readonly words: string;
  /** False where nothing can come back. */
  readonly isTwoWay: boolean;
  /** @throws AppError `deviceUnreachable` or `deviceBusy`, with what to do */
  open(): Promise<Channel>;
  readonly hands: Hands | null;
}
