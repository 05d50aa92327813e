import { itemAt } from '#core/collections/itemAt.ts';
import type { SheetPlace } from '#core/knowledge/evidence.ts';
import { nameCondition, type Material } from '#core/stack/material.ts';
import type { Station } from '#core/station/station.ts';
import { P } from '#core/threshold/sheetModel/sheetParameters.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { listFamily } from '#store/repositories/book/materials.ts';
import { readSheetPrior } from '#web/endpoints/bench/readSheetPrior.ts';

const MOST = 12;
/** Moves below this are not worth a word, percent of force. */
const NOTEWORTHY_PERCENT = 0.5;

/** Where each neighbour's face is predicted to come free, ln gf, by the name of its sheet. */
export type Predictions = ReadonlyMap<string, number>;

/** Predictions of the sheets that share most with the loaded one: the same make in other states, and its family. */
export async function predictNeighbours(store: Store, station: Station): Promise<Predictions> {
  const { loaded } = station;
  if (!loaded) return new Map();
  const family = await listFamily(store, loaded.material.family, MOST);
  const neighbours = family.flatMap((material) =>
    material.conditions.map((condition) => ({ material, condition })),
  );
  const predictions = new Map<string, number>();
  for (const { material, condition } of neighbours.slice(0, MOST)) {
    if (condition.id === loaded.condition.id) continue;
    const { belief } = await readSheetPrior(store, station, { material, condition, lot: '', colour: '' });
    predictions.set(nameOf(material, condition.kind), itemAt(belief.mean, P.threshold));
  }
  return predictions;
}

function nameOf(material: Material, kind: SheetPlace['condition']): string {
  return nameCondition(material.name, kind as Material['conditions'][number]['kind']);
}

/** What moved between two sets of predictions, in percent of force, the most moved first. */
export function listMoved(
  before: Predictions,
  after: Predictions,
): { readonly name: string; readonly percent: number }[] {
  return [...after]
    .flatMap(([name, lnGf]) => {
      const was = before.get(name);
      return was === undefined ? [] : [{ name, percent: 100 * (Math.exp(lnGf - was) - 1) }];
    })
    .filter(({ percent }) => Math.abs(percent) >= NOTEWORTHY_PERCENT)
    .toSorted((a, b) => Math.abs(b.percent) - Math.abs(a.percent));
}
