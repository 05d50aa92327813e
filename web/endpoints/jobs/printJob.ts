import { z } from 'zod';
import { AppError } from '#core/errors/appError.ts';
import { findJob } from '#store/repositories/jobs/jobs.ts';
import { startTimer } from '#store/repositories/jobs/waits.ts';
import { defineEndpoint } from '#web/http/defineEndpoint.ts';
import { makePrintSheet } from '#web/endpoints/jobs/jobFiles.ts';
import { sheetQuery } from '#web/endpoints/jobs/jobPlan.ts';
import { jobParams } from '#web/endpoints/jobs/jobs.ts';
import { composeTimer } from '#web/endpoints/workshop/waits.ts';
import { sendToPrinter } from '#server/links/printerLink.ts';

export const postPrint = defineEndpoint({
  method: 'POST',
  role: 'operator',
  change: 'outside',
  path: '/api/jobs/{id}/prints',
  summary: 'Prints one sheet of a job on the stand-in printer and starts the wait for its ink.',
  params: jobParams,
  query: sheetQuery,
  reply: z.object({
    trouble: z.string().meta({ description: 'what went wrong with the sheet, or empty' }),
    widthMm: z.number(),
    heightMm: z.number(),
    inkMinutes: z.number(),
  }),
  status: 201,
  handle: async ({ params, query, author, units }, { store, standIns }) => {
    await findJob(store, params.id);
    const port = standIns?.printer?.port;
    if (port === undefined) {
      throw new AppError('deviceUnreachable', 'No printer is linked: download the print sheet and print it.');
    }
    const { job, pdf, material } = await makePrintSheet(store, params.id, query.sheet - 1, units);
    const { trouble, widthMm, heightMm } = await sendToPrinter(port, pdf);
    const timer = await composeTimer(store, 'inkDry', job, material);
    // A spoiled sheet dries for nobody.
    if (trouble === '') await startTimer(store, { ...timer, author }, new Date());
    return { trouble, widthMm, heightMm, inkMinutes: timer.minutes };
  },
});
