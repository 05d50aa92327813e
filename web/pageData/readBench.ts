import type { AstroGlobal } from 'astro';
import type { Machine } from '#core/station/machine.ts';
import type { Blade, Mat, Station } from '#core/station/station.ts';
import type { UnitSystem } from '#core/units/length.ts';
import { listMachines } from '#store/repositories/book/machines.ts';
import { findStation } from '#store/repositories/bench/stations.ts';
import { listBlades, listMats } from '#store/repositories/bench/tools.ts';
import { listTimers, type Timer } from '#store/repositories/jobs/waits.ts';
import { findGoingRuns, type GoingRun } from '#store/repositories/runs/goingRuns.ts';
import { listOperators } from '#store/repositories/workshop/workshop.ts';
import type { Who } from '#server/people/whoAsks.ts';
import { serverContext } from '#server/serverContext.ts';
import { currentSystem } from '#web/islands/shared/units.ts';

/** What every page shows: where one stands, who, in which units, and what can be changed at the rail. */
export interface Bench {
  readonly machines: readonly Machine[];
  readonly station: Station | null;
  readonly shelf: { readonly blades: readonly Blade[]; readonly mats: readonly Mat[] };
  readonly operator: string;
  /** How that is known. */
  readonly by: Who['by'];
  readonly system: UnitSystem;
  readonly running: readonly GoingRun[];
  readonly timers: readonly Timer[];
  /** Who works here. */
  readonly people: readonly string[];
  readonly timeZone: string;
}

/** Reads the station, the operator and the units from the cookies; a station that is gone falls back to the first. */
export async function readBench(page: Pick<AstroGlobal, 'cookies' | 'locals'>): Promise<Bench> {
  const kept = page.locals.bench;
  if (kept) return kept;
  const bench = await readFresh(page);
  page.locals.bench = bench;
  return bench;
}

async function readFresh({ cookies, locals }: Pick<AstroGlobal, 'cookies' | 'locals'>): Promise<Bench> {
  const { store } = serverContext();
  const wanted = Number(cookies.get('feather_station')?.value);
  const machines = await listMachines(store);
  const machine = machines.find(({ id }) => id === wanted) ?? machines[0];
  const [station, blades, mats, running, timers, people] = await Promise.all([
    machine ? findStation(store, machine.id) : null,
    listBlades(store),
    listMats(store),
    findGoingRuns(store),
    listTimers(store),
    listOperators(store),
  ]);
  return {
    machines,
    station,
    shelf: { blades, mats },
    operator: locals.who?.name ?? '',
    by: locals.who?.by ?? 'nobody',
    system: currentSystem(),
    running,
    timers,
    people: people.map(({ name }) => name),
    timeZone: locals.timeZone,
  };
}
