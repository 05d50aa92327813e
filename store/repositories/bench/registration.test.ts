import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { IDENTITY } from '#core/geometry/affine.ts';
import { fitRegistration, invertSimilarity } from '#core/sheet/marks/registration.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { listAudit } from '#store/repositories/log/audit.ts';
import {
  addRegistrationSheet,
  findRegistration,
  removeRegistrationSheet,
  setCorrection,
} from '#store/repositories/bench/registration.ts';
import { now, openTestStore } from '#store/tests/testStore.ts';

let db: Store;
let machineId: number;
beforeAll(async () => {
  ({ db, machineId } = await openTestStore());
});
afterAll(() => db.destroy());

const readings = [
  { at: { x: 20, y: 20 }, shift: { x: 0.5, y: -0.2 } },
  { at: { x: 190, y: 270 }, shift: { x: 0.5, y: -0.2 } },
];

describe('registration of a machine', () => {
  it('is the habit until a sheet was read, then what was read, and the habit again when it is taken back', async () => {
    expect((await findRegistration(db, machineId)).error.source).toBe('habit');
    const id = await addRegistrationSheet(db, machineId, readings, null, 'Ines', now);
    const found = await findRegistration(db, machineId);
    expect(found.error).toMatchObject({ source: 'measured' });
    expect(found.error.meanXMm).toBeCloseTo(0.5, 9);
    expect(found.sheets).toMatchObject([{ id, readings, corrected: IDENTITY, author: 'Ines', runId: null }]);
    await removeRegistrationSheet(db, machineId, id, 'Ines', now);
    expect((await findRegistration(db, machineId)).error.source).toBe('habit');
    await expect(removeRegistrationSheet(db, machineId, id, 'Ines', now)).rejects.toMatchObject({
      code: 'notFound',
    });
  });

  it('keeps with each sheet what was corrected when it was cut', async () => {
    await addRegistrationSheet(db, machineId, readings, null, 'Ines', now);
    const first = await findRegistration(db, machineId);
    await setCorrection(db, machineId, invertSimilarity(fitRegistration(first.sheets)), 'Tove', now);
    const flat = readings.map(({ at }) => ({ at, shift: { x: 0, y: 0 } }));
    await addRegistrationSheet(db, machineId, flat, null, 'Tove', now);
    const found = await findRegistration(db, machineId);
    expect(found.error.meanXMm).toBeCloseTo(0, 9);
    expect(found.correction[4]).toBeCloseTo(-0.5, 9);
    expect(found.sheets[0]!.corrected).toEqual(found.correction);
    await setCorrection(db, machineId, null, 'Tove', now);
    expect((await findRegistration(db, machineId)).correction).toEqual(IDENTITY);
    const trail = await listAudit(db, { entity: 'registration', entityId: machineId }, 20);
    expect(trail.map(({ action }) => action)).toEqual(expect.arrayContaining(['add', 'archive', 'change']));
  });
});
