import { type AddressInfo, connect, createServer, type Server, type Socket } from 'node:net';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { TimeGiven } from '#store/tests/timeGiven.ts';
import { connectStore, type Store } from '#store/connection/connectStore.ts';
import { isStoreTrouble } from '#store/connection/storeTrouble.ts';
import { addMaterial, listMaterials } from '#store/repositories/book/materials.ts';
import { actOnce, changeOnce, findReply, forgetKeys } from '#store/repositories/workshop/requestKeys.ts';
import { later, material, now, openTestStore } from '#store/tests/testStore.ts';
import { mine } from '#store/tests/mine.ts';

/** A change is done once for its key, whatever becomes of its answer. */
let db: Store;
let count = 0;
beforeAll(async () => {
  ({ db } = await openTestStore());
});
afterAll(() => db.destroy());
beforeEach(() => {
  count += 1;
});

const request = (print = 'a') => ({ key: `key-${count}`, isOwn: false, fingerprint: print.repeat(64) });
const named = (name: string) => ({ ...material, name: `${name} ${count}` });
const add = (name: string) => (store: Store) => addMaterial(store, named(name), now);
const howMany = async (name: string) =>
  (await listMaterials(db)).filter((one) => one.name === `${name} ${count}`).length;

describe('a change with a request key', () => {
  it('is made once and answered alike, one after the other and at the same moment', async () => {
    const first = await changeOnce(db, request(), now, add('Cod'));
    expect(await changeOnce(db, request(), now, add('Cod'))).toEqual(first);
    expect(await findReply(db, request())).toEqual({ reply: first });
    count += 1;
    const all = await Promise.all([...Array(8)].map(() => changeOnce(db, request(), now, add('Eel'))));
    expect(new Set(all.map((reply) => JSON.stringify(reply))).size).toBe(1);
    expect(await howMany('Eel')).toBe(1);
  });

  it('is not remembered when it failed, and leaves nothing behind', async () => {
    const failing = async (store: Store) => {
      await add('Hake')(store);
      throw new Error('in the midst of it');
    };
    await expect(changeOnce(db, request(), now, failing)).rejects.toThrow('in the midst of it');
    expect(await howMany('Hake')).toBe(0);
    await changeOnce(db, request(), now, add('Hake'));
    expect(await howMany('Hake')).toBe(1);
  });

  it('refuses a key that stood for another wish', async () => {
    await changeOnce(db, request(), now, add('Ling'));
    await expect(changeOnce(db, request('b'), now, add('Other'))).rejects.toMatchObject({
      code: 'keyReused',
    });
    expect(await howMany('Other')).toBe(0);
  });

  it('is forgotten after two days and not before', async () => {
    await changeOnce(db, request(), now, add('Dab'));
    await forgetKeys(db, later(47 * 60));
    expect(await findReply(db, request())).not.toBeNull();
    await forgetKeys(db, later(49 * 60));
    expect(await findReply(db, request())).toBeNull();
  });
});

describe('what moves a machine', () => {
  it('is not done again while it is under way, and answered alike afterwards', async () => {
    let done = 0;
    let finish: () => void = () => undefined;
    const slow = () =>
      new Promise<string>((resolve) => {
        done += 1;
        finish = () => resolve('printed');
      });
    const first = actOnce(db, request(), now, slow);
    await expect.poll(() => done).toBe(1);
    await expect(actOnce(db, request(), now, slow)).rejects.toMatchObject({ code: 'outcomeUnknown' });
    finish();
    expect(await first).toBe('printed');
    expect(await actOnce(db, request(), now, slow)).toBe('printed');
    expect(done).toBe(1);
  });

  it('may be asked for again when it was refused', async () => {
    await expect(actOnce(db, request(), now, () => Promise.reject(new Error('busy')))).rejects.toThrow(
      'busy',
    );
    expect(await actOnce(db, request(), now, () => Promise.resolve('done'))).toBe('done');
  });
});

describe('a database that goes away', () => {
  it('at the moment of writing: the change is known to be kept, and is answered as kept', async () => {
    const between = await Between.open();
    const store = connectStore(between.url);
    let committed = 0;
    between.onSent = (text) => {
      if (text.includes('COMMIT')) committed += 1;
      // The answer to the commit is lost on its way back.
      if (text.includes('COMMIT')) between.muteThenCut();
    };
    const kept = await changeOnce(store, request(), now, add('Skate'));
    expect(committed).toBe(1);
    expect(typeof kept).toBe('number');
    expect(await howMany('Skate')).toBe(1);
    await store.destroy();
    await between.close();
  });

  it('by freezing at the moment of writing: it is told within 3 s that nobody knows, and is done once', async () => {
    const between = await Between.open();
    const store = connectStore(between.url, { isWatched: true });
    between.onSent = (text) => {
      if (text.includes('COMMIT')) between.isFrozen = true;
    };
    const time = new TimeGiven();
    await expect(changeOnce(store, request(), now, add('Smelt'))).rejects.toMatchObject({
      code: 'outcomeUnknown',
    });
    expect(time.ms()).toBeLessThan(3_000);
    between.onSent = () => undefined;
    between.isFrozen = false;
    await expect
      .poll(() => changeOnce(store, request(), now, add('Smelt')).catch(() => null))
      .toEqual(expect.any(Number));
    expect(await howMany('Smelt')).toBe(1);
    await store.destroy();
    await between.close();
  });

  it('by freezing: who waits is told within 3 s, and it heals by itself', async () => {
    const between = await Between.open();
    const store = connectStore(between.url, { isWatched: true });
    expect(await store('materials').first('id')).toBeDefined();
    between.isFrozen = true;
    const time = new TimeGiven();
    const refusals = await Promise.allSettled([...Array(20)].map(() => store('materials').first('id')));
    expect(time.ms()).toBeLessThan(3_000);
    for (const one of refusals) expect(one.status === 'rejected' && isStoreTrouble(one.reason)).toBe(true);
    between.isFrozen = false;
    await expect
      .poll(() =>
        store('materials')
          .first('id')
          .catch(() => null),
      )
      .toBeTruthy();
    await store.destroy();
    await between.close();
  });
});

/** Stands between a pool and the database, and loses or holds back what goes through. */
class Between {
  isFrozen = false;
  onSent: (text: string) => void = () => undefined;
  private isMute = false;
  private readonly sockets = new Set<Socket>();

  private constructor(
    private readonly server: Server,
    readonly url: string,
  ) {}

  static async open(): Promise<Between> {
    const real = new URL(mine('FEATHER_TEST_STORE_URL'));
    const server = createServer();
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
    const url = new URL(real);
    url.port = String((server.address() as AddressInfo).port);
    const between = new Between(server, url.href);
    server.on('connection', (socket) => between.join(socket, Number(real.port)));
    return between;
  }

  muteThenCut(): void {
    this.isMute = true;
    setTimeout(() => {
      for (const socket of this.sockets) socket.destroy();
      this.isMute = false;
    }, 200);
  }

  async close(): Promise<void> {
    for (const socket of this.sockets) socket.destroy();
    await new Promise((resolve) => this.server.close(resolve));
  }

  private join(socket: Socket, port: number): void {
    const onward = connect(port, '127.0.0.1');
    for (const one of [socket, onward]) {
      this.sockets.add(one);
      one.on('error', () => undefined);
      one.on('close', () => this.sockets.delete(one));
    }
    socket.on('data', (bytes) => {
      if (this.isFrozen) return;
      this.onSent(bytes.toString('latin1'));
      onward.write(bytes);
    });
    onward.on('data', (bytes) => {
      if (!this.isFrozen && !this.isMute) socket.write(bytes);
    });
    socket.on('close', () => onward.destroy());
    onward.on('close', () => socket.destroy());
  }
}
