/**
 * Reads that many want at once, each done once for all of them. Whoever asks while one is under way gets the next one,
 * which sees everything that was kept before they asked.
 */
export class SharedReads<Value> {
  private readonly going = new Map<string, { now: Promise<Value>; next: Promise<Value> | null }>();

  constructor(private readonly look: (key: string) => Promise<Value>) {}

  /** What stands there at this moment, or a moment later. */
  read(key: string): Promise<Value> {
    const going = this.going.get(key);
    if (!going) return this.begin(key);
    going.next ??= going.now.then(
      () => this.begin(key),
      () => this.begin(key),
    );
    return going.next;
  }

  private begin(key: string): Promise<Value> {
    const now = this.look(key);
    const mine = { now, next: null };
    this.going.set(key, mine);
    const end = () => {
      // Where a next one waits, it begins now and takes this place.
      if (this.going.get(key) === mine && mine.next === null) this.going.delete(key);
    };
    now.then(end, end);
    return now;
  }
}
