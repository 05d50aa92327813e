import type { RoleFacts } from '#core/drawing/guessRoles.ts';
import type { Run } from '#core/job/run.ts';
import { nameCondition } from '#core/stack/material.ts';
import type { Family } from '#core/stack/layer.ts';
import type { Remnant } from '#core/stack/materialDetails.ts';
import type { Machine } from '#core/station/machine.ts';
import { findJobHead } from '#store/repositories/jobs.ts';
import { findMaterialByCondition } from '#store/repositories/materials.ts';
import { findRun } from '#store/repositories/runs.ts';
import { findMachine } from '#store/repositories/machines.ts';
import { findStation } from '#store/repositories/stations.ts';
import { nullIfMissing } from '#web/endpoints/nullIfMissing.ts';
import { serverContext } from '#web/endpoints/context.ts';
import { roleFactsOf } from '#core/job/roleFactsOf.ts';
import type { JobReply } from '#web/schemas/job.ts';

export interface ShownJob {
  /** Without its drawing, which the browser reads in a thread of its own. */
  readonly job: JobReply;
  readonly machine: Machine;
  readonly materialName: string;
  readonly materialId: number;
  readonly family: Family;
  readonly facts: RoleFacts;
  readonly offsetMm: number;
  readonly remnants: readonly Remnant[];
}

export interface ShownRun {
  readonly run: Run;
  readonly machineName: string;
  readonly materialName: string;
}

/** Everything the page of a job shows, or `null` when there is no such job. The drawing's text stays on the server. */
export function showJob(id: string | undefined): Promise<ShownJob | null> {
  return nullIfMissing(async () => {
    const { store } = serverContext();
    const job = await findJobHead(store, Number(id));
    const { material, condition } = await findMaterialByCondition(store, job.conditionId);
    const { machine, blade } = await findStation(store, job.machineId);
    return {
      job,
      machine,
      materialName: nameCondition(material.name, condition.kind),
      materialId: material.id,
      family: material.family,
      facts: roleFactsOf(condition.stack, machine),
      offsetMm: blade?.offsetMm ?? 0,
      remnants: material.details.remnants,
    };
  });
}

/** Everything the page of a run shows, or `null` when there is no such run. */
export function showRun(id: string | undefined): Promise<ShownRun | null> {
  return nullIfMissing(async () => {
    const { store } = serverContext();
    const run = await findRun(store, Number(id));
    const { material, condition } = await findMaterialByCondition(store, run.conditionId);
    const { name } = await findMachine(store, run.machineId);
    return { run, machineName: name, materialName: nameCondition(material.name, condition.kind) };
  });
}
