import pino from 'pino';
import { listRunStrokes } from '#core/program/listRunStrokes.ts';
import type { RunStroke } from '#core/program/runStroke.ts';
import type { FileOptions } from '#core/program/cutProgram.ts';
import { makeProgram } from '#core/program/runProgram.ts';
import { PLAIN_CHOICES } from '#core/passes/plan.ts';
import { splitParts } from '#core/passes/splitParts.ts';
import { readSvg } from '#core/drawing/svg/readSvg.ts';
import { sampleVinyl } from '#devices/tests/sampleVinyl.ts';
import { plotterFile, sampleDesign, samplePlan } from '#core/tests/sampleJob.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { addJob } from '#store/repositories/jobs/jobs.ts';
import { startRun } from '#store/repositories/runs/runs.ts';
import { ChangeFeed } from '#server/events/changeFeed.ts';
import { readNetworkSettings } from '#server/network/networkSettings.ts';
import type { ServerContext } from '#server/context/context.ts';

/** Only for tests: a run of many small circles, kissed and then, at another exposure, cut through. */
export interface DrivenRun {
  readonly runId: number;
  readonly strokes: readonly RunStroke[];
}

const values = (force: number, exposureMm: number) => ({
  force,
  exposureMm,
  speed: 200,
  passes: 1,
  offsetMm: 0.25,
  overcutMm: 0,
});
const SIDE = 100;

interface Facts {
  readonly machineId: number;
  readonly conditionId: number;
  readonly now: Date;
  readonly key: string;
}

const ROLES = { '|#ff0000': 'kiss', '|#0000ff': 'through' } as const;

/** How a flatbed's file is written. */
export const flatbedFile: FileOptions = {
  language: { id: 'gcode', options: { settleSeconds: 0.02 } },
  carries: { force: true, speed: true },
  mmPerSPerUnit: 1,
};

/** Writes a run of `count` circles kissed and `count` cut through to the store, ready to be driven. */
export async function addDrivenRun(
  db: Store,
  facts: Facts,
  count: number,
  hasStop = true,
  isPrinted = false,
  file: FileOptions = plotterFile(),
): Promise<DrivenRun> {
  const svg = drawCircles(count);
  const plan = samplePlan(readSvg(svg).contours, ROLES, {
    kiss: values(90, 0.35),
    through: values(220, hasStop ? 0.4 : 0.35),
  });
  const strokes = listRunStrokes(plan);
  const program = makeProgram(splitParts(plan.passes, { force: true, speed: true }), {
    file,
    sheetHeightMm: SIDE,
    bladeMetres: 0,
    sheet: sampleVinyl('driven/test'),
    isPrinted,
  });
  const run = {
    jobId: await addDrivenJob(db, facts, svg),
    machineId: facts.machineId,
    conditionId: facts.conditionId,
    sheetWidthMm: SIDE,
    sheetHeightMm: SIDE,
    strokes,
    seconds: plan.seconds,
    author: 'Ines',
    settings: [],
    requestKey: facts.key,
    program,
  };
  return { runId: (await startRun(db, run, facts.now)).id, strokes };
}

function drawCircles(count: number): string {
  const perRow = Math.ceil(Math.sqrt(count));
  const step = SIDE / (perRow + 1);
  const circles = (colour: string, radius: number) =>
    Array.from({ length: count }, (_, index) => {
      const [x, y] = [step * ((index % perRow) + 1), step * (Math.floor(index / perRow) + 1)];
      return `<circle stroke="${colour}" cx="${x}" cy="${y}" r="${radius}"/>`;
    }).join('');
  return `<svg width="100mm" height="100mm" viewBox="0 0 100 100" fill="none">${circles('#ff0000', step / 5)}${circles('#0000ff', step / 3)}</svg>`;
}

function addDrivenJob(db: Store, facts: Facts, svg: string): Promise<number> {
  const job = {
    name: `Circles ${facts.key}`,
    ...sampleDesign(svg, ROLES, { xMm: 50, yMm: 50 }),
    areRolesGuessed: false,
    passes: PLAIN_CHOICES,
    conditionId: facts.conditionId,
    machineId: facts.machineId,
  };
  return addJob(db, job, facts.now);
}

/** Only for tests: what a driver needs of a server. */
export function drivenContext(
  store: Store,
  ports: { readonly dataPort: number; readonly panelPort: number },
): ServerContext {
  const log = pino({ level: 'silent' });
  return {
    store,
    log,
    standIns: { desk: ports, roll: ports, flat: ports },
    ownPorts: [],
    network: readNetworkSettings({}),
    feed: new ChangeFeed(store, log),
    leases: null,
    isOpenDemo: true,
    countWrites: () => 0,
    onWrite: () => undefined,
  };
}
