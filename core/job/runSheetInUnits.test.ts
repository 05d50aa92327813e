import { expect, it } from 'vitest';
import { makeStep } from '#core/job/runStep.ts';
import { runSheetInUnits } from '#core/job/runSheetInUnits.ts';

const sheet = {
  title: 'Tags of 30 mm, sheet 1 of 2',
  subtitle: 'Grey board 2 mm on Bed of 600 mm · A5, 148 × 210 mm',
  sections: [
    {
      heading: 'Load',
      steps: [
        makeStep('Load it to here: the line at 12 mm.', 'every load begins at the same place'),
        makeStep('Blade 4, 45° fine, sits in the holder.', 'it has cut 205 of about 360 m'),
      ],
    },
    {
      heading: 'Cut',
      steps: [
        makeStep('Set the exposure by hand: ¾ turn from flush.', 'no file carries it', [
          ['0.35', 'mm exposure'],
        ]),
        makeStep('Cut through with the front tool.', 'dial these at the panel', [
          ['120', 'gf'],
          ['100', 'mm/s'],
          ['2', 'passes'],
          ['12', 'mm cut'],
        ]),
      ],
    },
  ],
  cautions: ['Keep 5 mm clear of the edge.'],
  ownWords: ['Tags of 30 mm', 'Grey board 2 mm', 'Bed of 600 mm', 'the line at 12 mm'],
};

it('is in inches but for what people typed, and a speed stays as the panel has it', () => {
  const inch = runSheetInUnits(sheet, 'inch');
  expect(inch.title).toBe('Tags of 30 mm, sheet 1 of 2');
  expect(inch.subtitle).toBe('Grey board 2 mm on Bed of 600 mm · A5, 5.8 × 8.3 in');
  expect(inch.sections[0]!.steps.map(({ words, reason }) => [words, reason])).toEqual([
    ['Load it to here: the line at 12 mm.', 'every load begins at the same place'],
    ['Blade 4, 45° fine, sits in the holder.', 'it has cut 673 of about 1181 ft'],
  ]);
  expect(inch.sections[1]!.steps.map(({ figures }) => figures)).toEqual([
    [['0.0138', 'in exposure']],
    [
      ['120', 'gf'],
      ['100', 'mm/s'],
      ['2', 'passes'],
      ['0.47', 'in cut'],
    ],
  ]);
  expect(inch.cautions).toEqual(['Keep 0.2 in clear of the edge.']);
});

it('has its decimals as the bench writes them, but for what people typed', () => {
  const named = {
    ...sheet,
    title: 'Board 1.5 mm',
    cautions: ['Board 1.5 mm is 1.5 mm thick.'],
    ownWords: ['Board 1.5 mm'],
  };
  const written = runSheetInUnits(named, 'metric', { mark: ',', isMonthFirst: false });
  expect(written.title).toBe('Board 1.5 mm');
  expect(written.cautions).toEqual(['Board 1.5 mm is 1,5 mm thick.']);
  expect(written.sections[1]!.steps[0]!.figures).toEqual([['0,35', 'mm exposure']]);
});

it('is as it was where the bench counts in mm', () => {
  expect(runSheetInUnits(sheet, 'metric')).toBe(sheet);
});
