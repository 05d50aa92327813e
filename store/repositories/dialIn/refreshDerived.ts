import type { Store } from '#store/connection/connectStore.ts';
import { indexMaterial, indexNote } from '#store/repositories/book/lookup.ts';
import { conditionColumns, listMaterials } from '#store/repositories/book/materials.ts';
import { refreshStates } from '#store/repositories/book/settingStates.ts';

/**
 * Makes what is kept beside the facts for speed, where it is missing: words to search by, faces to compare by, states
 * of settings. A book from before these were kept is found like any other after its first start. Does nothing twice.
 */
export async function refreshDerived(db: Store): Promise<void> {
  const bare: { material_id: number }[] = await db('material_conditions')
    .where({ family: '' })
    .distinct('material_id');
  const stale = new Set(bare.map(({ material_id }) => material_id));
  if (stale.size > 0) {
    for (const material of await listMaterials(db, true)) {
      if (!stale.has(material.id)) continue;
      await db.transaction(async (transaction) => {
        await indexMaterial(transaction, material.id, material);
        for (const condition of material.conditions) {
          const columns = conditionColumns(material.id, material, condition);
          await transaction('material_conditions').where({ id: condition.id }).update(columns);
          await indexNotes(transaction, material.id, condition.id);
        }
      });
    }
  }
  const unjudged: { id: number }[] = await db('settings')
    .where({ state_reason: '' })
    .where('newest_revision', '>', 0)
    .select('id');
  for (const { id } of unjudged) await refreshStates(db, { id });
}

async function indexNotes(db: Store, materialId: number, conditionId: number): Promise<void> {
  const notes: { text: string }[] = [
    ...(await db('runs').where({ condition_id: conditionId }).select({ text: 'note' })),
    ...(await db('setting_revisions')
      .join('settings', 'settings.id', 'setting_revisions.setting_id')
      .where({ condition_id: conditionId })
      .select({ text: 'reason' })),
  ];
  for (const { text } of notes) if (text) await indexNote(db, materialId, text);
}
