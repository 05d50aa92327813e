import type { StrokeOutcome } from '#core/run/run.ts';
import { planMachineOf } from '#core/protocol/planMachineOf.ts';
import { daysBefore, MINUTE_MS } from '#demo/days.ts';
import { drawJobs } from '#demo/drawJobs.ts';
import { conditionId, machineNamed } from '#demo/names.ts';
import { DIAL_INS, RUNS, type DialInStory, type RunStory } from '#demo/history.ts';
import {
  EARLIER_DIAL_INS,
  EARLIER_RUNS,
  FLATBED_KEPT,
  KEPT,
  LATER_REVISIONS,
  type KeptStory,
  type RevisionStory,
} from '#demo/earlierHistory.ts';
import { MORNING_CHECKS } from '#demo/morningChecks.ts';
import { MATERIALS } from '#demo/shelf.ts';
import { BLADES, DESK_CUTTER, DESK_READINGS, FLATBED, MATS, ROLL_CUTTER } from '#demo/workshop.ts';
import { FREEING_ROLES } from '#core/drawing/roles/lineRoles.ts';
import { planPasses } from '#core/passes/planPasses.ts';
import { layOutJob } from '#core/job/layOutJob.ts';
import { fitKnowledge } from '#core/knowledge/fitKnowledge.ts';
import { learnSpreads } from '#core/knowledge/learnSpreads.ts';
import { settleValues } from '#core/setting/settleValues.ts';
import { fitForceScale } from '#core/units/fitForceScale.ts';
import { suggestValues } from '#core/setting/suggestValues.ts';
import { forceToGf } from '#core/units/forceScale.ts';
import { speedToMmPerS } from '#core/units/speedScale.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { findJob, listJobs } from '#store/repositories/jobs/jobs.ts';
import { readJobSettings } from '#store/repositories/jobs/jobSettings.ts';
import { addMaterial, findMaterialByCondition, listMaterials } from '#store/repositories/book/materials.ts';
import { addRun, noteRun } from '#store/repositories/runs/runs.ts';
import { readBookEvidence } from '#store/repositories/dialIn/evidence.ts';
import { addKnowledge } from '#store/repositories/dialIn/knowledge.ts';
import { keepRevision } from '#store/repositories/book/keepSettings.ts';
import { addCalibration } from '#store/repositories/book/calibrations.ts';
import { addMachine, findMachine } from '#store/repositories/book/machines.ts';
import { findSetting } from '#store/repositories/book/settings.ts';
import { changeStation, findStation } from '#store/repositories/bench/stations.ts';
import { addBlade, addMat, careForBlade, careForMat, listBlades } from '#store/repositories/bench/tools.ts';
import { addOperator } from '#store/repositories/workshop/workshop.ts';
import { addTestCut } from '#store/repositories/dialIn/testCuts.ts';

/** When the workshop began to keep its book here. */
const MONTHS_AGO = 175;
const BLADE_KIND = '45° fine';

/** Fills an empty store with the demo workshop; a store that holds materials already is left as it is. */
export async function seedDemo(db: Store, now: Date): Promise<void> {
  if ((await listMaterials(db)).length > 0) return;
  for (const name of ['Ines', 'Tove']) await addOperator(db, name, name, daysBefore(now, MONTHS_AGO));
  for (const material of MATERIALS) await addMaterial(db, material, daysBefore(now, MONTHS_AGO), 'Ines');
  await furnishStations(db, now);
  await drawJobs(db, now);
  for (const { tell } of listEvents(db, now)) await tell();
  const { sheets, lastCutId } = await readBookEvidence(db);
  const started = performance.now();
  const first = fitKnowledge(sheets);
  const fitted = fitKnowledge(sheets, { start: first, spreads: learnSpreads(sheets, first) });
  await addKnowledge(db, { fitted, lastCutId, milliseconds: performance.now() - started }, now);
}

interface TellableEvent {
  readonly daysAgo: number;
  readonly tell: () => Promise<void>;
}

/** Everything that happened, in the order in which it did: what came later rests on what was kept before. */
function listEvents(db: Store, now: Date): readonly TellableEvent[] {
  const dialIns = [...EARLIER_DIAL_INS, ...DIAL_INS, ...MORNING_CHECKS].map((story, place) => ({
    daysAgo: story.daysAgo,
    tell: () => tellDialIn(db, story, place % 8, now),
  }));
  const kept = [...KEPT, ...FLATBED_KEPT].map((story) => ({
    daysAgo: story.daysAgo,
    tell: () => tellKept(db, story, now),
  }));
  const revisions = LATER_REVISIONS.map((story) => ({
    daysAgo: story.daysAgo,
    tell: () => tellRevision(db, story, now),
  }));
  const runs = [...EARLIER_RUNS, ...RUNS].map((story) => ({
    daysAgo: story.daysAgo,
    tell: () => tellRun(db, story, now),
  }));
  return [...dialIns, ...kept, ...revisions, ...runs].sort((a, b) => b.daysAgo - a.daysAgo);
}

async function tellKept(db: Store, story: KeptStory, now: Date): Promise<void> {
  const machine = await machineNamed(db, story.machine);
  const bladeKind = story.operation === 'crease' ? 'ball 1.5 mm' : BLADE_KIND;
  const condition = await conditionId(db, story.material, story.condition);
  const key = { conditionId: condition, machineId: machine.id, bladeKind, operation: story.operation };
  const kiss = await findSetting(db, { ...key, operation: 'kiss' });
  const values = settleValues(story.values, story.operation, machine, kiss?.revision.values.force ?? null);
  const { author, reason } = story;
  const sources = { force: 'person', tabForce: 'kiss' } as const;
  await keepRevision(db, key, { values, sources, author, reason }, 0, daysBefore(now, story.daysAgo));
}

async function tellRevision(db: Store, story: RevisionStory, now: Date): Promise<void> {
  const { id: machineId } = await machineNamed(db, story.machine);
  const condition = await conditionId(db, story.material, story.condition);
  const key = { conditionId: condition, machineId, bladeKind: BLADE_KIND, operation: story.operation };
  const kept = await findSetting(db, key);
  if (!kept) throw new Error(`the demo has no setting for ${story.material} yet`);
  const { values, sources, revision } = kept.revision;
  const { author, reason, force } = story;
  const next = {
    values: { ...values, force },
    sources: { ...sources, force: 'person' },
    author,
    reason,
  } as const;
  await keepRevision(db, key, next, revision, daysBefore(now, story.daysAgo));
}

async function furnishStations(db: Store, now: Date): Promise<void> {
  const rollId = await addMachine(db, ROLL_CUTTER, daysBefore(now, MONTHS_AGO), 'Ines');
  const deskId = await addMachine(db, DESK_CUTTER, daysBefore(now, MONTHS_AGO), 'Tove');
  const flatId = await addMachine(db, FLATBED, daysBefore(now, 8), 'Tove');
  const blades: number[] = [];
  for (const blade of BLADES) blades.push(await addBlade(db, blade, 'Ines', daysBefore(now, 90)));
  const mats: number[] = [];
  for (const mat of MATS) mats.push(await addMat(db, mat, 'Tove', daysBefore(now, 170)));
  const { forceScale } = await findMachine(db, deskId);
  const fitted = fitForceScale(DESK_READINGS, forceScale);
  await addCalibration(db, deskId, DESK_READINGS, fitted, 'Tove', daysBefore(now, 165));
  const herringglass = await conditionId(db, 'Herringglass matt white', 'laminated');
  const card = await conditionId(db, 'Sailcloth card, chalk', 'bare');
  const onRoll = { bladeId: blades[0], conditionId: herringglass, lot: '26-B' };
  await changeStation(db, rollId, onRoll, 'Ines', daysBefore(now, 35));
  const onDesk = { bladeId: blades[1], matId: mats[0], conditionId: card, lot: 'S-07' };
  await changeStation(db, deskId, onDesk, 'Tove', daysBefore(now, 40));
  const vinyl = await conditionId(db, 'Mooring vinyl, navy', 'bare');
  const onFlatbed = { bladeId: blades[4], conditionId: vinyl, lot: '26-D' };
  await changeStation(db, flatId, onFlatbed, 'Tove', daysBefore(now, 7));
  await careForMat(db, mats[0] as number, 'clean', 'Tove', daysBefore(now, 16));
  await careForBlade(db, blades[0] as number, 'clean', 'Ines', daysBefore(now, 10));
}

async function tellDialIn(db: Store, story: DialInStory, place: number, now: Date): Promise<void> {
  const machine = await machineNamed(db, story.machine);
  const condition = await conditionId(db, story.material, story.condition);
  const blade = (await listBlades(db)).find(({ number }) => number === story.bladeNumber);
  const start = daysBefore(now, story.daysAgo).getTime() + place * 18 * MINUTE_MS;
  for (const [index, [force, grade, flaws = []]] of story.cuts.entries()) {
    const cut = {
      conditionId: condition,
      machineId: machine.id,
      operation: story.operation,
      force,
      forceGf: forceToGf(force, machine.forceScale),
      speedMmPerS: speedToMmPerS(story.speed, machine.speedScale),
      passes: story.passes,
      exposureMm: story.exposureMm,
      bladeMetres: story.bladeMetres,
      grade,
      flaws,
      author: story.author,
      lot: story.lot ?? '',
      bladeId: blade?.id ?? null,
    };
    await addTestCut(db, cut, new Date(start + index * 3 * MINUTE_MS));
  }
  if (!story.kept) return;
  const { material, condition: state } = await findMaterialByCondition(db, condition);
  const station = await findStation(db, machine.id);
  const { values, sources } = suggestValues(material, state, machine, station.blade, story.operation, 100);
  const { speed, passes, exposureMm } = story;
  const revision = {
    values: settleValues(
      { ...values, force: story.kept.force, speed, passes, exposureMm },
      story.operation,
      machine,
      null,
    ),
    sources: { ...sources, force: 'testCuts' as const },
    author: story.author,
    reason: `${story.kept.reason} (${story.cuts.length} test cuts)`,
    lot: story.lot ?? '',
  };
  const key = {
    conditionId: condition,
    machineId: machine.id,
    bladeKind: BLADE_KIND,
    operation: story.operation,
  };
  const before = await findSetting(db, key);
  const at = new Date(start + story.cuts.length * 3 * MINUTE_MS);
  await keepRevision(db, key, revision, before?.revision.revision ?? 0, at);
}

async function tellRun(db: Store, story: RunStory, now: Date): Promise<void> {
  const summary = (await listJobs(db)).find((job) => job.name === story.job);
  if (!summary) throw new Error(`the demo has no job ${story.job}`);
  const job = await findJob(db, summary.id);
  const { station, values, kept } = await readJobSettings(db, job);
  const laid = layOutJob(job, station.machine);
  const plan = planPasses({
    lines: laid.sheets[0]?.lines ?? [],
    given: laid.given,
    settings: values,
    machine: planMachineOf(station.machine),
    sheetHeightMm: job.sheet.heightMm,
    choices: job.passes,
    kicks: 0,
  });
  const strokes = plan.passes.flatMap(({ role, strokes: all }) =>
    all.map((stroke) => ({ operation: role, ...stroke })),
  );
  const started = daysBefore(now, story.daysAgo);
  const ended = new Date(started.getTime() + plan.seconds * 1000);
  const run = {
    jobId: job.id,
    machineId: job.machineId,
    conditionId: job.conditionId,
    sheetWidthMm: job.sheet.widthMm,
    sheetHeightMm: job.sheet.heightMm,
    strokes,
    seconds: plan.seconds,
    author: story.author,
    lot: story.lot ?? '',
    bladeMetres: station.blade?.travelMetres ?? null,
    settings: kept
      .filter(({ key }) => plan.passes.some(({ operation }) => operation === key.operation))
      .map(({ id: settingId, key, revision }) => ({
        settingId,
        revision: revision.revision,
        cutValues: values[key.operation],
      })),
  };
  const outcomes = strokes.map((stroke, index): StrokeOutcome => {
    const isThrough = FREEING_ROLES.has(stroke.operation) && !stroke.isTab;
    const grade = isThrough ? 7 : story.verdict === 'failed' ? 2 : 3;
    return { index, spans: [{ from: 0, to: 1, grade }] };
  });
  const id = await addRun(db, run, started, { endedAt: ended, outcomes });
  await noteRun(db, id, story, story.author, new Date(ended.getTime() + 5 * MINUTE_MS));
}
