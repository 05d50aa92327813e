/** Counts what a reader leaves out, by name. */
export class Tally {
  private readonly counts = new Map<string, number>();

  add(words: string, count = 1): void {
    this.counts.set(words, (this.counts.get(words) ?? 0) + count);
  }

  /** The names in the order in which they came, with how often each did where that is more than once. */
  list(): readonly string[] {
    return [...this.counts].map(([words, count]) => (count > 1 ? `${words} (${count})` : words));
  }
}
