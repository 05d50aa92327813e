import type { Endpoint } from '#web/endpoints/defineEndpoint.ts';
import * as answers from '#web/endpoints/answers.ts';
import * as audit from '#web/endpoints/audit.ts';
import * as book from '#web/endpoints/book.ts';
import * as days from '#web/endpoints/days.ts';
import * as dialInReplies from '#web/endpoints/dialInReplies.ts';
import * as dialIns from '#web/endpoints/dialIns.ts';
import * as drift from '#web/endpoints/drift.ts';
import * as faults from '#web/endpoints/faults.ts';
import * as health from '#web/endpoints/health.ts';
import * as jobFiles from '#web/endpoints/jobFiles.ts';
import * as jobPlan from '#web/endpoints/jobPlan.ts';
import * as jobs from '#web/endpoints/jobs.ts';
import * as judgedPiece from '#web/endpoints/judgedPiece.ts';
import * as judgedPieces from '#web/endpoints/judgedPieces.ts';
import * as keepDialIn from '#web/endpoints/keepDialIn.ts';
import * as knowledge from '#web/endpoints/knowledge.ts';
import * as log from '#web/endpoints/log.ts';
import * as lookup from '#web/endpoints/lookup.ts';
import * as machines from '#web/endpoints/machines.ts';
import * as materials from '#web/endpoints/materials.ts';
import * as printJob from '#web/endpoints/printJob.ts';
import * as prints from '#web/endpoints/prints.ts';
import * as registration from '#web/endpoints/registration.ts';
import * as roleRules from '#web/endpoints/roleRules.ts';
import * as runPhotos from '#web/endpoints/runPhotos.ts';
import * as runs from '#web/endpoints/runs.ts';
import * as settingActions from '#web/endpoints/settingActions.ts';
import * as settings from '#web/endpoints/settings.ts';
import * as stations from '#web/endpoints/stations.ts';
import * as testCuts from '#web/endpoints/testCuts.ts';
import * as tools from '#web/endpoints/tools.ts';
import * as waits from '#web/endpoints/waits.ts';
import * as workshop from '#web/endpoints/workshop.ts';

/** Every file that defines endpoints. What it exports with `defineEndpoint` is served and documented. */
const FILES: readonly object[] = [
  answers,
  audit,
  book,
  days,
  dialInReplies,
  dialIns,
  drift,
  faults,
  health,
  jobFiles,
  jobPlan,
  jobs,
  judgedPiece,
  judgedPieces,
  keepDialIn,
  knowledge,
  log,
  lookup,
  machines,
  materials,
  printJob,
  prints,
  registration,
  roleRules,
  runPhotos,
  runs,
  settingActions,
  settings,
  stations,
  testCuts,
  tools,
  waits,
  workshop,
];

const METHODS = ['GET', 'POST', 'PUT', 'PATCH', 'DELETE'];

/** Every endpoint by its path, in the order in which the documentation shows them. */
export const ENDPOINTS: readonly Endpoint[] = FILES.flatMap((file): unknown[] => Object.values(file))
  .filter(isEndpoint)
  .sort(
    (one, other) =>
      one.path.localeCompare(other.path, 'en') || METHODS.indexOf(one.method) - METHODS.indexOf(other.method),
  );

function isEndpoint(exported: unknown): exported is Endpoint {
  return typeof exported === 'object' && exported !== null && 'serve' in exported;
}
