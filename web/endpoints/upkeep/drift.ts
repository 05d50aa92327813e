import { itemAt } from '#core/collections/itemAt.ts';
import { z } from 'zod';
import { freshBladeFactor, judgeBlade, learnBladeLife, WEAR_EFFECT } from '#core/wear/bladeLife.ts';
import { EWMA_LAMBDA } from '#core/wear/findDrift.ts';
import type { Blade } from '#core/station/station.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { closeAlarm, findOpenAlarm } from '#store/repositories/log/drift.ts';
import { findMachine } from '#store/repositories/book/machines.ts';
import { findStation } from '#store/repositories/bench/stations.ts';
import { listBladeChanges } from '#store/repositories/bench/tools.ts';
import { defineEndpoint, idParam } from '#web/http/defineEndpoint.ts';
import { readDrift } from '#web/endpoints/upkeep/watchDrift.ts';
import { driftSchema, type DriftReply } from '#web/schemas/drift.ts';

const params = z.object({ id: idParam });

export const getDrift = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/machines/{id}/drift',
  summary:
    'Graded cuts of a machine against what was expected of them, charted, with an alarm and its likely causes.',
  params,
  reply: driftSchema,
  handle: ({ params: { id } }, { store }) => describeDrift(store, id),
});

export const postDriftAnswer = defineEndpoint({
  method: 'POST',
  role: 'operator',
  path: '/api/machines/{id}/drift/answer',
  summary: 'Answers an alarm with what was done: from then on cuts are watched anew.',
  params,
  body: z.object({ why: z.string().trim().min(1, 'say what was done').max(200) }),
  reply: driftSchema,
  handle: async ({ params: { id }, body, author }, { store }) => {
    await closeAlarm(store, id, `${body.why} (${author})`, new Date());
    return describeDrift(store, id);
  },
});

async function describeDrift(store: Store, machineId: number): Promise<DriftReply> {
  await findMachine(store, machineId);
  const { points, drift } = await readDrift(store, machineId);
  const open = await findOpenAlarm(store, machineId);
  const alarm =
    drift.alarm && open ? { ...drift.alarm, began: points[drift.alarm.began]?.at ?? open.raisedAt } : null;
  const { blade } = await findStation(store, machineId);
  return {
    points: points.map(({ at, residual, sheet, bladeMetres }, index) => ({
      at,
      residual,
      mean: itemAt(drift.ewma.means, index),
      sheet,
      bladeMetres,
    })),
    limit: drift.ewma.upper,
    lambda: EWMA_LAMBDA,
    alarm: alarm && {
      direction: alarm.direction,
      began: alarm.began,
      causes: alarm.causes.filter(({ chance }) => chance >= LEAST_TOLD),
    },
    blade: blade
      ? {
          ...(await describeBladeLife(store, blade, alarm)),
          number: blade.number,
          metres: blade.travelMetres,
          freshFactor: freshBladeFactor(blade.travelMetres, WEAR_EFFECT),
        }
      : null,
  };
}

/** Chances below this are not told. */
const LEAST_TOLD = 0.03;

/** Life left of a blade as a band, learnt from how blades of its kind were changed here. */
async function describeBladeLife(
  store: Store,
  blade: Blade,
  alarm: { readonly direction: string; readonly began: string } | null,
) {
  const changes = await listBladeChanges(store, blade.kind);
  const life = learnBladeLife(blade.lifeMetres, changes);
  const driftsToMore = alarm?.direction === 'more';
  const wasCleaned = driftsToMore && (blade.cleanedAt ?? '') > alarm.began;
  return { ...judgeBlade(life, blade.travelMetres, driftsToMore, wasCleaned), changes: life.changes };
}
