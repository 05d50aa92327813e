import type { Endpoint } from '#web/endpoints/defineEndpoint.ts';
import { getHealth } from '#web/endpoints/health.ts';
import { getJob, getJobs, getMachineFile, getPlan, patchJob, postJob } from '#web/endpoints/jobs.ts';
import { getLog } from '#web/endpoints/log.ts';
import { getMaterials, postMaterial } from '#web/endpoints/materials.ts';
import { getRun, getRunEvents, postContinue, postRun, postStop, putNote } from '#web/endpoints/runs.ts';
import { getAnswer, getSettings, postRevision } from '#web/endpoints/settings.ts';
import { getMachines, getStation, getUpkeep, patchStation, postMachine } from '#web/endpoints/stations.ts';
import { deleteTestCut, postTestCut } from '#web/endpoints/testCuts.ts';

/** Every endpoint, in the order in which the documentation shows them. */
export const ENDPOINTS: readonly Endpoint[] = [
  getHealth,
  getMaterials,
  postMaterial,
  getMachines,
  postMachine,
  getUpkeep,
  getStation,
  patchStation,
  getAnswer,
  postTestCut,
  deleteTestCut,
  postRevision,
  getSettings,
  getJobs,
  postJob,
  getJob,
  patchJob,
  getPlan,
  getMachineFile,
  postRun,
  getRun,
  getRunEvents,
  postStop,
  postContinue,
  putNote,
  getLog,
];
