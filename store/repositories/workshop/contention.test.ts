import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { AppError } from '#core/errors/appError.ts';
import { retryNotNow } from '#store/connection/retryTransactions.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { keepRevision } from '#store/repositories/book/keepSettings.ts';
import { searchMaterials } from '#store/repositories/book/lookup.ts';
import { addMaterial, listMaterials } from '#store/repositories/book/materials.ts';
import { listRevisions } from '#store/repositories/book/settings.ts';
import { material, now, openTestStore, revision } from '#store/tests/testStore.ts';

/** Several people write at once: nobody is refused for having come at the same moment as another. */
let db: Store;
let conditionId: number;
let machineId: number;
beforeAll(async () => {
  ({ db, conditionId, machineId } = await openTestStore());
});
afterAll(() => db.destroy());

describe('writers at the same moment', () => {
  it('four people add 24 materials of one maker: all are there, and found', async () => {
    const words = ['matt', 'gloss', 'clear', 'satin'];
    const person = async (who: number) => {
      for (let sheet = 0; sheet < 6; sheet++) {
        const name = `Herring ${words[who]} ${words[(who + sheet) % 4]} ${sheet}`;
        await addMaterial(db, { ...material, name, maker: 'One Maker' }, now);
      }
    };
    await Promise.all([0, 1, 2, 3].map(person));
    const added = (await listMaterials(db)).filter(({ maker }) => maker === 'One Maker');
    expect(added).toHaveLength(24);
    expect((await searchMaterials(db, 'one maker herring', 50)).length).toBe(24);
  });

  it('ten people keep a setting at once: one keeps it, nine are told that it changed', async () => {
    const key = { conditionId, machineId, bladeKind: '45° fine', operation: 'kiss' } as const;
    const keeps = await Promise.allSettled([...Array(10)].map(() => keepRevision(db, key, revision, 0, now)));
    const refusals = keeps.flatMap((keep) => (keep.status === 'rejected' ? [keep.reason as unknown] : []));
    expect(refusals).toHaveLength(9);
    for (const refusal of refusals) {
      expect(refusal).toBeInstanceOf(AppError);
      expect(refusal).toMatchObject({ code: 'conflict' });
    }
    const { id } = (await db('settings').first('id')) as { id: number };
    expect(await listRevisions(db, id)).toHaveLength(1);
  });
});

describe('trying again', () => {
  const deadlock = () => Object.assign(new Error('deadlock'), { errno: 1213 });

  it('ends when it is taken, and hands on what is no collision at once', async () => {
    let tries = 0;
    const third = () => ((tries += 1) < 3 ? Promise.reject(deadlock()) : Promise.resolve('kept'));
    expect(await retryNotNow(third, () => 0)).toBe('kept');
    expect(tries).toBe(3);
    tries = 0;
    const wrong = () => ((tries += 1), Promise.reject(Object.assign(new Error('no'), { errno: 1062 })));
    await expect(retryNotNow(wrong, () => 0)).rejects.toThrow('no');
    expect(tries).toBe(1);
  });

  it('gives up within a bound', async () => {
    let tries = 0;
    await expect(
      retryNotNow(
        () => ((tries += 1), Promise.reject(deadlock())),
        () => 0,
      ),
    ).rejects.toThrow('deadlock');
    expect(tries).toBe(12);
  });
});
