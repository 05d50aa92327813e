import mysql from 'mysql2';

/** Whoever waits for an answer of the database. */
interface Waiting {
  readonly stream: { destroy(error: Error): unknown };
}

/** How soon a database that says nothing is given up, though its port is open: it is frozen, or its machine is. */
export interface Patience {
  /** It is asked so often whether it is there, ms. */
  readonly askEveryMs: number;
  /** One that says nothing for so long is away, ms. */
  readonly silentAfterMs: number;
}

/** There is no other: it is given its time. */
const PATIENT: Patience = { askEveryMs: 400, silentAfterMs: 1_500 };

/**
 * Watches a database that may freeze: statements that wait for one that answers nobody are ended, so that who asked can
 * be told. A statement that takes long while the database answers others is left alone.
 */
export class SilenceWatch {
  private readonly waiting = new Set<Waiting>();
  private timer: NodeJS.Timeout | null = null;
  private probe: mysql.Connection | null = null;
  private askedAt: number | null = null;
  private isLate = false;

  /**
   * @param options of the database that is in use
   * @param onGivenUp before those who wait are told: what they do next may go elsewhere
   */
  constructor(
    private readonly options: () => mysql.ConnectionOptions,
    private readonly patience: Patience = PATIENT,
    private readonly onGivenUp: () => void = () => undefined,
  ) {}

  /** Takes a new connection of the pool under watch. */
  add(connection: Waiting): void {
    this.waiting.add(connection);
    this.timer ??= setInterval(() => this.look(), this.patience.askEveryMs).unref();
  }

  remove(connection: Waiting): void {
    this.waiting.delete(connection);
    if (this.waiting.size === 0) this.close();
  }

  close(): void {
    if (this.timer) clearInterval(this.timer);
    this.timer = null;
    this.probe?.destroy();
    this.probe = null;
    this.askedAt = null;
  }

  private look(): void {
    if (this.askedAt === null) {
      this.isLate = false;
      return this.ask();
    }
    if (performance.now() - this.askedAt < this.patience.silentAfterMs) return;
    // The server itself may have been busy, and the answer wait to be read: it has one more round for that.
    if (this.isLate) return this.giveUp();
    this.isLate = true;
  }

  private ask(): void {
    this.probe ??= this.open();
    this.askedAt = performance.now();
    this.probe.ping((error) => {
      this.askedAt = null;
      if (error) this.end(error);
    });
  }

  private open(): mysql.Connection {
    const probe = mysql.createConnection(this.options());
    probe.on('error', (error) => this.end(error));
    return probe;
  }

  /** Refused or hung up on, those who wait are told by their own connections; left without a word, they are not. */
  private end(error: NodeJS.ErrnoException): void {
    if (error.code === 'ETIMEDOUT') this.giveUp();
    else this.drop();
  }

  private drop(): void {
    this.probe?.destroy();
    this.probe = null;
    this.askedAt = null;
  }

  /** Hangs up on all who wait. */
  giveUp(): void {
    this.drop();
    this.onGivenUp();
    const error = Object.assign(new Error('the database does not answer'), { code: 'ETIMEDOUT' });
    for (const { stream } of this.waiting) stream.destroy(error);
    this.waiting.clear();
  }
}
