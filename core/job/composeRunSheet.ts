import type { Carried } from '#core/station/machine.ts';
import { carriedOf } from '#core/protocol/findLanguage.ts';
import type { Job } from '#core/job/job.ts';
import type { Pass } from '#core/passes/plan.ts';
import type { Part } from '#core/passes/splitParts.ts';
import { nameCondition } from '#core/stack/material.ts';
import { FREEING_ROLES } from '#core/drawing/roles/lineRoles.ts';
import type { LoadedSheet, Station } from '#core/station/station.ts';
import { describeExposure } from '#core/units/depthScale.ts';
import { forceUnit } from '#core/units/forceScale.ts';

/** One thing to do, and why where that is not plain. */
export interface RunStep {
  readonly words: string;
  readonly reason: string;
  /** Big figures to set, with their units. */
  readonly figures: readonly (readonly [figure: string, unit: string])[];
}

/** A run sheet: steps under headings, in the order of the work. */
export interface RunSheet {
  readonly title: string;
  readonly subtitle: string;
  readonly sections: readonly { readonly heading: string; readonly steps: readonly RunStep[] }[];
  readonly cautions: readonly string[];
}

/** What the sheet is composed from. */
export interface RunSheetOrder {
  readonly job: Job;
  readonly station: Station;
  readonly sheet: LoadedSheet;
  readonly parts: readonly Part[];
  readonly sheetNumber: number;
  readonly sheetCount: number;
  readonly hasArt: boolean;
  readonly assumed: readonly string[];
}

const step = (words: string, reason = '', figures: RunStep['figures'] = []): RunStep => ({
  words,
  reason,
  figures,
});

/**
 * What to load, set, check and do for one sheet, in plain words.
 *
 * @example composeRunSheet({ job: { ...job, name: 'Gulls' }, station, sheet: station.loaded, parts: [], sheetNumber: 2, sheetCount: 3, hasArt: false, assumed: [] }).title // 'Gulls, sheet 2 of 3'
 */
export function composeRunSheet(order: RunSheetOrder): RunSheet {
  const { job, station, sheet, sheetNumber, sheetCount, parts } = order;
  const { widthMm, heightMm, name } = job.sheet;
  const count = sheetCount > 1 ? `, sheet ${sheetNumber} of ${sheetCount}` : '';
  return {
    title: job.name + count,
    subtitle: `${nameCondition(sheet.material.name, sheet.condition.kind)} on ${station.machine.name} · ${name}, ${Math.round(widthMm)} × ${Math.round(heightMm)} mm`,
    sections: [
      ...(order.hasArt ? [{ heading: 'Print', steps: printSteps(order) }] : []),
      { heading: 'Load', steps: loadSteps(order) },
      ...parts.map((part, index) => ({
        heading: parts.length > 1 ? `Cut, part ${index + 1} of ${parts.length}` : 'Cut',
        steps: partSteps(part, order),
      })),
      { heading: 'Unload', steps: unloadSteps(order) },
    ],
    cautions: listCautions(order),
  };
}

function printSteps({ job, sheet }: RunSheetOrder): readonly RunStep[] {
  const { details } = sheet.material;
  const { bleedMm, hasMarks } = job.print;
  const side = details.printSide === 'top' ? ', on the face' : '';
  return [
    step(
      `Print the print sheet at 100 %, best quality${side}.`,
      'any other scale moves the cut against the print',
    ),
    ...(bleedMm > 0
      ? [
          step(
            `Ink runs ${bleedMm} mm over the cut lines: leave it.`,
            'it hides what print and cut lie apart',
          ),
        ]
      : []),
    ...(hasMarks
      ? [
          step(
            'Check that every mark is whole, with nothing printed beside it.',
            'the sensor needs them clear',
          ),
        ]
      : []),
    step('Let the ink dry to the touch.', 'wet ink drags and the rollers print it on'),
  ];
}

function placeOnMat({ matLeftMm = 0, matBottomMm = 0 }: Job['sheet']): string {
  return matLeftMm === 0 && matBottomMm === 0
    ? 'in the corner of'
    : `${matLeftMm} mm from the left and ${matBottomMm} mm from the lower edge of`;
}

function loadSteps({ job, station, sheet }: RunSheetOrder): readonly RunStep[] {
  const { machine, mat, blade } = station;
  const isMat = machine.kind === 'matFed';
  const fibre = sheet.material.details.fibre;
  return [
    isMat
      ? step(
          `Lay the sheet square ${placeOnMat(job.sheet)} ${mat ? `mat ${mat.number}` : 'a mat'} and roll it down hard.`,
          'what lifts is dragged',
        )
      : step('Feed the sheet straight under the pinch rollers.', 'a skewed sheet walks sideways'),
    ...(job.sheet.widthMm > job.sheet.heightMm
      ? [step('The sheet lies landscape: watch it.', 'portrait sheets read and feed better')]
      : []),
    ...(fibre === 'unknown'
      ? []
      : [step(`The fibres run along its ${fibre} edge: keep it so.`, 'creases and cuts across them tear')]),
    step(
      blade
        ? `Blade ${blade.number}, ${blade.kind}, sits in the holder.`
        : 'Fit the blade that the settings are for.',
      blade ? `it has cut ${Math.round(blade.travelMetres)} of about ${Math.round(blade.lifeMetres)} m` : '',
    ),
    ...(job.print.keepsTestCorner
      ? [
          step(
            'Cut the test piece in the free corner and look at it first.',
            'a test costs a corner, not the sheet; on a printed sheet it lies on a patch of ink',
          ),
        ]
      : []),
  ];
}

function partSteps(part: Part, { station, job }: RunSheetOrder): readonly RunStep[] {
  const { machine } = station;
  const carries = carriedOf(machine);
  const unit = forceUnit(machine.forceScale);
  return [
    ...(part.before ? [step(`${part.before}.`, 'the machine waits for it')] : []),
    ...(part.setsExposure
      ? [
          step(
            `Set the exposure by hand: ${describeExposure(part.exposureMm, machine.depthScale)}.`,
            'no file carries it',
            [[part.exposureMm.toFixed(2), 'mm exposure']],
          ),
        ]
      : []),
    ...(job.print.hasMarks ? [step('Have the machine read the marks.', 'the cut follows the print')] : []),
    ...part.passes.flatMap((pass) => passSteps(pass, unit, machine.speedScale.unit, carries)),
  ];
}

function passSteps(pass: Pass, unit: string, speedUnit: string, carries: Carried): readonly RunStep[] {
  const { values, role, perforation } = pass;
  const figures: (readonly [string, string])[] = [
    [String(values.force), unit],
    [String(values.speed), speedUnit],
    [String(values.passes), values.passes === 1 ? 'pass' : 'passes'],
  ];
  if (role === 'perforated') {
    figures.push([String(values.cutLengthMm ?? ''), 'mm cut'], [String(values.tabLengthMm ?? ''), 'mm tab']);
    if (values.tabForce !== undefined) figures.push([String(values.tabForce), `${unit} on tabs`]);
  }
  const tabs = perforation ? `, ${perforation.tabs} tabs` : '';
  const verb = {
    crease: 'Crease',
    score: 'Score',
    kiss: 'Kiss',
    slit: 'Slit',
    perforated: 'Perforate',
    through: 'Cut through',
  }[role];
  return [
    step(`${verb} with the ${pass.seatName} tool${tabs}.`, whoSets(carries), figures),
    step(pass.lookAfter, 'the same path can be repeated only while the sheet has not moved'),
  ];
}

/** Whose numbers count, in words: never silently both. */
function whoSets({ force, speed }: Carried): string {
  if (force && speed) return 'the file carries force and speed: leave the panel alone';
  if (!force && !speed) return 'dial these at the panel';
  return force
    ? 'dial the speed; the file carries the force'
    : 'set the force by hand; the file carries the speed';
}

function unloadSteps({ station, parts }: RunSheetOrder): readonly RunStep[] {
  const frees = parts.some(({ passes }) => passes.some(({ role }) => FREEING_ROLES.has(role)));
  return [
    station.machine.kind === 'matFed'
      ? step('Turn the mat over and peel the mat from the sheet.', 'peeling the sheet curls and tears it')
      : step('Let the sheet run out and take it at both sides.'),
    ...(frees
      ? [step('Push the pieces out lightly with a thumb.', 'note how they held: it sets the next tabs')]
      : []),
    step('Note how many are good and what to change.', 'the settings learn from it'),
  ];
}

function listCautions({ sheet, station, assumed }: RunSheetOrder): readonly string[] {
  return [
    'Power off or retract before you touch the holder; never feel the tip with a finger.',
    'Hands, hair and cords stay clear of the moving carriage.',
    ...sheet.material.cautions,
    ...(station.blade && station.blade.travelMetres > 0.9 * station.blade.lifeMetres
      ? ['The blade is near its end: look at the first cut twice.']
      : []),
    ...assumed,
  ];
}
