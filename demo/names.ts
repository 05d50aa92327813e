import type { Material } from '#core/stack/material.ts';
import type { Machine } from '#core/station/machine.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { listMachines } from '#store/repositories/book/machines.ts';
import { listMaterials } from '#store/repositories/book/materials.ts';

/** The state of a material of the demo by its names. */
export async function conditionId(db: Store, name: string, kind: string): Promise<number> {
  const material: Material | undefined = (await listMaterials(db)).find((one) => one.name === name);
  const condition = material?.conditions.find((one) => one.kind === kind);
  if (!condition) throw new Error(`the demo has no material ${name}, ${kind}`);
  return condition.id;
}

/** A machine of the demo by its name. */
export async function machineNamed(db: Store, name: string): Promise<Machine> {
  const machine = (await listMachines(db)).find((one) => one.name === name);
  if (!machine) throw new Error(`the demo has no machine ${name}`);
  return machine;
}
