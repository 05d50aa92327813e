import type { Store } from '#store/connection/connectStore.ts';
import { listAudit } from '#store/repositories/log/audit.ts';
import { findCalibrations } from '#store/repositories/book/calibrations.ts';
import { findMachine } from '#store/repositories/book/machines.ts';

const MOST_AUDIT = 12;
import { describeRegistration } from '#web/endpoints/upkeep/registration.ts';

/** Everything the page of a machine shows. @throws AppError `notFound` */
export async function readMachinePage(store: Store, id: number) {
  const machine = await findMachine(store, id);
  const found = (await findCalibrations(store, [id])).get(id);
  const [changes, measurings, meetings] = await Promise.all([
    listAudit(store, { entity: 'machine', entityId: id }, MOST_AUDIT),
    listAudit(store, { entity: 'calibration', entityId: id }, MOST_AUDIT),
    listAudit(store, { entity: 'registration', entityId: id }, MOST_AUDIT),
  ]);
  const audit = [...changes, ...measurings, ...meetings].toSorted((a, b) => b.id - a.id).slice(0, MOST_AUDIT);
  const calibration = found
    ? { id: found.id, readings: found.readings, author: found.author, at: found.at }
    : null;
  const registration = await describeRegistration(store, id);
  return { machine, calibration, registration, audit: audit.map(({ before, after, ...entry }) => entry) };
}
