import type { Channel, Hands } from '#server/links/link.ts';
import type { Live } from '#server/runs/live.ts';

/** What others may do to a transmission while it goes on. */
export class Control implements Live {
  isHalted = false;
  private out: number;
  private teller: Live['tell'] | null = null;
  private channel: Channel | null = null;
  private readonly halts: (() => void)[] = [];
  private told: Promise<unknown> = Promise.resolve();

  constructor(
    readonly key: string,
    readonly from: number,
  ) {
    this.out = from;
  }

  /** Hands that stop the machine the moment it is halted. */
  useHands(hands: Hands): void {
    // Whether it was obeyed is asked by whoever ordered the stop.
    this.onHalt(() => void hands.order({ order: 'stop' }).catch(() => undefined));
  }

  /** The channel it goes out over; one that a halt came before is closed at once. */
  attach(channel: Channel): void {
    this.channel = channel;
    if (this.isHalted) channel.cut();
  }

  halt(): void {
    if (this.isHalted) return;
    this.isHalted = true;
    for (const act of this.halts) act();
    // Where the machine can be told in its language, the channel is still needed for that.
    if (!this.teller) this.channel?.cut();
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
    if (!this.teller || !this.channel) return false;
    const telling = this.teller(order).catch(() => false);
    this.told = telling;
    return telling;
  }

  /** When the last order that was passed on has been answered. */
  async settled(): Promise<void> {
    await new Promise((resolve) => setTimeout(resolve, 0));
    await this.told;
  }

  setOut(strokes: number): void {
    this.out = Math.max(this.out, this.from + strokes);
  }

  outTo(): number {
    return this.out;
  }

  hasBegun(): boolean {
    return this.channel !== null && this.out > this.from;
  }
}
