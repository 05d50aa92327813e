import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { hashKey, hashSecret, isSecret, makeKey } from '#server/people/secrets.ts';
import { limitTries } from '#server/people/limitTries.ts';
import { whoShows } from '#server/people/whoAsks.ts';
import type { Store } from '#store/connection/connectStore.ts';
import {
  changeAccount,
  findAccountByName,
  hasOwner,
  makeFirstOwner,
} from '#store/repositories/people/accounts.ts';
import { addSession } from '#store/repositories/people/sessions.ts';
import { addToken, removeToken } from '#store/repositories/people/tokens.ts';
import { addOperator, putOperatorAway } from '#store/repositories/workshop/workshop.ts';
import { openTestStore } from '#store/tests/testStore.ts';

let db: Store;
const start = new Date('2026-11-27T08:00:00Z');
const later = (hours: number) => new Date(start.getTime() + hours * 3_600_000);
beforeAll(async () => {
  ({ db } = await openTestStore());
});
afterAll(() => db.destroy());

/** Signs somebody in. @returns what their browser shows */
async function signIn(name: string, isByPin = false, now = start): Promise<string> {
  const { key, hash } = makeKey();
  const account = await findAccountByName(db, name);
  await addSession(db, { operatorId: account?.id ?? 0, hash, isByPin, browser: 'test' }, now);
  return key;
}
const shows = (sessionKey: string, now: Date) => whoShows(db, { sessionKey, authorization: null }, now);
const bears = (token: string) =>
  whoShows(db, { sessionKey: undefined, authorization: `Bearer ${token}` }, later(1));

describe('secrets', () => {
  it('are kept as argon2id with their own salt, and known again however an umlaut is typed', async () => {
    const [one, other] = await Promise.all([hashSecret('Zähe Häute'), hashSecret('Zähe Häute')]);
    expect(one).toMatch(/^\$argon2id\$v=19\$m=19456,t=2,p=1\$/);
    expect(one).not.toBe(other);
    expect(await isSecret(one, 'Za\u0308he Ha\u0308ute')).toBe(true);
    expect(await isSecret(one, 'zähe Häute')).toBe(false);
    expect(await isSecret(null, 'anything')).toBe(false);
  });

  it('of browsers and scripts are 256 bits, and the store holds only their hash', () => {
    const { key, hash } = makeKey('feather_');
    expect(Buffer.from(key.slice('feather_'.length), 'base64url')).toHaveLength(32);
    expect(hash).toMatch(/^[0-9a-f]{64}$/);
    expect(hash).toBe(hashKey(key));
  });
});

describe('the first owner', () => {
  it('is one, however many want to be at once, and may have worked here before', async () => {
    await addOperator(db, 'Runa', 'bench', start);
    expect(await hasOwner(db)).toBe(false);
    const hash = await hashSecret('wet carton 7 gulls');
    const wishes = ['Runa', 'Odd', 'Maren'].map((name) => makeFirstOwner(db, name, hash, start));
    const done = await Promise.allSettled(wishes);
    expect(done.filter(({ status }) => status === 'fulfilled')).toHaveLength(1);
    expect(await hasOwner(db)).toBe(true);
  });

  it('stays while nobody else is: neither put away nor made less', async () => {
    const [owner] = (
      await Promise.all(['Runa', 'Odd', 'Maren'].map((name) => findAccountByName(db, name)))
    ).filter((one) => one?.role === 'owner');
    const id = owner?.id ?? 0;
    await expect(changeAccount(db, id, { role: 'guest' }, 'x', start)).rejects.toMatchObject({
      code: 'conflict',
    });
    await expect(putOperatorAway(db, id, 'x', start)).rejects.toMatchObject({ code: 'conflict' });
    expect(await hasOwner(db)).toBe(true);
  });
});

describe('a session', () => {
  beforeAll(() => addOperator(db, 'Ines', 'bench', start));

  it('lasts while somebody comes back, and ends when nobody did for half a day', async () => {
    const key = await signIn('Ines');
    expect((await shows(key, later(11))).who).toMatchObject({
      name: 'Ines',
      role: 'operator',
      by: 'session',
    });
    expect((await shows(key, later(22))).who.name).toBe('Ines');
    expect((await shows(key, later(35))).who.role).toBe('nobody');
    expect((await shows(key, later(23))).who.role).toBe('nobody');
  });

  it('begun with a PIN ends after two hours', async () => {
    const key = await signIn('Ines', true);
    expect((await shows(key, later(1.9))).who.by).toBe('pin');
    expect((await shows(key, later(4))).who.role).toBe('nobody');
  });

  it('ends after two weeks, however busy', async () => {
    let key = await signIn('Ines');
    let hours = 0;
    for (; hours < 24 * 13; hours += 10) key = (await shows(key, later(hours))).freshKey ?? key;
    expect((await shows(key, later(hours))).who.name).toBe('Ines');
    for (; hours <= 24 * 14 + 10; hours += 10) key = (await shows(key, later(hours))).freshKey ?? key;
    expect((await shows(key, later(hours))).who.role).toBe('nobody');
  });

  it('changes its key each day; the old one opens for a minute more', async () => {
    const key = await signIn('Ines');
    await shows(key, later(10));
    await shows(key, later(20));
    const { freshKey } = await shows(key, later(25));
    expect(freshKey).toMatch(/^[\w-]{43}$/);
    const soon = new Date(later(25).getTime() + 30_000);
    expect((await shows(key, soon)).who.name).toBe('Ines');
    const late = new Date(later(25).getTime() + 90_000);
    expect((await shows(key, late)).who.role).toBe('nobody');
    expect((await shows(freshKey ?? '', late)).who.name).toBe('Ines');
  });

  it('ends with a new role, a new password, and when somebody is put away, also after they come back', async () => {
    const id = (await findAccountByName(db, 'Ines'))?.id ?? 0;
    for (const change of [{ role: 'guest' }, { role: 'operator' }, { passwordHash: 'x' }] as const) {
      const key = await signIn('Ines');
      await changeAccount(db, id, change, 'Odd', start);
      expect((await shows(key, later(1))).who.role).toBe('nobody');
    }
    const key = await signIn('Ines');
    await putOperatorAway(db, id, 'Odd', start);
    expect((await shows(key, later(1))).who.role).toBe('nobody');
    await addOperator(db, 'Ines', 'Odd', start);
    expect((await shows(key, later(1))).who.role).toBe('nobody');
  });

  it('is none for a key that nobody was given', async () => {
    expect((await shows('x'.repeat(43), start)).who.role).toBe('nobody');
    expect((await shows("' OR 1=1 -- ", start)).who.role).toBe('nobody');
  });
});

describe('a token', () => {
  it('may do what it was made for, signs as who made it, and can be taken back', async () => {
    const account = await findAccountByName(db, 'Ines');
    const { key, hash } = makeKey('feather_');
    const id = await addToken(
      db,
      { operatorId: account?.id ?? 0, name: 'stock list', role: 'guest', hash },
      start,
    );
    expect((await bears(key)).who).toMatchObject({ name: 'Ines', role: 'guest', by: 'token' });
    await removeToken(db, id);
    expect((await bears(key)).who.role).toBe('nobody');
  });
});

describe('tries', () => {
  const wrong = () => Promise.resolve(null);
  it('are eight at one name, also all at once; then even what is right waits', async () => {
    const tried = await Promise.allSettled(
      Array.from({ length: 30 }, () => limitTries(db, 'Guessed', '10.0.0.9', wrong)),
    );
    expect(tried.filter(({ status }) => status === 'fulfilled')).toHaveLength(8);
    await expect(limitTries(db, 'guessed', '10.0.0.8', () => Promise.resolve('in'))).rejects.toMatchObject({
      code: 'tooManyTries',
      message: /Wait 1[45] min/,
    });
  });

  it('are sixty from one address, whatever the names', async () => {
    const names = Array.from({ length: 62 }, (_, index) => `name ${index}`);
    let refused = 0;
    for (const name of names) await limitTries(db, name, '10.0.0.7', wrong).catch(() => (refused += 1));
    expect(refused).toBe(2);
  });

  it('come back when somebody is known', async () => {
    for (let times = 0; times < 20; times++) {
      expect(await limitTries(db, 'Known', '10.0.0.6', () => Promise.resolve('in'))).toBe('in');
    }
  });
});
