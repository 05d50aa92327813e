import { z } from 'zod';
import { AppError } from '#core/errors/appError.ts';
import { compareWays, listWays, type WayOutlook } from '#core/dialIn/compareWays.ts';
import { estimateEffort } from '#core/dialIn/estimateEffort.ts';
import { writeCardFile, writeCardSvg } from '#core/protocol/writeCard.ts';
import { fileOptionsOf } from '#core/protocol/machineFile.ts';
import { seedFromText } from '#core/random/seededRandom.ts';
import type { DepthGrade, DialInOperation } from '#core/stack/depthGrade.ts';
import { findWindow, outlookAt, targetIndexes } from '#core/threshold/findWindow.ts';
import { predictGrades } from '#core/threshold/predictGrades.ts';
import { chooseAxis, spreadForces } from '#core/threshold/spreadForces.ts';
import { gfToForce } from '#core/units/forceScale.ts';
import type { Machine } from '#core/station/machine.ts';
import { findDialIn } from '#store/repositories/dialIns.ts';
import { defineEndpoint, idParam } from '#web/endpoints/defineEndpoint.ts';
import { drawTestCard } from '#web/endpoints/drawTestCard.ts';
import { explainDialIn } from '#web/endpoints/explainDialIn.ts';
import {
  findDialInStation,
  loadDialIn,
  questionDialIn,
  type AskedDialIn,
} from '#web/endpoints/loadDialIn.ts';
import { replyWithFile, replyWithMachineFile, SVG_TYPE } from '#web/endpoints/replyWithFile.ts';
import {
  effortReplySchema,
  pieceQuerySchema,
  reasonsReplySchema,
  waySchema,
  windowReplySchema,
} from '#web/schemas/dialIn.ts';

const dialInParams = z.object({ id: idParam });

/** The forces that matter for a dial-in, ascending, in gf. */
function forcesOf({ posterior, trials, station }: AskedDialIn, operation: DialInOperation) {
  const { forceScale } = station.machine;
  const cutAt = trials.map(({ forceGf }) => forceGf);
  return spreadForces(
    chooseAxis(posterior, targetIndexes(posterior, operation).last, cutAt, forceScale),
    forceScale,
  );
}

export const getWindow = defineEndpoint({
  method: 'GET',
  path: '/api/dial-ins/{id}/window',
  summary: 'The force window, and the chance of every grade at every force that matters.',
  params: dialInParams,
  reply: windowReplySchema,
  handle: async ({ params }, { store }) => {
    const dialIn = await findDialIn(store, params.id);
    const asked = await questionDialIn(store, dialIn);
    const { posterior, station } = asked;
    const target = targetIndexes(posterior, dialIn.operation);
    const forcesGf = forcesOf(asked, dialIn.operation);
    return {
      window: findWindow(posterior, dialIn.operation, forcesGf),
      chances: forcesGf.map((forceGf) => ({
        force: gfToForce(forceGf, station.machine.forceScale),
        forceGf,
        outlook: outlookAt(posterior, target, forceGf),
        grades: [...predictGrades(posterior, forceGf)].map((chance, index) => ({
          grade: posterior.grades[index] as DepthGrade,
          chance,
        })),
      })),
    };
  },
});

export const getEffort = defineEndpoint({
  method: 'GET',
  path: '/api/dial-ins/{id}/effort',
  summary: 'What cutting one at a time and a ladder card would cost from here, and which is advised.',
  params: dialInParams,
  reply: effortReplySchema,
  handle: async ({ params }, { store }) => {
    const dialIn = await findDialIn(store, params.id);
    const asked = await questionDialIn(store, dialIn);
    const { posterior, station } = asked;
    const forcesGf = forcesOf(asked, dialIn.operation);
    const machine = { kind: station.machine.kind, sheetWidthMm: dialIn.scrap.widthMm };
    return estimateEffort(posterior, dialIn.operation, forcesGf, machine, seedFromText(`${dialIn.id}`));
  },
});

export const getWays = defineEndpoint({
  method: 'GET',
  path: '/api/dial-ins/{id}/ways',
  summary: 'Other ways of cutting (passes, speed, blade, exposure) with what each would gain, by the model.',
  params: dialInParams,
  reply: z.array(waySchema).readonly(),
  handle: async ({ params }, { store }) => {
    const dialIn = await findDialIn(store, params.id);
    const asked = await questionDialIn(store, dialIn);
    const { model, question, trials, station } = asked;
    const forcesGf = forcesOf(asked, dialIn.operation);
    const ways = listWays(question.conditions, dialIn.operation);
    return compareWays(model, question, trials, dialIn.operation, forcesGf, ways).map((way, index) => ({
      ...way,
      words: index === 0 ? 'as now' : wordWay(way, question.conditions),
      force: gfToForce(way.best.forceGf, station.machine.forceScale),
    }));
  },
});

function wordWay(way: WayOutlook, now: { readonly passes: number; readonly speedMmPerS: number }): string {
  if (way.isFreshBlade) return 'a fresh blade';
  if (way.isExposureStopped) return 'exposure that stops short of the mat';
  if (way.passes !== now.passes) return way.passes === 1 ? 'one heavy pass' : `${way.passes} lighter passes`;
  return 'half the speed';
}

export const getReasons = defineEndpoint({
  method: 'GET',
  path: '/api/dial-ins/{id}/reasons',
  summary: 'What moved the answer, and by how much: family, layers, machine, other sheets, each cut.',
  params: dialInParams,
  reply: reasonsReplySchema,
  handle: async ({ params }, { store }) => {
    const dialIn = await findDialIn(store, params.id);
    return explainDialIn(await questionDialIn(store, dialIn), dialIn.operation);
  },
});

export const getPiece = defineEndpoint({
  method: 'GET',
  path: '/api/dial-ins/{id}/piece',
  summary:
    'The test piece or card at its place on the scrap: SVG at real size, machine file, or print guide.',
  params: dialInParams,
  query: pieceQuerySchema,
  reply: z.string().meta({ description: 'image/svg+xml or a machine file' }),
  handle: async ({ params, query }, { store }) => {
    const dialIn = await findDialIn(store, params.id);
    const [{ bench }, { station }] = await Promise.all([
      loadDialIn(store, dialIn),
      findDialInStation(store, dialIn),
    ]);
    if (!bench.answer) throw new AppError('badInput', 'this sheet has no such cut');
    const { card, values, scrap } = drawTestCard(dialIn, station, bench.answer, query);
    if (query.format === 'hpgl' || query.format === 'machine') {
      const file = writeFile(card, scrap.heightMm, values, station.machine);
      return replyWithMachineFile(file, station.machine.language, 'test-card', 'inline');
    }
    const svg = writeCardSvg(card, scrap, query.format === 'svg' ? 'cut' : 'guide');
    return replyWithFile(svg, SVG_TYPE, 'test-card.svg', 'inline');
  },
});

function writeFile(
  card: Parameters<typeof writeCardFile>[0],
  heightMm: number,
  values: Parameters<typeof writeCardFile>[2],
  machine: Machine,
): string {
  return writeCardFile(card, heightMm, values, fileOptionsOf(machine), values.tabForce ?? null);
}
