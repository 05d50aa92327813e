import type { Channel, Hands } from '#server/links/link.ts';
import type { Live } from '#server/runs/live.ts';

/** What has gone out is told no more often. */
const FOLLOW_MS = 250;

/** What others may do to a transmission while it goes on. */
export class Control implements Live {
  readonly begunAt = Date.now();
  isHalted = false;
  /** Halted without a word, because another server has the run. */
  isDropped = false;
  isFollowed = false;
  private out: number;
  private teller: Live['tell'] | null = null;
  private channel: Channel | null = null;
  private readonly halts: (() => void)[] = [];
  private follow: (to: number) => void = () => undefined;
  private followedAt = 0;
  private stopping: Promise<boolean> | null = null;

  constructor(
    readonly key: string,
    readonly from: number,
    /** Whether this server still drives the run. */
    private readonly mayGoOn: () => Promise<boolean> = () => Promise.resolve(true),
  ) {
    this.out = from;
  }

  /** Hands that stop the machine the moment it is halted. */
  useHands(hands: Hands): void {
    // Whether it was obeyed is asked by whoever ordered the stop.
    this.onHalt(() => {
      if (!this.isDropped) void hands.order({ order: 'stop' }).catch(() => undefined);
    });
  }

  /** The channel it goes out over; one that a halt came before is closed at once. */
  attach(channel: Channel): void {
    this.channel = channel;
    if (this.isHalted) channel.cut();
  }

  drop(): void {
    if (this.isHalted) return;
    this.isDropped = true;
    this.isHalted = true;
    for (const act of this.halts) act();
    this.channel?.cut();
  }

  /** Whether more may be sent: else it is dropped at once. */
  async checkMayGoOn(): Promise<boolean> {
    if (!(await this.mayGoOn())) this.drop();
    return !this.isHalted;
  }

  halt(): void {
    if (this.isHalted) return;
    this.isHalted = true;
    for (const act of this.halts) act();
    // Told at once, without waiting for anything; where it has no word for it, hanging up is all that can be done.
    if (this.teller && this.channel) this.stopping = this.teller('stop').catch(() => false);
    else this.channel?.cut();
  }

  /** Does something when it is halted, or at once when it was. */
  onHalt(act: () => void): void {
    if (this.isHalted) act();
    else this.halts.push(act);
  }

  /** Gives whoever holds the channel a way to pass orders on. */
  setTeller(teller: Live['tell']): void {
    this.teller = teller;
  }

  async tell(order: 'stop' | 'pause' | 'resume'): Promise<boolean> {
    if (order === 'stop' && this.stopping) return this.stopping;
    if (!this.teller || !this.channel) return false;
    return this.teller(order).catch(() => false);
  }

  /** When a stop that was passed on has been answered. */
  async settled(): Promise<void> {
    await this.stopping;
  }

  setOut(strokes: number): void {
    this.out = Math.max(this.out, this.from + strokes);
  }

  /** Who follows what has gone out. */
  onOut(follow: (to: number) => void): void {
    this.follow = follow;
  }

  tellOut(): void {
    this.isFollowed = true;
    if (Date.now() - this.followedAt < FOLLOW_MS) return;
    this.followedAt = Date.now();
    this.follow(this.out);
  }

  outTo(): number {
    return this.out;
  }

  hasBegun(): boolean {
    return this.channel !== null && this.out > this.from;
  }
}
