import { z } from 'zod';
import { layOutDay } from '#core/prep/dayPlan.ts';
import { stepsOfJob } from '#core/prep/stepsOfJob.ts';
import { factsOf } from '#core/stack/families/families.ts';
import { momentAt } from '#core/time/workshopTime.ts';
import { nameCondition } from '#core/stack/material.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { findDay, keepDay } from '#store/repositories/jobs/days.ts';
import { findJob } from '#store/repositories/jobs/jobs.ts';
import { defineEndpoint, idParam } from '#web/http/defineEndpoint.ts';
import { planJob } from '#web/endpoints/jobs/planJob.ts';
import { workshopZone } from '#web/http/workshopZone.ts';
import { replyWithFile } from '#web/http/replyWithFile.ts';
import { readWaitRoute } from '#web/endpoints/workshop/waits.ts';
import { CALENDAR_TYPE, writeCalendar } from '#web/endpoints/workshop/writeCalendar.ts';
import { dayChangeSchema, dayJobSchema, daySchema } from '#web/schemas/day.ts';

const params = z.object({ day: z.iso.date() });
/** Minutes that changing material or blade takes. Common practice, no source. */
export const CHANGE_MINUTES = 6;

export const getDay = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/days/{day}',
  summary: 'A planned day: its jobs with their steps, and the order in which they are taken.',
  params,
  reply: daySchema,
  handle: ({ params: { day } }, { store }) => findDay(store, day),
});

export const putDay = defineEndpoint({
  method: 'PUT',
  role: 'operator',
  path: '/api/days/{day}',
  summary: 'Keeps a day, unless somebody else planned it meanwhile.',
  params,
  body: dayChangeSchema,
  maxBytes: 512 * 1024,
  reply: daySchema,
  handle: async ({ params: { day }, body }, { store }) => {
    const { version, ...plan } = body;
    await keepDay(store, { day, ...plan }, version, new Date());
    return findDay(store, day);
  },
});

export const getJobSteps = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/jobs/{id}/day-steps',
  summary: 'The steps a job takes on a day: print, waits, cut, finish, with their minutes.',
  params: z.object({ id: idParam }),
  reply: dayJobSchema,
  handle: ({ params: { id } }, { store }) => describeSteps(store, id),
});

export const getDayCalendar = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/days/{day}/calendar.ics',
  summary: 'A planned day as a calendar file.',
  params,
  reply: z.string().meta({ description: 'text/calendar' }),
  handle: async ({ params: { day } }, { store }) => {
    const { jobs, sequence, beginsAt } = await findDay(store, day);
    const plan = layOutDay({ jobs, changeMinutes: CHANGE_MINUTES, now: 0, setUps: {} }, sequence);
    // Work goes on by the hour from when the clock on the wall shows its beginning.
    const begins = momentAt(day, beginsAt, await workshopZone(store)).getTime();
    const at = (minutes: number) => new Date(begins + minutes * 60_000);
    const events = plan.steps.flatMap(({ jobIndex, stepIndex, from, to }) => {
      const job = jobs[jobIndex];
      const step = job?.steps[stepIndex];
      if (!job || !step) return [];
      const words = `${job.words}: ${step.words}${step.place ? ` (${step.place})` : ''}`;
      return [{ id: `${day}-${step.id}`, words, from: at(from), to: at(to), hasAlarm: step.place === null }];
    });
    return replyWithFile(writeCalendar(day, events), CALENDAR_TYPE, `day-${day}.ics`);
  },
});

/** A press where nobody said how long. Common practice, no source. */
const USUAL_PRESS_SECONDS = 15;

async function describeSteps(store: Store, jobId: number) {
  const job = await findJob(store, jobId);
  const { plan, station, sheet, facts } = await planJob(store, job);
  const { material, condition } = sheet;
  const { isPrinted, sheetCount } = facts;
  const waits = await readWaitRoute(store, sheet, isPrinted);
  const name = nameCondition(material.name, condition.kind);
  return {
    id: `job-${job.id}`,
    words: job.name,
    steps: stepsOfJob({
      id: job.id,
      sheets: sheetCount,
      isPrinted,
      machineName: station.machine.name,
      setUp: `${name}, ${station.blade?.kind ?? 'no blade'}`,
      cutSeconds: plan.seconds,
      waits,
      isLaminated: condition.kind === 'laminated',
      pressSeconds: factsOf(material.family).isPressedOn
        ? (material.details.heat?.seconds ?? USUAL_PRESS_SECONDS)
        : undefined,
    }),
  };
}
