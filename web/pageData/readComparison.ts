import type { Station } from '#core/station/station.ts';
import type { DepthOperation } from '#core/stack/operation.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { findMachine } from '#store/repositories/book/machines.ts';
import { findMaterialByCondition } from '#store/repositories/book/materials.ts';
import { findBladeOfKind } from '#store/repositories/bench/tools.ts';
import { findSettings } from '#store/repositories/book/settings.ts';
import { readAnswer } from '#web/endpoints/bench/readAnswer.ts';
import { sayNumber } from '#web/islands/shared/units.ts';
import { idList } from '#web/endpoints/jobs/prints.ts';
import { summarise } from '#web/pageData/summariseSettings.ts';
import type { ComparedSetting } from '#web/schemas/comparison.ts';

/** As many as stand side by side and can still be read. */
const MOST = 6;

/** Settings side by side, in the order asked for. A list that is none compares nothing. */
export async function readComparison(store: Store, ids: string): Promise<readonly ComparedSetting[]> {
  const wanted = idList.safeParse(ids);
  if (!wanted.success) return [];
  const settings = await findSettings(store, wanted.data.slice(0, MOST));
  return Promise.all(
    settings.map(async (kept) => {
      const { conditionId, machineId, operation } = kept.key;
      const { material, condition } = await findMaterialByCondition(store, conditionId);
      const machine = await findMachine(store, machineId);
      const blade = await findBladeOfKind(store, kept.key.bladeKind, machineId);
      const station: Station = {
        machine,
        blade,
        mat: null,
        loaded: { material, condition, lot: '', colour: '' },
      };
      const isDialled = operation === 'kiss' || operation === 'through';
      const { price, currency, unit } = material.details.stock;
      return {
        setting: summarise(kept, material, machine),
        machine,
        stack: condition.stack,
        angleDeg: blade?.angleDeg ?? 45,
        faceColour: material.colourHex,
        family: material.family,
        price: price === null ? '' : `${sayNumber(price, 2)} ${currency} a ${unit}`,
        bench: isDialled ? await readAnswer(store, station, operation as DepthOperation) : null,
      };
    }),
  );
}
