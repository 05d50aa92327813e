import { z } from 'zod';

/** One printable character, or the code of a control character. */
const realTime = (fallback: string, title: string, description: string) =>
  z
    .string()
    .regex(/^([!-~]|\d{1,3})?$/, 'one character, or the number of a control character')
    .refine((text) => !/^\d+$/.test(text) || Number(text) < 128, 'at most 127')
    .default(fallback)
    .meta({ title, description, isRare: true });

/** What differs from one machine that speaks G-code to the next. */
export const gcodeOptions = z.object({
  tool: z.enum(['force', 'height']).default('force').meta({
    title: 'The tool comes down by',
    description: 'force: an S word sets how hard it presses · height: Z moves it, a spring presses',
  }),
  upMm: z
    .number('a number of mm')
    .min(-100)
    .max(100)
    .default(3)
    .meta({ title: 'Height when up, mm', description: 'above the sheet', when: { tool: 'height' } }),
  downMm: z
    .number('a number of mm')
    .min(-100)
    .max(100)
    .default(-1)
    .meta({ title: 'Height when down, mm', description: 'below its face', when: { tool: 'height' } }),
  plungeMmPerMin: z
    .number('a number of mm/min')
    .min(10)
    .max(20_000)
    .default(600)
    .meta({ title: 'Speed down, mm/min', description: 'until it is down', when: { tool: 'height' } }),
  settleSeconds: z
    .number('a number of seconds')
    .min(0)
    .max(5)
    .default(0.1)
    .meta({ title: 'Wait after up and down, s', description: 'until the tool has come to rest' }),
  changesTools: z.boolean().default(false).meta({
    title: 'It changes tools by itself',
    description: 'T and M6; otherwise the run stops for hands',
  }),
  pause: realTime('!', 'Pause', 'obeyed at once: a character, or its number'),
  resume: realTime('~', 'Go on', 'obeyed at once'),
  stop: realTime('24', 'Stop', 'obeyed at once; 24 is the control character for cancel'),
  ask: realTime('?', 'Sign of life', 'asked for now and then; empty if the machine knows no such question'),
});
export type GcodeOptions = z.output<typeof gcodeOptions>;

/** The character itself. @example characterOf('24') // '\u0018' */
export function characterOf(text: string): string {
  return /^\d+$/.test(text) ? String.fromCharCode(Number(text)) : text;
}
