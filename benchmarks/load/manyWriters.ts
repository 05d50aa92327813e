import { randomUUID } from 'node:crypto';
import type { Store } from '#store/connection/connectStore.ts';
import { seededRandom } from '#core/random/seededRandom.ts';

/** What eight writers were told, to be compared with what is in the book. */
export interface WriterTally {
  readonly statuses: ReadonlyMap<number, number>;
  readonly materials: readonly string[];
  readonly blades: readonly number[];
  readonly cuts: number;
  readonly revisions: number;
}

/** Asks the application, over HTTP or without it. */
export type Ask = (
  method: 'GET' | 'POST',
  path: string,
  asked: { readonly body?: unknown; readonly key?: string },
) => Promise<{ readonly status: number; readonly reply: unknown }>;

const pack = {
  maker: 'One Maker',
  family: 'plainVinyl',
  finish: 'matt',
  colourName: 'white',
  colourHex: '#ffffff',
  darkness: 0.1,
  stack: [
    { role: 'face', caliperUm: 80, isMeasured: true },
    { role: 'liner', caliperUm: 140, isMeasured: true },
  ],
};
const blade = { kind: '45° fine', angleDeg: 45, lifeMetres: 500, offsetMm: 0.25 };
const values = { force: 90, exposureMm: 0.35, speed: 200, passes: 1, offsetMm: 0.25, overcutMm: 0.5 };
const sources = { force: 'person', exposureMm: 'person', speed: 'person', passes: 'person' } as const;

/**
 * Has several writers add, change and keep at the same moment: of one maker's materials, one blade shelf, one setting
 * and one sheet's test cuts. A third of the requests is sent twice with the same key, as a browser does that lost an
 * answer.
 */
export async function writeAtOnce(
  writers: number,
  each: number,
  machineId: number,
  seed: number,
  ask: Ask,
): Promise<WriterTally> {
  const tally = new Tally(machineId, ask);
  const write = async (who: number) => {
    const random = seededRandom(seed + who);
    for (let turn = 0; turn < each; turn++) {
      const isTwice = random() < 1 / 3;
      // Few cuts: each is answered by a fit to all those before it.
      const { addMaterial, addBlade, keep, addCut } = tally;
      const acts = [addMaterial, addMaterial, addMaterial, addBlade, addBlade, addBlade, keep, keep, addCut];
      const act = acts[Math.floor(random() * acts.length)] as typeof keep;
      await act(who * 1000 + turn, isTwice);
    }
  };
  await Promise.all([...Array(writers).keys()].map(write));
  return tally;
}

class Tally implements WriterTally {
  readonly statuses = new Map<number, number>();
  readonly materials: string[] = [];
  readonly blades: number[] = [];
  cuts = 0;
  revisions = 0;

  constructor(
    private readonly machineId: number,
    private readonly send: Ask,
  ) {}

  readonly addMaterial = async (number: number, isTwice: boolean) => {
    const name = `Herring ${number}`;
    const kept = await this.ask('/api/materials', { ...pack, name }, isTwice);
    if (kept) this.materials.push(name);
  };

  readonly addBlade = async (number: number, isTwice: boolean) => {
    const kept = await this.ask('/api/blades', { ...blade, number: 100 + number }, isTwice);
    if (kept) this.blades.push((kept as { id: number }).id);
  };

  readonly addCut = async (number: number, isTwice: boolean) => {
    const body = { operation: 'kiss', force: 60 + (number % 100), speed: 200, passes: 1 };
    const cut = { ...body, exposureMm: 0.3, grade: 3, flaws: [] };
    if (await this.ask(`/api/stations/${this.machineId}/test-cuts`, cut, isTwice)) this.cuts += 1;
  };

  readonly keep = async (number: number, isTwice: boolean) => {
    const { reply } = await this.send('GET', `/api/stations/${this.machineId}/answers/kiss`, {});
    const answer = reply as { revision: { revision: number } | null };
    const basedOn = answer.revision?.revision ?? 0;
    const revision = { values: { ...values, force: 60 + (number % 100) }, sources, reason: '', basedOn };
    const body = { operation: 'kiss', ...revision };
    if (await this.ask(`/api/stations/${this.machineId}/settings`, body, isTwice)) this.revisions += 1;
  };

  /** Asks once, or twice at the same moment with one key. @returns what was kept, or `null` when it was refused */
  private async ask(path: string, body: unknown, isTwice: boolean): Promise<unknown> {
    const asked = { body, key: randomUUID() };
    const all = await Promise.all([...Array(isTwice ? 2 : 1)].map(() => this.send('POST', path, asked)));
    for (const { status } of all) this.statuses.set(status, (this.statuses.get(status) ?? 0) + 1);
    return all.find(({ status }) => status < 300)?.reply ?? null;
  }
}

/** What is in the book of all that. */
export async function countWritten(db: Store): Promise<Omit<WriterTally, 'statuses'>> {
  const names: { name: string }[] = await db('materials').where({ maker: 'One Maker' }).select('name');
  const [cuts] = (await db('test_cuts').count({ n: '*' })) as { n: number }[];
  const [revisions] = (await db('setting_revisions').count({ n: '*' })) as { n: number }[];
  return {
    materials: names.map(({ name }) => name),
    blades: ((await db('blades').select('id')) as { id: number }[]).map(({ id }) => id),
    cuts: Number(cuts?.n),
    revisions: Number(revisions?.n),
  };
}
