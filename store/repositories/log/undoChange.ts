import { AppError } from '#core/errors/appError.ts';
import type { Material } from '#core/stack/material.ts';
import type { Machine } from '#core/station/machine.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { findAudit, type AuditEntry } from '#store/repositories/log/audit.ts';
import { setSettingArchived } from '#store/repositories/book/keepSettings.ts';
import { changeMachine, findMachine, setMachineArchived } from '#store/repositories/book/machines.ts';
import { changeMaterial, findMaterial, setMaterialArchived } from '#store/repositories/book/materials.ts';

/**
 * Takes a change back by a new change: putting away and taking out for what it was, changed facts for those before. A
 * change that others have built on is not torn out from under them.
 *
 * @throws AppError `notFound`; `conflict` when the thing was changed again since; `badInput` for a change that has a
 *   way back of its own (revisions are restored on the page of their setting)
 */
export async function undoChange(db: Store, auditId: number, author: string, now: Date): Promise<void> {
  const entry = await findAudit(db, auditId);
  const { entity, entityId, action } = entry;
  if (action === 'archive' || action === 'restore') {
    const isArchived = action === 'restore';
    if (entity === 'material') return void (await setMaterialArchived(db, entityId, isArchived, author, now));
    if (entity === 'machine') return void (await setMachineArchived(db, entityId, isArchived, author, now));
    if (entity === 'setting') return setSettingArchived(db, entityId, isArchived, author, now);
  }
  if (action === 'change' && entity === 'material') return undoMaterial(db, entry, author, now);
  if (action === 'change' && entity === 'machine') return undoMachine(db, entry, author, now);
  throw new AppError('badInput', `"${entry.what}" cannot be taken back here`);
}

async function undoMaterial(db: Store, entry: AuditEntry, author: string, now: Date): Promise<void> {
  const before = entry.before as Material;
  const { version } = await findMaterial(db, entry.entityId);
  requireUnchanged(version, entry.after as Material, before.name);
  await changeMaterial(db, entry.entityId, before, version, author, now, entry.id);
}

async function undoMachine(db: Store, entry: AuditEntry, author: string, now: Date): Promise<void> {
  const before = entry.before as Machine;
  const { version } = await findMachine(db, entry.entityId);
  requireUnchanged(version, entry.after as Machine, before.name);
  await changeMachine(db, entry.entityId, before, version, author, now, entry.id);
}

function requireUnchanged(version: number, after: { readonly version: number }, name: string): void {
  if (after.version === version) return;
  throw new AppError('conflict', `${name} was changed again since. Nothing was taken back.`);
}
