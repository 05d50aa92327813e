import type { Store } from '#store/connection/connectStore.ts';
import { listAudit } from '#store/repositories/log/audit.ts';
import { findMaterial } from '#store/repositories/book/materials.ts';
import { listSettingsOf } from '#store/repositories/book/settings.ts';
import { listRoutes, listWaits } from '#web/endpoints/workshop/waits.ts';
import { summariseSettings } from '#web/pageData/summariseSettings.ts';

const MOST_AUDIT = 12;

/** Everything the page of a material shows. @throws AppError `notFound` */
export async function readMaterialPage(store: Store, id: number) {
  const material = await findMaterial(store, id);
  const kept = await listSettingsOf(
    store,
    material.conditions.map((condition) => condition.id),
  );
  const [settings, audit] = await Promise.all([
    summariseSettings(store, kept),
    listAudit(store, { entity: 'material', entityId: id }, MOST_AUDIT),
  ]);
  const [waits, routes] = await Promise.all([listWaits(store, material), listRoutes(store, material)]);
  return { material, settings, waits, routes, audit: audit.map(({ before, after, ...entry }) => entry) };
}
