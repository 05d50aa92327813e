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
  harmCuts: z.number().meta({ description: 'what a cut liner or a scarred mat costs, in test cuts' }),
});
export type WorkshopReply = z.infer<typeof workshopSchema>;

export const workshopChangeSchema = z.object({
  timeZone: z.string().max(60).optional(),
  harmCuts: z.number().min(0, 'not below 0').max(50, 'at most 50 test cuts').optional(),
});
