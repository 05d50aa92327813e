import type { Store } from '#store/connection/connectStore.ts';
import { findTimeZone } from '#store/repositories/workshop/workshop.ts';

/** Where nobody chose a zone, the one of the computer counts. */
const OWN = new Intl.DateTimeFormat().resolvedOptions().timeZone || 'UTC';

/** The zone that all days and clocks of the workshop are in. */
export async function workshopZone(store: Store): Promise<string> {
  return (await findTimeZone(store)) ?? OWN;
}
