import { getAnswer, postRevision } from '#web/endpoints/answers.ts';
import { getAudit, postUndo } from '#web/endpoints/audit.ts';
import { getBookSchema, getCsvBook, getImport, getJsonBook, postImport } from '#web/endpoints/book.ts';
import { getDay, getDayCalendar, getJobSteps, putDay } from '#web/endpoints/days.ts';
import {
  getTimerCalendar,
  getTimers,
  getWaits,
  postTimer,
  postTimerClear,
  putWait,
  putWaitRoute,
} from '#web/endpoints/waits.ts';
import { getDrift, postDriftAnswer } from '#web/endpoints/drift.ts';
import { deleteOperator, getWorkshop, postOperator, putWorkshop } from '#web/endpoints/workshop.ts';
import type { Endpoint } from '#web/endpoints/defineEndpoint.ts';
import {
  getDialIns,
  postDialIn,
  getDialIn,
  patchDialIn,
  postCard,
  deleteCard,
  postGrades,
  deleteLastGrades,
  postClose,
} from '#web/endpoints/dialIns.ts';
import { getWindow, getEffort, getWays, getReasons, getPiece } from '#web/endpoints/dialInReplies.ts';
import { postKeep } from '#web/endpoints/keepDialIn.ts';
import { getFaults, postConsult, postFault, putFaultOutcome } from '#web/endpoints/faults.ts';
import { getJudgedPiece } from '#web/endpoints/judgedPiece.ts';
import { getKnowledge, postRefit, deleteRefit, putPrior, deletePrior } from '#web/endpoints/knowledge.ts';
import { getJudged, postJudged, postKeepJudged, deleteJudged } from '#web/endpoints/judgedPieces.ts';
import { getHealth } from '#web/endpoints/health.ts';
import {
  getJobFile,
  getLayered,
  getMachineFile,
  getPrintSheet,
  getRunSheet,
  getTestPiece,
  postJobFile,
} from '#web/endpoints/jobFiles.ts';
import { getPlan } from '#web/endpoints/jobPlan.ts';
import { getJob, getJobs, getSource, patchJob, postJob } from '#web/endpoints/jobs.ts';
import {
  deleteRegistrationSheet,
  getRegistration,
  postRegistrationCard,
  postRegistrationSheet,
  putCorrection,
} from '#web/endpoints/registration.ts';
import { getRunPhoto, getRunPhotos, postRunPhoto } from '#web/endpoints/runPhotos.ts';
import { postPrint } from '#web/endpoints/printJob.ts';
import { deleteRoleRule, getRoleRules, postRoleRule } from '#web/endpoints/roleRules.ts';
import { getLog, getLogCsv } from '#web/endpoints/log.ts';
import { getLookup } from '#web/endpoints/lookup.ts';
import {
  deleteCalibration,
  getMachines,
  postCalibration,
  postTry,
  postMachine,
  postMachineArchive,
  putMachine,
} from '#web/endpoints/machines.ts';
import {
  getMaterial,
  getMaterials,
  postMaterial,
  postMaterialArchive,
  putMaterial,
} from '#web/endpoints/materials.ts';
import { getCornerPiece, getLabels } from '#web/endpoints/prints.ts';
import {
  getGrades,
  getRun,
  getRunEvents,
  getRunHistory,
  postContinue,
  postGrade,
  postPause,
  postRepeat,
  postRun,
  postStop,
  postUnload,
  putNote,
} from '#web/endpoints/runs.ts';
import { postArchive, postBulk, postCopy, postLock, postRestore } from '#web/endpoints/settingActions.ts';
import { getSetting, getSettings, postSetting } from '#web/endpoints/settings.ts';
import { getStation, patchStation } from '#web/endpoints/stations.ts';
import { deleteTestCut, postTestCut } from '#web/endpoints/testCuts.ts';
import {
  getUpkeep,
  patchBlade,
  patchMat,
  postBlade,
  postBladeCare,
  postMat,
  postMatCare,
} from '#web/endpoints/tools.ts';

/** Every endpoint, in the order in which the documentation shows them. */
export const ENDPOINTS: readonly Endpoint[] = [
  getHealth,
  getLookup,
  getMaterials,
  postMaterial,
  getMaterial,
  putMaterial,
  postMaterialArchive,
  getMachines,
  postMachine,
  putMachine,
  postMachineArchive,
  postCalibration,
  postTry,
  deleteCalibration,
  getRegistration,
  postRegistrationCard,
  postRegistrationSheet,
  deleteRegistrationSheet,
  putCorrection,
  getDrift,
  postDriftAnswer,
  getUpkeep,
  postBlade,
  patchBlade,
  postBladeCare,
  postMat,
  patchMat,
  postMatCare,
  getStation,
  patchStation,
  getAnswer,
  postTestCut,
  deleteTestCut,
  getDialIns,
  postDialIn,
  getDialIn,
  patchDialIn,
  postCard,
  deleteCard,
  postGrades,
  deleteLastGrades,
  postClose,
  getWindow,
  getEffort,
  getWays,
  getReasons,
  getPiece,
  postKeep,
  getKnowledge,
  postRefit,
  deleteRefit,
  putPrior,
  deletePrior,
  getJudged,
  postJudged,
  postKeepJudged,
  getJudgedPiece,
  deleteJudged,
  postRevision,
  getSettings,
  postSetting,
  getSetting,
  postLock,
  postArchive,
  postRestore,
  postCopy,
  postBulk,
  getLabels,
  getCornerPiece,
  getJsonBook,
  getCsvBook,
  getBookSchema,
  postImport,
  getImport,
  getWorkshop,
  putWorkshop,
  postOperator,
  deleteOperator,
  getAudit,
  postUndo,
  getJobs,
  postJob,
  getJob,
  patchJob,
  getSource,
  getPlan,
  getMachineFile,
  getTestPiece,
  getLayered,
  getPrintSheet,
  postPrint,
  getRunSheet,
  getJobFile,
  postJobFile,
  getRoleRules,
  postRoleRule,
  deleteRoleRule,
  postRun,
  getRun,
  getRunEvents,
  getRunHistory,
  postStop,
  postContinue,
  postPause,
  postRepeat,
  postUnload,
  postGrade,
  getGrades,
  putNote,
  getRunPhotos,
  postRunPhoto,
  getRunPhoto,
  getTimers,
  postTimer,
  postTimerClear,
  getTimerCalendar,
  getWaits,
  putWait,
  putWaitRoute,
  getDay,
  putDay,
  getDayCalendar,
  getJobSteps,
  getFaults,
  postConsult,
  postFault,
  putFaultOutcome,
  getLog,
  getLogCsv,
];
