import { connect, createServer, type AddressInfo, type Server, type Socket } from 'node:net';

/** The way to the application through bad air: it can be cut, and comes back at the same address. */
export class BadAir {
  private server: Server | null = null;
  private readonly open = new Set<Socket>();
  private port = 0;

  private constructor(private readonly to: URL) {}

  static async to(address: string): Promise<BadAir> {
    const one = new BadAir(new URL(address));
    await one.clear();
    return one;
  }

  get address(): string {
    return `http://127.0.0.1:${this.port}`;
  }

  /** The air is good from now on. */
  async clear(): Promise<void> {
    const server = createServer((near) => {
      const far = connect(Number(this.to.port), this.to.hostname);
      for (const [one, other] of [
        [near, far],
        [far, near],
      ] as const) {
        this.open.add(one);
        one.pipe(other);
        one.on('error', () => other.destroy());
        one.on('close', () => {
          this.open.delete(one);
          other.destroy();
        });
      }
    });
    await new Promise<void>((resolve) => server.listen(this.port, '127.0.0.1', resolve));
    this.port = (server.address() as AddressInfo).port;
    this.server = server;
  }

  /** Nothing gets through from now on. */
  async cut(): Promise<void> {
    const closed = new Promise((resolve) => this.server?.close(resolve));
    for (const socket of this.open) socket.destroy();
    await closed;
  }
}
