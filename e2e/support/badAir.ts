import { connect, createServer, type AddressInfo, type Server, type Socket } from 'node:net';

/** The way to the application through bad air: it can be cut, and comes back at the same address. */
export class BadAir {
  private server: Server | null = null;
  private readonly open = new Set<Socket>();
  private port = 0;
  /** What asks for this path gets there so much later. */
  private slow: { readonly path: string; readonly ms: number } | null = null;

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
      far.pipe(near);
      near.on('data', (bytes) => {
        const isSlow = this.slow !== null && bytes.toString('latin1').startsWith(`GET ${this.slow.path} `);
        setTimeout(() => far.destroyed || far.write(bytes), isSlow ? this.slow?.ms : 0);
      });
      for (const [one, other] of [
        [near, far],
        [far, near],
      ] as const) {
        this.open.add(one);
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

  /** From now on one page takes its time, as on a small computer with much to do. */
  slowDown(path: string, ms: number): void {
    this.slow = { path, ms };
  }

  /** Nothing gets through from now on. */
  async cut(): Promise<void> {
    const closed = new Promise((resolve) => this.server?.close(resolve));
    for (const socket of this.open) socket.destroy();
    await closed;
  }
}
