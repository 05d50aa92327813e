import { z } from 'zod';
import { AppError } from '#core/errors/appError.ts';
import type { Job } from '#core/job/job.ts';
import { composeTestPass } from '#core/job/composeTestPass.ts';
import { runSheetInUnits } from '#core/job/runSheetInUnits.ts';
import { writeMachineFile } from '#core/protocol/machineFile.ts';
import { nameCondition } from '#core/stack/material.ts';
import type { UnitSystem } from '#core/units/length.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { addJob, findJob } from '#store/repositories/jobs/jobs.ts';
import { findMachine, listMachines } from '#store/repositories/book/machines.ts';
import { findMaterialByCondition, listMaterials } from '#store/repositories/book/materials.ts';
import { defineEndpoint } from '#web/http/defineEndpoint.ts';
import { paperUnits, runSheetOf, sheetQuery } from '#web/endpoints/jobs/jobPlan.ts';
import { jobParams } from '#web/endpoints/jobs/jobs.ts';
import { planJob } from '#web/endpoints/jobs/planJob.ts';
import { replyWithFile, replyWithMachineFile, replyWithPdf, SVG_TYPE } from '#web/http/replyWithFile.ts';
import {
  exactPicturesOf,
  withKeptPictures,
  withWholeFiles,
} from '#web/endpoints/jobs/pictures/jobPictures.ts';
import { runTask } from '#web/workers/pool.ts';
import { jobFileSchema, type JobFile } from '#web/schemas/job.ts';

export const getMachineFile = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/jobs/{id}/machine-file',
  summary:
    "One part of one sheet of a job in its machine's language, to download; `pass` alone gives the file of one tool.",
  params: jobParams,
  query: sheetQuery.extend({
    part: z.coerce.number().int().min(1).default(1),
    pass: z.coerce.number().int().min(1).optional(),
  }),
  reply: z.string().meta({ description: 'a machine file' }),
  handle: async ({ params, query }, { store }) => {
    const job = await findJob(store, params.id);
    const { parts, plan, file } = await planJob(store, job, query.sheet - 1);
    if (query.pass !== undefined) {
      const pass = plan.passes[query.pass - 1];
      if (!pass)
        throw new AppError('notFound', `this job has ${plan.passes.length} passes, no pass ${query.pass}`);
      const name = fileName(job, `${query.sheet > 1 ? `sheet-${query.sheet}-` : ''}${pass.role}`);
      return replyWithMachineFile(writeMachineFile([pass], job.sheet.heightMm, file), file.language, name);
    }
    const part = parts[query.part - 1];
    if (!part) throw new AppError('notFound', `this job has ${parts.length} parts, no part ${query.part}`);
    const suffix = [
      query.sheet > 1 ? `sheet-${query.sheet}` : '',
      parts.length > 1 ? `part-${query.part}` : '',
    ].filter(Boolean);
    const name = fileName(job, suffix.join('-'));
    return replyWithMachineFile(writeMachineFile(part.passes, job.sheet.heightMm, file), file.language, name);
  },
});

export const getTestPiece = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/jobs/{id}/test-piece',
  summary:
    'Test pieces with the values of every blade pass, in the corner that the job keeps free, as a machine file.',
  params: jobParams,
  query: sheetQuery,
  reply: z.string().meta({ description: 'a machine file' }),
  handle: async ({ params, query }, { store }) => {
    const job = await findJob(store, params.id);
    const { plan, facts, file } = await planJob(store, job, query.sheet - 1);
    if (!facts.testCorner) throw new AppError('notFound', 'this job keeps no corner free for a test cut');
    const passes = composeTestPass(plan.passes, facts.testCorner);
    const text = writeMachineFile(passes, job.sheet.heightMm, file);
    return replyWithMachineFile(text, file.language, fileName(job, 'test-piece'));
  },
});

export const getLayered = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/jobs/{id}/layers',
  summary: 'One sheet of a job as SVG or DXF with a layer for each role.',
  params: jobParams,
  query: sheetQuery.extend({ format: z.enum(['svg', 'dxf']).default('svg') }),
  reply: z.string().meta({ description: 'SVG or DXF' }),
  handle: async ({ params, query }, { store, signal }) => {
    const job = await findJob(store, params.id);
    const machine = await findMachine(store, job.machineId);
    const { format } = query;
    const text = await runTask('layers', { job, machine, sheetIndex: query.sheet - 1, format }, { signal });
    const name = `${fileName(job, query.sheet > 1 ? `sheet-${query.sheet}` : '')}.${query.format}`;
    return replyWithFile(text, format === 'svg' ? SVG_TYPE : 'image/vnd.dxf', name);
  },
});

export const getPrintSheet = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/jobs/{id}/print-sheet',
  summary: 'One sheet of a job to print: art, bleed and marks at real size, as PDF.',
  params: jobParams,
  query: sheetQuery.extend({ units: paperUnits }),
  reply: z.string().meta({ description: 'application/pdf' }),
  handle: async ({ params, query, units }, { store }) => {
    const { job, pdf } = await makePrintSheet(store, params.id, query.sheet - 1, units);
    return replyWithPdf(pdf, `${fileName(job, 'print')}.pdf`);
  },
});

export const getMarksPage = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/jobs/{id}/marks-page',
  summary:
    'One sheet of a job with its registration marks alone, at real size, to lay art on in another program: SVG with the cut lines in a layer of their own, PDF, or PNG at 300 dpi.',
  params: jobParams,
  query: sheetQuery.extend({ format: z.enum(['svg', 'pdf', 'png']).default('svg'), units: paperUnits }),
  reply: z.string().meta({ description: 'SVG, PDF or PNG' }),
  handle: async ({ params, query, units }, { store, signal }) => {
    const { format } = query;
    const sheetIndex = query.sheet - 1;
    const job = await findJob(store, params.id);
    const machine = await findMachine(store, job.machineId);
    const marked = { ...job, print: { ...job.print, hasMarks: true } };
    const name = `${fileName(job, 'marks')}.${format}`;
    if (format === 'pdf') {
      const words = 'Print at 100 %, this size of page.';
      const order = {
        job: marked,
        machine,
        sheetIndex,
        words,
        isBare: true,
        pictures: new Map(),
        system: units,
      };
      return replyWithPdf(await runTask('printSheet', order, { signal }), name);
    }
    const page = await runTask('marksPage', { job: marked, machine, sheetIndex, format }, { signal });
    return replyWithFile(page, format === 'svg' ? SVG_TYPE : 'image/png', name);
  },
});

export const getRunSheet = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/jobs/{id}/run-sheet',
  summary: 'What to load, set, check and do, in order, to print and tick, as PDF.',
  params: jobParams,
  query: sheetQuery.extend({ units: paperUnits }),
  reply: z.string().meta({ description: 'application/pdf' }),
  handle: async ({ params, query, units, writing }, { store }) => {
    const job = await findJob(store, params.id);
    const planned = await planJob(store, job, query.sheet - 1);
    const sheet = runSheetInUnits(runSheetOf(job, planned, query.sheet), units, writing);
    return replyWithPdf(
      await runTask('runSheet', { sheet, system: units }),
      `${fileName(job, 'run-sheet')}.pdf`,
    );
  },
});

export const getJobFile = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/jobs/{id}/file',
  summary: 'The whole job as JSON, to keep or to open elsewhere.',
  params: jobParams,
  reply: jobFileSchema,
  handle: async ({ params }, { store }) => {
    const job = await findJob(store, params.id);
    const machine = await findMachine(store, job.machineId);
    const { material, condition } = await findMaterialByCondition(store, job.conditionId);
    const {
      id: _id,
      conditionId: _condition,
      machineId: _machine,
      version: _version,
      updatedAt: _at,
      ...slim
    } = job;
    const design = await withWholeFiles(store, slim);
    const file: JobFile = {
      kind: 'paleFeatherJob',
      version: 1,
      ...design,
      machine: machine.name,
      material: material.name,
      state: condition.kind,
    };
    return replyWithFile(JSON.stringify(file, null, 1), 'application/json', `${fileName(job, 'job')}.json`);
  },
});

export const postJobFile = defineEndpoint({
  method: 'POST',
  role: 'operator',
  path: '/api/jobs/file',
  summary: 'Opens a job that was kept as JSON. Its machine and material must be in the book.',
  body: jobFileSchema,
  maxBytes: 64_000_000,
  reply: z.object({ id: z.number() }),
  status: 201,
  handle: async ({ body }, { store }) => {
    const { kind: _kind, version: _version, machine, material, state, ...design } = body;
    const [machines, materials] = await Promise.all([listMachines(store, true), listMaterials(store, true)]);
    const foundMachine = machines.find(({ name }) => name === machine);
    const foundMaterial = materials.find(({ name }) => name === material);
    const condition = foundMaterial?.conditions.find((one) => one.kind === state);
    if (!foundMachine) throw new AppError('badInput', `the machine "${machine}" is not kept here`);
    if (!condition) throw new AppError('badInput', `"${material}", ${state}, is not kept here`);
    await runTask('checkDrawing', design);
    const kept = await withKeptPictures(store, design);
    const job = { ...kept, conditionId: condition.id, machineId: foundMachine.id };
    return { id: await addJob(store, job, new Date()) };
  },
});

/** Many large pictures are packed into one file. */
const PRINT_SECONDS = 120;

/** The print sheet of a job as a PDF. */
export async function makePrintSheet(store: Store, jobId: number, sheetIndex: number, system: UnitSystem) {
  const job = await findJob(store, jobId);
  const machine = await findMachine(store, job.machineId);
  const { material, condition } = await findMaterialByCondition(store, job.conditionId);
  const side = material.details.printSide === 'top' ? 'Print on the face.' : '';
  const words = `${nameCondition(material.name, condition.kind)} · print at 100 %, best quality, this size of page. ${side}`;
  const pictures = await exactPicturesOf(store, job);
  const order = { job, machine, sheetIndex, words, pictures, system };
  const pdf = await runTask('printSheet', order, { seconds: PRINT_SECONDS });
  return { job, pdf, material };
}

function fileName(job: Job, suffix: string): string {
  const name = job.name.replace(/[^a-z0-9]+/gi, '-').replace(/^-|-$/g, '') || 'job';
  return suffix ? `${name}-${suffix}` : name;
}
