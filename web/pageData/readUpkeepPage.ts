import { FAMILIES } from '#core/stack/families/families.ts';
import { wearOfMat } from '#core/station/wearOfMat.ts';
import { judgeMat } from '#core/wear/judgeMat.ts';
import { fitTack, TACK_CLASSES, tackIndex } from '#core/wear/tackIndex.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { listBlades, listCare, listMats, listMatStints } from '#store/repositories/bench/tools.ts';

/** Blades and mats with what was done to them; mats with how well they hold today. */
export async function readUpkeepPage(store: Store, now: Date) {
  const [blades, mats, care, ...stints] = await Promise.all([
    listBlades(store),
    listMats(store),
    listCare(store),
    ...TACK_CLASSES.map((tack) => listMatStints(store, tack)),
  ]);
  return {
    blades,
    care,
    mats: mats.map((mat) => {
      const wear = wearOfMat(mat, now);
      const { usesSinceCleaned } = wear;
      const index = tackIndex(wear);
      const suits = FAMILIES.filter((family) => family !== 'other' && fitTack(index, family) === 'suits');
      const judged = judgeMat(wear, stints[TACK_CLASSES.indexOf(mat.tack)]);
      return { ...mat, usesSinceCleaned, tackIndex: index, suits, judged };
    }),
  };
}
