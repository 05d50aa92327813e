import { itemAt } from '#core/collections/itemAt.ts';
import { trialOf } from '#core/dialIn/testCut.ts';
import { sheetFactor } from '#core/setting/correctForce.ts';
import { nameCondition } from '#core/stack/material.ts';
import type { Trial } from '#core/threshold/trial.ts';
import { gfOf } from '#core/units/forceScale.ts';
import { findDrift, type Drift, type DriftPoint } from '#core/wear/findDrift.ts';
import type { Store } from '#store/connection/connectStore.ts';
import {
  addDriftPoints,
  closeAlarm,
  findLastClosing,
  findOpenAlarm,
  listDriftPoints,
  listKnownSources,
  raiseAlarm,
  type DriftSource,
  type NewDriftPoint,
} from '#store/repositories/log/drift.ts';
import { readCutSources, type BookSource } from '#store/repositories/dialIn/evidence.ts';
import { readKnowledge } from '#web/endpoints/bench/readSheetPrior.ts';
import { runTask } from '#web/workers/pool.ts';

/** So many points are charted. */
const CHARTED = 80;
/** So many events of a sheet teach what is expected of the next: older ones add little and cost time. */
const TEACHING = 24;
/** So few events before one leave too much open to call it a surprise. */
const LEAST_BEFORE = 3;

/** One graded cut, of a test or of a run. */
interface Event {
  readonly source: DriftSource;
  readonly sourceId: number;
  readonly at: string;
  readonly trial: Trial;
  readonly bladeId: number | null;
  readonly matId: number | null;
  readonly lot: string;
  readonly humidity: number | null;
}

/** What the graded cuts of a machine say, and since when an alarm was answered. */
export interface Watched {
  readonly points: readonly DriftPoint[];
  readonly drift: Drift;
}

/**
 * Judges the graded cuts of a machine that were not judged yet, and raises or closes its alarm. An alarm that was
 * answered is not raised again by the points before the answer.
 */
export async function watchDrift(store: Store, machineId: number, now: Date): Promise<Watched> {
  await judgeNew(store, machineId);
  const watched = await readDrift(store, machineId);
  const { alarm } = watched.drift;
  const open = await findOpenAlarm(store, machineId);
  const [cause] = alarm?.causes ?? [];
  if (alarm && cause && !open) {
    const { direction } = alarm;
    await raiseAlarm(store, machineId, { direction, cause: cause.cause, reason: cause.reason }, now);
  }
  if (!alarm && open) await closeAlarm(store, machineId, 'cuts are as expected again', now);
  return watched;
}

/** What the judged cuts of a machine say. Reads only: judging and alarms are of {@link watchDrift}. */
export async function readDrift(store: Store, machineId: number): Promise<Watched> {
  const [answered, points] = await Promise.all([
    findLastClosing(store, machineId),
    listDriftPoints(store, machineId, CHARTED),
  ]);
  const since = answered ? points.filter(({ at }) => at > answered) : points;
  const fresh = findDrift(since);
  const shift = points.length - since.length;
  const alarm = fresh.alarm && {
    ...fresh.alarm,
    raised: fresh.alarm.raised + shift,
    began: fresh.alarm.began + shift,
  };
  return { points, drift: { ...findDrift(points), alarm } };
}

async function judgeNew(store: Store, machineId: number): Promise<void> {
  const [known, sources, { kept: knowledge, priors }] = await Promise.all([
    listKnownSources(store, machineId),
    readCutSources(store, null, machineId),
    readKnowledge(store),
  ]);
  const fitted = knowledge && { ...knowledge.fitted, own: {} };
  const judge = async (source: BookSource): Promise<readonly NewDriftPoint[]> => {
    const { material, condition, machine } = source;
    const events = listEvents(source).slice(-TEACHING);
    const wanted = [...events.keys()].filter(
      (index) => index >= LEAST_BEFORE && !known.has(keyOf(itemAt(events, index))),
    );
    if (wanted.length === 0) return [];
    const judged = await runTask(
      'judgeEvents',
      [
        {
          traits: { family: material.family, stack: condition.stack, darkness: material.darkness },
          materialId: material.id,
          machineId: machine.id,
          condition: condition.kind,
          lot: '',
          colour: '',
        },
        events.map(({ trial }) => trial),
        wanted,
        fitted,
        priors,
      ],
      { lane: 'fit' },
    );
    const sheet = nameCondition(material.name, condition.kind);
    return [...judged].map(([index, residual]) => {
      const { trial, ...event } = itemAt(events, index);
      return { ...event, residual, sheet, bladeMetres: trial.bladeMetres };
    });
  };
  const points: NewDriftPoint[] = [];
  for (const source of sources) points.push(...(await judge(source)));
  await addDriftPoints(store, machineId, points);
}

const keyOf = ({ source, sourceId }: Event) => `${source}/${sourceId}`;

/** Cuts and graded passes of one sheet on one machine, oldest first, forces as the material's own colour wants them. */
function listEvents({ material, machine, cuts, grades }: BookSource): readonly Event[] {
  const plain = (lot: string, colour: string) => 1 / sheetFactor(material, colour, lot);
  const tests = cuts.map((cut): Event => ({
    source: 'cut',
    sourceId: cut.id,
    at: cut.at,
    trial: trialOf(cut, machine.forceScale, plain(cut.lot, cut.colour)),
    bladeId: cut.bladeId ?? null,
    matId: null,
    lot: cut.lot,
    humidity: null,
  }));
  const seen = grades.map((grade): Event => {
    const { force, passes, speedMmPerS, bladeMetres } = grade;
    const forceGf = gfOf(force, machine.forceScale) * plain(grade.lot, grade.colour);
    return {
      source: 'grade',
      sourceId: grade.id,
      at: grade.at,
      trial: { forceGf, grade: grade.grade, passes, speedMmPerS, bladeMetres },
      bladeId: grade.bladeId,
      matId: grade.matId,
      lot: grade.lot,
      humidity: grade.humidity,
    };
  });
  return [...tests, ...seen].toSorted((a, b) => a.at.localeCompare(b.at));
}
