import type { Endpoint } from '#web/http/defineEndpoint.ts';
import * as accounts from '#web/endpoints/people/accounts.ts';
import * as sessions from '#web/endpoints/people/sessions.ts';
import * as answers from '#web/endpoints/bench/answers.ts';
import * as audit from '#web/endpoints/book/audit.ts';
import * as book from '#web/endpoints/book/book.ts';
import * as days from '#web/endpoints/workshop/days.ts';
import * as dialInReplies from '#web/endpoints/dialIn/dialInReplies.ts';
import * as dialIns from '#web/endpoints/dialIn/dialIns.ts';
import * as drift from '#web/endpoints/upkeep/drift.ts';
import * as events from '#web/endpoints/events/events.ts';
import * as faults from '#web/endpoints/upkeep/faults.ts';
import * as health from '#web/endpoints/workshop/health.ts';
import * as jobDrawings from '#web/endpoints/jobs/jobDrawings.ts';
import * as jobFiles from '#web/endpoints/jobs/jobFiles.ts';
import * as jobPlan from '#web/endpoints/jobs/jobPlan.ts';
import * as jobs from '#web/endpoints/jobs/jobs.ts';
import * as judgedPiece from '#web/endpoints/dialIn/judgedPiece.ts';
import * as judgedPieces from '#web/endpoints/dialIn/judgedPieces.ts';
import * as judgedRuns from '#web/endpoints/dialIn/judgedRuns.ts';
import * as keepDialIn from '#web/endpoints/dialIn/keepDialIn.ts';
import * as knowledge from '#web/endpoints/dialIn/knowledge.ts';
import * as log from '#web/endpoints/workshop/log.ts';
import * as lookup from '#web/endpoints/book/lookup.ts';
import * as machines from '#web/endpoints/upkeep/machines.ts';
import * as materials from '#web/endpoints/book/materials.ts';
import * as network from '#web/endpoints/workshop/network.ts';
import * as pictures from '#web/endpoints/jobs/pictures/pictures.ts';
import * as printJob from '#web/endpoints/jobs/printJob.ts';
import * as prints from '#web/endpoints/jobs/prints.ts';
import * as registration from '#web/endpoints/upkeep/registration.ts';
import * as roleRules from '#web/endpoints/jobs/roleRules.ts';
import * as runPhotos from '#web/endpoints/runs/runPhotos.ts';
import * as runs from '#web/endpoints/runs/runs.ts';
import * as settingActions from '#web/endpoints/book/settingActions.ts';
import * as settings from '#web/endpoints/book/settings.ts';
import * as sharing from '#web/endpoints/sharing/sharing.ts';
import * as sheetCodes from '#web/endpoints/sharing/sheetCodes.ts';
import * as stations from '#web/endpoints/bench/stations.ts';
import * as testCuts from '#web/endpoints/bench/testCuts.ts';
import * as testRuns from '#web/endpoints/dialIn/testRuns.ts';
import * as tools from '#web/endpoints/upkeep/tools.ts';
import * as waits from '#web/endpoints/workshop/waits.ts';
import * as words from '#web/endpoints/jobs/words/words.ts';
import * as workshop from '#web/endpoints/workshop/workshop.ts';

/** Every file that defines endpoints. What it exports with `defineEndpoint` is served and documented. */
const FILES: readonly object[] = [
  accounts,
  answers,
  audit,
  book,
  days,
  dialInReplies,
  dialIns,
  drift,
  events,
  faults,
  health,
  jobDrawings,
  jobFiles,
  jobPlan,
  jobs,
  judgedPiece,
  judgedPieces,
  judgedRuns,
  keepDialIn,
  knowledge,
  log,
  lookup,
  machines,
  materials,
  network,
  pictures,
  printJob,
  prints,
  registration,
  roleRules,
  runPhotos,
  runs,
  settingActions,
  sessions,
  settings,
  sharing,
  sheetCodes,
  stations,
  testCuts,
  testRuns,
  tools,
  waits,
  words,
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
