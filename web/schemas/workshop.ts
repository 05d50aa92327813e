import { z } from 'zod';

export const operatorSchema = z.object({ id: z.number(), name: z.string(), isPutAway: z.boolean() });

export const newOperatorSchema = z.object({
  name: z.string().trim().min(1, 'a name').max(60, 'at most 60 characters'),
});

export const workshopSchema = z.object({
  timeZone: z
    .string()
    .meta({ description: 'of log, day, waits and calendars: an IANA name such as Europe/Berlin' }),
  people: z.array(operatorSchema).readonly(),
});
export type WorkshopReply = z.infer<typeof workshopSchema>;

export const workshopChangeSchema = z.object({ timeZone: z.string().max(60) });
