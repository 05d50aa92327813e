import { z } from 'zod';
import { CARD_CORNERS } from '#core/sheet/marks/registrationCard.ts';
import { MOST_SHIFT_MM } from '#core/sheet/marks/registration.ts';
import { pointSchema } from '#web/schemas/plan.ts';

const shift = z.number('a number of mm').min(-MOST_SHIFT_MM).max(MOST_SHIFT_MM);

/** What was read at each corner of a card, mm. */
export const cardReadingSchema = z.record(z.enum(CARD_CORNERS), z.object({ x: shift, y: shift }));

export const registrationSchema = z.object({
  sheets: z
    .array(
      z.object({
        id: z.number(),
        shift: pointSchema,
        rotationRad: z.number(),
        scale: z.number(),
        restMm: z.number(),
        author: z.string(),
        at: z.string(),
      }),
    )
    .readonly(),
  isCorrected: z.boolean(),
  error: z.object({
    meanXMm: z.number(),
    meanYMm: z.number(),
    sdMm: z.number(),
    source: z.enum(['measured', 'habit']),
  }),
});
export type RegistrationReply = z.infer<typeof registrationSchema>;
