import { planMachineOf } from '#core/protocol/planMachineOf.ts';
import { z } from 'zod';
import { AppError } from '#core/errors/appError.ts';
import { drawCornerPiece } from '#core/job/cornerPiece.ts';
import { groupKey } from '#core/drawing/roles/lineRoles.ts';
import { PLAIN_CHOICES } from '#core/passes/plan.ts';
import { planPasses } from '#core/passes/planPasses.ts';
import { fileOptionsOf, writeMachineFile } from '#core/protocol/machineFile.ts';
import { findMachine } from '#store/repositories/book/machines.ts';
import { findMaterials } from '#store/repositories/book/materials.ts';
import { findSettings, requireSetting } from '#store/repositories/book/settings.ts';
import { lastingOrigin } from '#server/network/describeNetwork.ts';
import { defineEndpoint, idParam } from '#web/http/defineEndpoint.ts';
import { replyWithFile, replyWithMachineFile, replyWithPdf, SVG_TYPE } from '#web/http/replyWithFile.ts';
import { paperUnits } from '#web/endpoints/jobs/jobPlan.ts';
import { runTask } from '#web/workers/pool.ts';
import { summariseSettings } from '#web/pageData/summariseSettings.ts';

const MOST_LABELS = 200;

/** Ids as a comma-separated list. */
export const idList = z
  .string()
  .regex(/^\d+(,\d+)*$/, 'ids with commas between')
  .transform((text) => [...new Set(text.split(',').map(Number))])
  .refine((ids) => ids.length <= MOST_LABELS, `at most ${MOST_LABELS}`);

export const getLabels = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/labels',
  summary: 'Bench labels at real size as PDF; the code on each opens its setting.',
  query: z.object({ ids: idList, units: paperUnits }),
  reply: z.string().meta({ description: 'application/pdf' }),
  handle: async ({ query, origin, units, writing }, { store, network }) => {
    const { ids } = query;
    const summaries = await summariseSettings(store, await findSettings(store, ids));
    if (summaries.length === 0) throw new AppError('notFound', 'none of these settings exists');
    const materials = await findMaterials(store, [...new Set(summaries.map(({ materialId }) => materialId))]);
    const labels = summaries.map((setting) => {
      const material = materials.find(({ id }) => id === setting.materialId);
      const stack = material?.conditions.find(({ id }) => id === setting.conditionId)?.stack ?? [];
      const faceColour = material?.colourHex ?? '#ffffff';
      return {
        setting,
        stack,
        faceColour,
        address: `${lastingOrigin(origin, network)}/settings/${setting.id}`,
      };
    });
    return replyWithPdf(await runTask('labels', { labels, system: units, writing }), 'bench-labels.pdf');
  },
});

export const getCornerPiece = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/settings/{id}/corner-piece',
  summary:
    'A small square and star to check offset and overcut by, as SVG or as a machine file at this setting.',
  params: z.object({ id: idParam }),
  query: z.object({ format: z.enum(['svg', 'machine', 'hpgl']).default('svg') }),
  reply: z.string().meta({ description: 'image/svg+xml or a machine file' }),
  handle: async ({ params, query }, { store }) => {
    const { svg, drawing } = drawCornerPiece();
    if (query.format === 'svg') return replyWithFile(svg, SVG_TYPE, 'corner-piece.svg');
    const { key, revision } = await requireSetting(store, params.id);
    const machine = await findMachine(store, key.machineId);
    const roles = Object.fromEntries(drawing.contours.map((line) => [groupKey(line), 'kiss' as const]));
    const plan = planPasses({
      lines: drawing.contours,
      given: { roles, lineRoles: {} },
      settings: { kiss: revision.values },
      machine: planMachineOf(machine),
      sheetHeightMm: drawing.heightMm,
      choices: PLAIN_CHOICES,
      kicks: 0,
    });
    const file = writeMachineFile(plan.passes, drawing.heightMm, fileOptionsOf(machine));
    return replyWithMachineFile(file, machine.language, 'corner-piece');
  },
});
