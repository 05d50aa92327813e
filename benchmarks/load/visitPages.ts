import { Agent, get } from 'node:http';

/** What a load of some clients saw. */
export interface LoadFigures {
  readonly perSecond: number;
  readonly p50Ms: number;
  readonly p99Ms: number;
  readonly answers: number;
  /** Answers that were no 200, and connections that broke. */
  readonly failed: number;
}

/**
 * Has so many clients ask for a page one after the other for some seconds, each on its own connection.
 *
 * @param address of the application
 * @param cookies who asks, and at which station
 */
export async function visitPages(
  address: string,
  path: string,
  clients: number,
  seconds: number,
  cookies = 'feather_operator=Ines; feather_station=1',
): Promise<LoadFigures> {
  const agent = new Agent({ keepAlive: true, maxSockets: clients });
  const times: number[] = [];
  let failed = 0;
  const begun = performance.now();
  const end = begun + seconds * 1000;
  const client = async () => {
    while (performance.now() < end) {
      const asked = performance.now();
      const status = await ask(`${address}${path}`, agent, cookies).catch(() => 0);
      times.push(performance.now() - asked);
      if (status !== 200) failed++;
    }
  };
  await Promise.all(Array.from({ length: clients }, client));
  const took = (performance.now() - begun) / 1000;
  agent.destroy();
  times.sort((a, b) => a - b);
  const at = (share: number) => times[Math.min(times.length - 1, Math.floor(share * times.length))] ?? 0;
  return { perSecond: times.length / took, p50Ms: at(0.5), p99Ms: at(0.99), answers: times.length, failed };
}

function ask(url: string, agent: Agent, cookie: string): Promise<number> {
  return new Promise((resolve, reject) => {
    get(url, { agent, headers: { cookie } }, (response) => {
      response.resume();
      response.on('end', () => resolve(response.statusCode ?? 0));
      response.on('error', reject);
    }).on('error', reject);
  });
}
