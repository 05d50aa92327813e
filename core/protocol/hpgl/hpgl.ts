import { z } from 'zod';
import { writeHpgl } from '#core/protocol/hpgl/writeHpgl.ts';
import { defineLanguage } from '#core/protocol/machineLanguage.ts';

/** HPGL, the pen plotters' language that most cutters read. Nothing comes back from them. */
export const hpgl = defineLanguage({
  id: 'hpgl',
  name: 'HPGL',
  about: 'Most roll-fed and desk cutters. They obey and say nothing back.',
  file: { type: 'application/vnd.hp-hpgl', ending: 'hpgl' },
  options: z.object({
    unitsPerMm: z
      .number('a number of steps')
      .min(10)
      .max(400)
      .default(40)
      .meta({ title: 'Steps in one mm', description: '40 for most machines' }),
  }),
  abilities: () => ({
    force: true,
    speed: true,
    tabs: ['force', 'lift', 'native'],
    seats: true,
    numberedCuts: true,
    pause: false,
    stop: false,
    report: false,
  }),
  write: (program, { unitsPerMm }) => writeHpgl(program, unitsPerMm),
  flow: () => ({ kind: 'stream' }),
  nudge: ({ unitsPerMm }) => [
    { text: `IN;PA;SP1;PU${Math.round(10 * unitsPerMm)},0;PU0,0;SP0;\n`, strokesDone: 0 },
  ],
});
