import { FAMILIES } from '#core/stack/layer.ts';
import { fitTack, tackIndex } from '#core/wear/tackIndex.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { listBlades, listCare, listMats } from '#store/repositories/tools.ts';

const DAY_MS = 86_400_000;

/** Blades and mats with what was done to them; mats with how well they hold today. */
export async function readUpkeepPage(store: Store, now: Date) {
  const [blades, mats, care] = await Promise.all([listBlades(store), listMats(store), listCare(store)]);
  return {
    blades,
    care,
    mats: mats.map((mat) => {
      const usesSinceCleaned = mat.uses - mat.usesAtCleaning;
      const ageDays = mat.firstUsedAt ? (now.getTime() - Date.parse(mat.firstUsedAt)) / DAY_MS : 0;
      const uses = mat.uses - mat.usesAtRestick;
      const index = tackIndex({ tack: mat.tack, uses, ageDays, usesSinceCleaned });
      const suits = FAMILIES.filter((family) => family !== 'other' && fitTack(index, family) === 'suits');
      return { ...mat, usesSinceCleaned, tackIndex: index, suits };
    }),
  };
}
