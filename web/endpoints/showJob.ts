import type { Job } from '#core/job/job.ts';
import type { Run } from '#core/job/run.ts';
import { nameCondition } from '#core/stack/material.ts';
import { measureStack } from '#core/stack/measureStack.ts';
import type { Machine } from '#core/station/machine.ts';
import { findJob } from '#store/repositories/jobs.ts';
import { findMaterialByCondition } from '#store/repositories/materials.ts';
import { findRun } from '#store/repositories/runs.ts';
import { findMachine } from '#store/repositories/machines.ts';
import { nullIfMissing } from '#web/endpoints/nullIfMissing.ts';
import { serverContext } from '#web/endpoints/context.ts';
import { describeDrawing, type ShownDrawing } from '#web/endpoints/describeDrawing.ts';

export interface ShownJob {
  readonly job: Job;
  readonly drawing: ShownDrawing;
  readonly machine: Machine;
  readonly materialName: string;
  readonly canKiss: boolean;
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
    const job = await findJob(store, Number(id));
    const { material, condition } = await findMaterialByCondition(store, job.conditionId);
    return {
      job: { ...job, svg: '' },
      drawing: describeDrawing(job.svg),
      machine: await findMachine(store, job.machineId),
      materialName: nameCondition(material.name, condition.kind),
      canKiss: measureStack(condition.stack).isLayered,
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
