import { z } from 'zod';
import { AppError } from '#core/errors/appError.ts';
import { ACTION_FACTS, type Action } from '#core/faults/faultActions.ts';
import { FINDING_FACTS, type Finding } from '#core/faults/findings.ts';
import { factsOfCause, type Cause } from '#core/faults/causes.ts';
import { proposeNumber, type NumberChange } from '#core/faults/proposeNumber.ts';
import { rankActions } from '#core/faults/rankActions.ts';
import { nextQuestion, rankCauses, type KnownFindings } from '#core/faults/rankCauses.ts';
import { DEPTH_OPERATIONS, type DepthOperation, type Operation } from '#core/stack/operation.ts';
import type { LoadedStation } from '#core/station/station.ts';
import { requireLoaded } from '#core/station/requireLoaded.ts';
import { valuesOffSheet, valuesOnSheet } from '#core/setting/correctForce.ts';
import type { SettingValues } from '#core/setting/settingFields.ts';
import { settingKey } from '#core/setting/settingKey.ts';
import type { Store } from '#store/connection/connectStore.ts';
import {
  addFaultCase,
  answerCase,
  learnFromCases,
  listOpenCases,
  putStandingAway,
} from '#store/repositories/log/faultCases.ts';
import { keepRevision } from '#store/repositories/book/keepSettings.ts';
import { findStation } from '#store/repositories/bench/stations.ts';
import { defineEndpoint, idParam } from '#web/http/defineEndpoint.ts';
import { findLoadedSetting } from '#web/endpoints/bench/findLoadedSetting.ts';
import { readAnswer } from '#web/endpoints/bench/readAnswer.ts';
import { readFindings } from '#web/endpoints/upkeep/readFindings.ts';
import {
  consultSchema,
  consultReplySchema,
  faultActionSchema,
  faultCaseSchema,
  type ConsultReply,
} from '#web/schemas/faults.ts';

const params = z.object({ machineId: idParam });
/** So many causes and actions are told. */
const MOST_TOLD = 5;
const LEAST_CHANCE = 0.02;
const LEAST_MENDS = 0.08;

export const postConsult = defineEndpoint({
  method: 'POST',
  role: 'operator',
  change: 'harmless',
  path: '/api/stations/{machineId}/faults/consult',
  summary:
    'From what is seen to ranked causes, the next best question, and actions with the number to change.',
  params,
  body: consultSchema,
  reply: consultReplySchema,
  handle: async ({ params, body }, { store }) => {
    const station = requireLoaded(await findStation(store, params.machineId));
    return consult(store, station, body);
  },
});

/** An action is taken against the likeliest cause that it mends with more than this chance. */
const LIKELY_MENDED = 0.3;

export const postFault = defineEndpoint({
  method: 'POST',
  role: 'operator',
  path: '/api/stations/{machineId}/faults',
  summary:
    'Takes an action against a fault: a number is changed in the setting, and later asked whether it helped.',
  params,
  body: faultActionSchema,
  reply: z.array(faultCaseSchema).readonly(),
  status: 201,
  handle: async ({ params, body, author }, { store }) => {
    const station = requireLoaded(await findStation(store, params.machineId));
    const { causes, actions } = await consult(store, station, body);
    const chosen = actions.find(({ action }) => action === body.action);
    if (!chosen) throw new AppError('badInput', 'this action does not fit what is seen');
    if (chosen.change) await applyChange(store, station, body, chosen.change, author);
    const isMended = (cause: Cause) => (factsOfCause(cause).mendedBy[body.action] ?? 0) > LIKELY_MENDED;
    const cause = causes.find((one) => isMended(one.cause)) ?? causes[0];
    const found = {
      machineId: station.machine.id,
      conditionId: station.loaded.condition.id,
      operation: body.operation,
      symptoms: body.symptoms,
      cause: (cause as ConsultReply['causes'][number]).cause,
      action: body.action,
      changeWords: chosen.change?.words ?? '',
      author,
    };
    await addFaultCase(store, found, new Date());
    return listOpenCases(store, station.machine.id);
  },
});

export const getFaults = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/stations/{machineId}/faults',
  summary: 'Actions against faults of which nobody has said whether they helped.',
  params,
  reply: z.array(faultCaseSchema).readonly(),
  handle: ({ params }, { store }) => listOpenCases(store, params.machineId),
});

export const putFaultOutcome = defineEndpoint({
  method: 'PUT',
  role: 'operator',
  path: '/api/faults/{id}/outcome',
  summary: 'Says whether an action helped: causes and actions are ranked by it from then on.',
  params: z.object({ id: idParam }),
  body: z.object({ hasHelped: z.boolean() }),
  reply: z.array(faultCaseSchema).readonly(),
  handle: async ({ params, body }, { store }) => {
    const { machineId } = await answerCase(store, params.id, body.hasHelped, new Date());
    return listOpenCases(store, machineId);
  },
});

export const deleteStandingCheck = defineEndpoint({
  method: 'DELETE',
  role: 'operator',
  path: '/api/faults/{id}/standing',
  summary: 'What helped at a machine is no longer looked at before its runs; what it taught stays.',
  params: z.object({ id: idParam }),
  reply: z.object({ isPutAway: z.literal(true) }),
  handle: async ({ params }, { store }) => {
    await putStandingAway(store, params.id, new Date());
    return { isPutAway: true as const };
  },
});

async function consult(
  store: Store,
  station: LoadedStation,
  { symptoms, operation, answers, tried }: z.infer<typeof consultSchema>,
): Promise<ConsultReply> {
  const [looked, learnt, setting] = await Promise.all([
    readFindings(store, station, operation, new Date()),
    learnFromCases(store),
    findLoadedSetting(store, station, operation),
  ]);
  const known: KnownFindings = { ...looked, ...answers };
  const hold = station.machine.kind === 'rollFed' ? ('rollers' as const) : ('mat' as const);
  const causes = rankCauses(symptoms, known, learnt.causes, hold);
  const target = await findTarget(store, station, operation);
  // The figures of the sheet that lies there, as the Bench tells them.
  const { machine, loaded } = station;
  const values = setting && valuesOnSheet(setting.revision.values, machine, loaded);
  // A material keeps whole steps without its lot: what comes back with the lot may be a step beside.
  const asKept = (changed: SettingValues) =>
    valuesOnSheet(valuesOffSheet(changed, machine, loaded), machine, loaded).force;
  const numberOf = (action: Action): NumberChange | null =>
    values && proposeNumber(action, values, machine, target, (force) => asKept({ ...values, force }));
  const actions = rankActions(causes, symptoms, tried, learnt.actions, hold)
    // A number that cannot be changed, for want of a setting or of room on the scale, is no action.
    .filter(
      ({ action, gain, mends }) =>
        gain > 0 && mends >= LEAST_MENDS && (ACTION_FACTS[action].changes === null || numberOf(action)),
    )
    .slice(0, MOST_TOLD);
  return {
    causes: causes
      .filter(({ chance }, index) => index < MOST_TOLD && chance >= LEAST_CHANCE)
      .map((one) => ({ ...one, words: factsOfCause(one.cause).words })),
    known: (Object.keys(known) as Finding[])
      .filter((evidence) => known[evidence] === true)
      .map((evidence) => FINDING_FACTS[evidence].words),
    question: nextQuestion(symptoms, known, learnt.causes, hold),
    actions: actions.map(({ action, mends }) => {
      const { words, how, caution = null, link = null } = ACTION_FACTS[action];
      return { action, words, how, caution, link, mends, change: numberOf(action) };
    }),
    revision: setting?.revision.revision ?? null,
  };
}

/** The force in the middle of the window, where test cuts can tell one. */
async function findTarget(
  store: Store,
  station: LoadedStation,
  operation: Operation,
): Promise<number | null> {
  const isDialled = (DEPTH_OPERATIONS as readonly string[]).includes(operation);
  if (!isDialled) return null;
  const { answer } = await readAnswer(store, station, operation as DepthOperation);
  return answer?.bestForce ?? null;
}

async function applyChange(
  store: Store,
  station: LoadedStation,
  { operation, symptoms }: z.infer<typeof faultActionSchema>,
  { number, to, words }: NumberChange,
  author: string,
): Promise<void> {
  const setting = await findLoadedSetting(store, station, operation);
  if (!setting) return;
  const { values, sources, revision } = setting.revision;
  const { machine, loaded } = station;
  const corrected = { ...valuesOnSheet(values, machine, loaded), [number]: to };
  const kept = {
    // Kept is what the material wants without what this colour and lot add.
    values: number === 'force' ? valuesOffSheet(corrected, machine, loaded) : { ...values, [number]: to },
    sources: { ...sources, [number]: 'person' as const },
    reason: `${number} ${words}: ${symptoms.join(', ')}`.slice(0, 200),
    author,
    lot: station.loaded.lot,
  };
  await keepRevision(
    store,
    settingKey(station, station.loaded.condition.id, operation),
    kept,
    revision,
    new Date(),
  );
}
