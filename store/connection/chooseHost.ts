import mysql from 'mysql2';
import { connectionOptions, listStoreHosts, type StoreHost } from '#store/connection/connectionOptions.ts';

/** A node that does not answer within this time is passed over, ms. */
const PROBE_MS = 700;
/** A node that was just found well is not asked again, ms. */
const WELL_MS = 1_000;

/**
 * Which node of a cluster new connections go to: the one they went to last, while it is well; else the next that is. All
 * of them have everything, and one is enough at a time: what two write to different nodes at once, one writes twice.
 */
export class HostChooser {
  readonly hosts: readonly StoreHost[];
  private place = 0;
  private wellAt = -Infinity;
  /** Whether the one in use must be asked before anybody uses it again. */
  isInDoubt = false;
  private looking: Promise<StoreHost> | null = null;

  constructor(private readonly url: string) {
    this.hosts = listStoreHosts(url);
  }

  /** The one in use. */
  get current(): StoreHost {
    return this.hosts[this.place] as StoreHost;
  }

  /** @throws what the last one tried throws, when none is well */
  choose(): Promise<StoreHost> {
    const known = this.current;
    if (this.hosts.length === 1 || performance.now() - this.wellAt < WELL_MS) return Promise.resolve(known);
    this.looking ??= this.look().finally(() => (this.looking = null));
    return this.looking;
  }

  /** Something went wrong at the current one: it is asked before it is used again. */
  doubt(): void {
    this.isInDoubt = true;
    this.wellAt = -Infinity;
  }

  /** The current one is not worth asking: the next one is tried first. */
  leave(): void {
    this.doubt();
    this.place = (this.place + 1) % this.hosts.length;
  }

  private async look(): Promise<StoreHost> {
    let problem: unknown = null;
    for (let step = 0; step < this.hosts.length; step++) {
      const place = (this.place + step) % this.hosts.length;
      const host = this.hosts[place] as StoreHost;
      try {
        await probe({ ...connectionOptions(this.url, host), connectTimeout: PROBE_MS });
        this.place = place;
        this.wellAt = performance.now();
        this.isInDoubt = false;
        return host;
      } catch (error) {
        problem = error;
      }
    }
    throw problem;
  }
}

/**
 * How to connect to a store now: at the first of its addresses that is well.
 *
 * @throws what the last one tried throws, when none is
 */
export async function reachableOptions(url: string) {
  return connectionOptions(url, await new HostChooser(url).choose());
}

/** Whether a node answers and is part of its group. @throws Error */
function probe(options: mysql.ConnectionOptions): Promise<void> {
  return new Promise((resolve, reject) => {
    const connection = mysql.createConnection(options);
    const timer = setTimeout(
      () => end(Object.assign(new Error('the node does not answer'), { code: 'ETIMEDOUT' })),
      PROBE_MS,
    );
    const end = (problem: Error | null) => {
      clearTimeout(timer);
      connection.destroy();
      if (problem) reject(problem);
      else resolve();
    };
    connection.on('error', end);
    const show = (what: string, then: (value: string | undefined) => void) =>
      connection.query(`SHOW ${what}`, (error: Error | null, rows: unknown) => {
        if (error) return end(error);
        const [row] = (rows ?? []) as readonly { readonly Value?: string }[];
        then(row?.Value);
      });
    // A node out of its group answers nothing but SHOW. A single database says OFF too, but to both.
    show("STATUS LIKE 'wsrep_ready'", (ready) =>
      ready === 'ON'
        ? end(null)
        : show("GLOBAL VARIABLES LIKE 'wsrep_on'", (isOfGroup) =>
            end(isOfGroup === 'ON' ? outOfGroup() : null),
          ),
    );
  });
}

function outOfGroup(): Error {
  return Object.assign(new Error('the node is not part of its group'), { code: 'ECONNREFUSED' });
}
