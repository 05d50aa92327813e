import type { RoleFacts } from '#core/drawing/roles/guessRoles.ts';
import type { Run } from '#core/run/run.ts';
import { nameCondition } from '#core/stack/material.ts';
import { hasLiner } from '#core/stack/layer.ts';
import type { Family } from '#core/stack/families/families.ts';
import type { Remnant } from '#core/stack/materialDetails.ts';
import type { RegistrationError } from '#core/sheet/edgeRisk.ts';
import type { Machine } from '#core/station/machine.ts';
import { findJobHead } from '#store/repositories/jobs/jobs.ts';
import { findMaterialByCondition } from '#store/repositories/book/materials.ts';
import { findRegistration } from '#store/repositories/bench/registration.ts';
import { listRunGrades } from '#store/repositories/runs/runGrades.ts';
import { readRun } from '#server/runs/readRun.ts';
import { findMachine } from '#store/repositories/book/machines.ts';
import { findStation } from '#store/repositories/bench/stations.ts';
import { canPause } from '#web/endpoints/runs/canPause.ts';
import { readId } from '#web/http/readId.ts';
import { nullIfMissing } from '#web/http/nullIfMissing.ts';
import { serverContext } from '#server/serverContext.ts';
import { roleFactsOf } from '#core/job/roleFactsOf.ts';
import type { JobReply } from '#web/schemas/job.ts';
import type { RunGradeReply } from '#web/schemas/run.ts';

export interface ShownJob {
  /** Without its drawing, which the browser reads in a thread of its own. */
  readonly job: JobReply;
  readonly machine: Machine;
  readonly materialName: string;
  readonly materialId: number;
  readonly family: Family;
  readonly facts: RoleFacts;
  readonly offsetMm: number;
  /** Travel of the blade in the machine, m; 0 without one. */
  readonly bladeMetres: number;
  readonly remnants: readonly Remnant[];
  /** How far print and cut lie apart on this machine, and from how many sheets that is known. */
  readonly registration: RegistrationError;
  readonly sheetsRead: number;
}

export interface ShownRun {
  readonly run: Run;
  readonly isLayered: boolean;
  readonly materialId: number;
  readonly grades: readonly RunGradeReply[];
  /** The page of the stand-in that cuts it, or `null` for a real machine. */
  readonly canPause: boolean;
  readonly standInPage: string | null;
  readonly machineName: string;
  readonly materialName: string;
}

/** Everything the page of a job shows, or `null` when there is no such job. The drawing's text stays on the server. */
export function showJob(id: string | undefined): Promise<ShownJob | null> {
  return nullIfMissing(async () => {
    const { store } = serverContext();
    const job = await findJobHead(store, readId(id));
    const { material, condition } = await findMaterialByCondition(store, job.conditionId);
    const { machine, blade } = await findStation(store, job.machineId);
    const { error, sheets } = await findRegistration(store, job.machineId);
    return {
      job,
      machine,
      materialName: nameCondition(material.name, condition.kind),
      materialId: material.id,
      family: material.family,
      facts: roleFactsOf(condition.stack, machine),
      offsetMm: blade?.offsetMm ?? 0,
      bladeMetres: blade?.travelMetres ?? 0,
      remnants: material.details.remnants,
      registration: error,
      sheetsRead: sheets.length,
    };
  });
}

/** Everything the page of a run shows, or `null` when there is no such run. */
export function showRun(id: string | undefined): Promise<ShownRun | null> {
  return nullIfMissing(async () => {
    const { store, standIns } = serverContext();
    const run = await readRun(store, readId(id));
    const { material, condition } = await findMaterialByCondition(store, run.conditionId);
    const machine = await findMachine(store, run.machineId);
    const { name, link } = machine;
    const page = link.kind === 'standIn' ? standIns?.[link.model]?.pagePort : undefined;
    return {
      run,
      machineName: name,
      materialName: nameCondition(material.name, condition.kind),
      isLayered: hasLiner(condition.stack),
      materialId: material.id,
      grades: await listRunGrades(store, run.id),
      canPause: canPause(machine),
      standInPage: page === undefined ? null : `http://127.0.0.1:${page}/`,
    };
  });
}
