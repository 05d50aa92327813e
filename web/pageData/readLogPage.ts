import { listLog } from '#store/repositories/log/log.ts';
import { listMachines } from '#store/repositories/book/machines.ts';
import { listMaterials } from '#store/repositories/book/materials.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { workshopZone } from '#web/http/workshopZone.ts';
import { isBackwards, scopeOf, scopeQuery } from '#web/endpoints/workshop/log.ts';

/** The log as its page shows it: the part that the address asks for, or all of it where the address asks for nonsense. */
export async function readLogPage(store: Store, asked: URLSearchParams) {
  const read = scopeQuery.safeParse(Object.fromEntries(asked));
  const query = read.success && !isBackwards(read.data) ? read.data : {};
  const zone = await workshopZone(store);
  const [entries, machines, materials] = await Promise.all([
    listLog(store, 300, scopeOf(query, zone)),
    listMachines(store, true),
    listMaterials(store, true),
  ]);
  const text = (value: string | number | undefined) => (value === undefined ? '' : String(value));
  return {
    entries,
    machines: machines.map(({ id, name }) => ({ id, name })),
    materials: materials.map(({ id, name }) => ({ id, name })),
    scope: {
      from: text(query.from),
      to: text(query.to),
      machine: text(query.machine),
      material: text(query.material),
      kind: query.kind ?? ('' as const),
    },
  };
}
