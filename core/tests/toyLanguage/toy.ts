import { z } from 'zod';
import { placePoint } from '#core/program/cutProgram.ts';
import { defineLanguage, type Block } from '#core/protocol/machineLanguage.ts';

/** Only for tests: a language for a machine that wants to be asked nicely. */
export const toy = defineLanguage({
  id: 'toy',
  name: 'Toy',
  about: 'Machines that answer thanks.',
  file: { type: 'text/plain', ending: 'toy' },
  options: z.object({
    please: z.boolean().default(true).meta({ title: 'It wants to be asked nicely', description: '' }),
  }),
  abilities: () => ({
    force: true,
    speed: false,
    tabs: ['lift'],
    seats: false,
    numberedCuts: false,
    pause: false,
    stop: true,
    report: true,
  }),
  write: (program, { please }) => {
    const ask = (words: string) => `${please ? 'please ' : ''}${words}\n`;
    let strokesDone = 0;
    const blocks = program.passes.flatMap(({ values, strokes }): readonly Block[] => [
      { text: ask(`press ${values.force}`), strokesDone },
      ...strokes.map(({ points }) => {
        const spots = points.map((point) => placePoint(point, program)).map(({ x, y }) => `${x} ${y}`);
        strokesDone += 1;
        return { text: ask(`draw ${spots.join(' ')}`), strokesDone };
      }),
    ]);
    return [...blocks, { text: ask('rest'), strokesDone }];
  },
  flow: () => ({
    kind: 'answered',
    hear: (line) => (line === 'thanks' ? { kind: 'done' } : { kind: 'noise' }),
    pause: '',
    resume: '',
    stop: '#',
    ask: '',
  }),
  nudge: () => [{ text: 'please wave\n', strokesDone: 0 }],
});
