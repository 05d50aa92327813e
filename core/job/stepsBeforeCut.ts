import { pageOf } from '#core/sheet/sheetSize.ts';
import type { Job } from '#core/job/job.ts';
import { figureOfMinutes, makeSection, makeStep, type RunSection, type RunStep } from '#core/job/runStep.ts';
import { placeCheckLine } from '#core/sheet/checkLine.ts';
import { listMarks } from '#core/sheet/marks/marks.ts';
import { placeOfWait, type Wait } from '#core/prep/waits.ts';
import type { LoadedSheet, Station } from '#core/station/station.ts';

/** What the steps before the cut are told from. */
export interface BeforeCut {
  readonly job: Job;
  readonly station: Pick<Station, 'machine'>;
  readonly sheet: LoadedSheet;
  readonly hasArt: boolean;
  /** All that the sheet waits for, in their order. */
  readonly waits: readonly Wait[];
}

/**
 * Printing, and what follows it before the sheet is loaded: drying, sealing, laminating, a look at the print. Each only
 * where it applies.
 *
 * @example stepsBeforeCut({ job, station, sheet: station.loaded, hasArt: false, waits: [] }) // []
 */
export function stepsBeforeCut(order: BeforeCut): readonly RunSection[] {
  return [
    ...makeSection('Prepare', prepareSteps(order)),
    ...(order.hasArt ? printSection(order) : []),
    ...dryingSections(order),
    ...makeSection('Look at the print', order.hasArt ? lookSteps(order) : []),
  ];
}

function prepareSteps({ waits }: BeforeCut): readonly RunStep[] {
  return waits
    .filter(({ kind }) => kind === 'conditioning')
    .map(({ minutes, reason }) =>
      makeStep('Leave the card in the room.', reason, [figureOfMinutes(minutes)]),
    );
}

function printSection({ job, sheet }: BeforeCut): readonly RunSection[] {
  const { details } = sheet.material;
  const { bleedMm, hasMarks } = job.print;
  const side = { top: 'on the face', either: 'on either side', none: '' }[details.printSide];
  return makeSection('Print', [
    ...(details.isMirrored
      ? [makeStep('Mirror the print.', 'it is laid on face down: unmirrored, words read backwards')]
      : []),
    makeStep(
      `Set the page to ${wordPage(job.sheet)}, and switch off any fitting to the page.`,
      'a page that is fitted is shrunk',
    ),
    ...(side === 'on the face'
      ? [
          makeStep(
            'Lay the sheet in its tray so that the face is printed: most trays below turn it over, most behind do not.',
            'printed on the wrong side it is spent',
          ),
        ]
      : []),
    makeStep(
      `Print the print sheet at 100 %, best quality${side ? `, ${side}` : ''}.`,
      'any other scale moves the cut against the print',
    ),
    ...(bleedMm > 0
      ? [
          makeStep(
            `Ink runs up to ${bleedMm} mm over the cut lines: leave it.`,
            'it hides what print and cut lie apart',
          ),
        ]
      : []),
    ...(hasMarks
      ? [
          makeStep(
            'Check that every mark is whole, with nothing printed beside it.',
            'the sensor needs them clear',
          ),
        ]
      : []),
  ]);
}

/** "A4, 210 × 297 mm"; a size whose name is its figures stands alone. */
function wordPage({ name, widthMm, heightMm }: Job['sheet']): string {
  const size = `${Number(widthMm.toFixed(1))} × ${Number(heightMm.toFixed(1))} mm`;
  return /\d\s*×/.test(name) ? size : `${name}, ${size}`;
}

/** Drying, sealing and laminating, in the order of the waits. */
function dryingSections({ waits, sheet, hasArt, job }: BeforeCut): readonly RunSection[] {
  const before = waits.filter(({ kind }) => placeOfWait(kind) === 'cut' && kind !== 'conditioning');
  const isLaminated = sheet.condition.kind === 'laminated';
  const dry = before.filter(({ kind }) => kind === 'inkDry');
  const seal = before.filter(({ kind }) => kind === 'sealerCoat' || kind === 'sealerCures');
  const settles = before.find(({ kind }) => kind === 'laminateSettles');
  const drying = dry.map(({ minutes, reason }) =>
    makeStep('Let the ink dry to the touch.', reason, [figureOfMinutes(minutes)]),
  );
  const untold = hasArt && drying.length === 0;
  return [
    ...makeSection('Dry', [
      ...drying,
      ...(untold
        ? [makeStep('Let the ink dry to the touch.', 'wet ink drags and the rollers print it on')]
        : []),
    ]),
    ...makeSection('Seal', seal.map(sealStep)),
    ...makeSection('Laminate', isLaminated ? laminateSteps(settles, job.print.hasMarks) : []),
  ];
}

function sealStep({ kind, minutes, reason }: Wait): RunStep {
  return kind === 'sealerCoat'
    ? makeStep('Spray a light coat of sealer, out of doors or under extraction, and let it dry.', reason, [
        figureOfMinutes(minutes),
      ])
    : makeStep('Spray the last light coat, and let it cure before anything is cut.', reason, [
        figureOfMinutes(minutes),
      ]);
}

function laminateSteps(settles: Wait | undefined, hasMarks: boolean): readonly RunStep[] {
  return [
    makeStep(
      'Peel a narrow strip of the laminate’s backing and lay it on the top edge.',
      'it holds the film straight',
    ),
    makeStep(
      'Squeegee down while you pull the backing out, from the middle outwards: no bubbles.',
      'air under the film lifts it from the blade',
    ),
    ...(hasMarks
      ? [makeStep('Cover every mark whole, and never trim one off.', 'half covered, the sensor misses it')]
      : []),
    ...(settles
      ? [makeStep('Let the film settle.', settles.reason, [figureOfMinutes(settles.minutes)])]
      : []),
  ];
}

function lookSteps({ sheet, job, station }: BeforeCut): readonly RunStep[] {
  const words = sheet.material.details.isMirrored
    ? 'Colours are whole, nothing is smeared, and the print is mirrored.'
    : 'Colours are whole and nothing is smeared.';
  const marks = job.print.hasMarks ? listMarks(station.machine.marks, job.sheet) : [];
  const line = placeCheckLine(job.sheet, marks);
  return [
    makeStep(words, 'a bad print is cheaper to throw away now than after the cut'),
    ...(line
      ? [
          makeStep(
            `Measure the line at the lower edge: it is ${line.lengthMm} mm long.`,
            'a print of another scale shows here before it shows in the cut',
          ),
        ]
      : []),
    ...(job.sheet.isStarted
      ? [
          makeStep(
            `Cut the used end off, ${Math.round(pageOf(job.sheet).downMm)} mm, with the marks that are left there.`,
            'the sensor may take old marks for those of this job, and what was peeled lifts',
          ),
        ]
      : []),
  ];
}
