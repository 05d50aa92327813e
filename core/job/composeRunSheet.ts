import type { Carried } from '#core/station/machine.ts';
import { carriedOf, panelCutsOf } from '#core/protocol/findLanguage.ts';
import type { Job } from '#core/job/job.ts';
import type { Pass } from '#core/passes/plan.ts';
import type { Part } from '#core/passes/splitParts.ts';
import { adviseHold } from '#core/station/adviseHold.ts';
import { dialOnceSteps } from '#core/job/dialOnceSteps.ts';
import { makeStep, type RunSection, type RunStep } from '#core/job/runStep.ts';
import { stepsAfterCut } from '#core/job/stepsAfterCut.ts';
import { stepsBeforeCut } from '#core/job/stepsBeforeCut.ts';
import type { Wait } from '#core/prep/waits.ts';
import { pageOf } from '#core/sheet/sheetSize.ts';
import { glareOf } from '#core/stack/glare.ts';
import { nameCondition } from '#core/stack/material.ts';
import type { LoadedSheet, Station } from '#core/station/station.ts';
import { describeExposure } from '#core/units/depthScale.ts';
import { forceUnit } from '#core/units/forceScale.ts';

/** A run sheet: steps under headings, in the order of the work. */
export interface RunSheet {
  readonly title: string;
  readonly subtitle: string;
  readonly sections: readonly RunSection[];
  readonly cautions: readonly string[];
  /** What people typed: names, and where a sheet is loaded to. It is not put into other units. */
  readonly ownWords: readonly string[];
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
  /** How many passes come before the sheet is printed on this machine; `null` or 0 where it is printed first. */
  readonly printAfter: number | null;
  /** All that the sheet waits for, in their order. */
  readonly waits: readonly Wait[];
  readonly assumed: readonly string[];
}

/**
 * What to load, set, check and do for one sheet, in plain words.
 *
 * @example composeRunSheet({ job: { ...job, name: 'Gulls' }, station, sheet: station.loaded, parts: [], sheetNumber: 2, sheetCount: 3, hasArt: false, printAfter: null, waits: [], assumed: [] }).title // 'Gulls, sheet 2 of 3'
 */
export function composeRunSheet(order: RunSheetOrder): RunSheet {
  const { job, station, sheet, sheetNumber, sheetCount } = order;
  const { widthMm, heightMm, name } = job.sheet;
  const count = sheetCount > 1 ? `, sheet ${sheetNumber} of ${sheetCount}` : '';
  return {
    title: job.name + count,
    subtitle: `${nameCondition(sheet.material.name, sheet.condition.kind)} on ${station.machine.name} · ${name}, ${Math.round(widthMm)} × ${Math.round(heightMm)} mm`,
    sections: listSections(order),
    cautions: listCautions(order),
    ownWords: listOwnWords(order),
  };
}

/** What people typed that a unit may stand in, longest first: one name may stand in another. */
function listOwnWords({ job, station: { machine, blade }, sheet, parts }: RunSheetOrder): readonly string[] {
  const seats = parts.flatMap(({ passes }) => passes.map(({ seatName }) => seatName));
  const words = [
    job.name,
    job.sheet.name,
    sheet.material.name,
    machine.name,
    machine.loadTo ?? '',
    blade?.kind ?? '',
    ...sheet.material.cautions,
    ...seats,
  ];
  return [...new Set(words)].filter((one) => /\d.*\p{L}/u.test(one)).sort((a, b) => b.length - a.length);
}

/** In the order of the work: a machine that prints as well may crease before it does. */
function listSections(order: RunSheetOrder): readonly RunSection[] {
  const { parts, printAfter } = order;
  const creased = printAfter ? countParts(parts, printAfter) : 0;
  const cut = parts.map((part, index) => ({
    heading: headingOf(part, index, parts.length),
    steps: partSteps(part, order),
  }));
  const printed = [...stepsBeforeCut(order), ...dialOnceSteps(order)];
  const load = { heading: 'Load', steps: loadSteps(order) };
  const before =
    creased > 0
      ? [load, ...cut.slice(0, creased), ...printed, ...cut.slice(creased)]
      : [...printed, load, ...cut];
  return [...before, ...stepsAfterCut(order)];
}

/** How many parts hold the first so many passes. */
function countParts(parts: readonly Part[], passes: number): number {
  let left = passes;
  return parts.filter((part) => {
    const isBefore = left > 0;
    left -= part.passes.length;
    return isBefore;
  }).length;
}

function headingOf({ passes }: Part, index: number, count: number): string {
  const word = passes.every(({ role }) => role === 'crease') ? 'Crease' : 'Cut';
  return count > 1 ? `${word}, part ${index + 1} of ${count}` : word;
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
      ? makeStep(
          `Lay the sheet square ${placeOnMat(job.sheet)} ${mat ? `mat ${mat.number}` : 'a mat'} and roll it down hard.`,
          'what lifts is dragged',
        )
      : machine.kind === 'rollFed'
        ? makeStep('Feed the sheet straight under the pinch rollers.', 'a skewed sheet walks sideways')
        : makeStep('Lay the sheet square on the bed and hold down its edges.', 'what lifts is dragged'),
    ...(pageOf(job.sheet).downMm > 0 && !job.sheet.isStarted
      ? [
          makeStep(
            `The end that is used, ${Math.round(job.sheet.heightMm)} mm, goes in first; the rest of the sheet follows.`,
            'the machine counts from the edge that goes in first',
          ),
        ]
      : []),
    ...(machine.loadTo
      ? [makeStep(`Load it to here: ${machine.loadTo}.`, 'every load begins at the same place')]
      : []),
    ...adviseHold(machine, sheet, job.sheet.widthMm).map(({ words, reason }) => makeStep(words, reason)),
    ...(job.sheet.widthMm > job.sheet.heightMm
      ? [makeStep('The sheet lies landscape: watch it.', 'portrait sheets read and feed better')]
      : []),
    ...(fibre === 'unknown'
      ? []
      : [
          makeStep(
            `The fibres run along its ${fibre} edge: keep it so.`,
            'creases and cuts across them tear',
          ),
        ]),
    makeStep(
      blade
        ? `Blade ${blade.number}, ${blade.kind}, sits in the holder.`
        : 'Fit the blade that the settings are for.',
      blade ? `it has cut ${Math.round(blade.travelMetres)} of about ${Math.round(blade.lifeMetres)} m` : '',
    ),
    ...(job.print.keepsTestCorner
      ? [
          makeStep(
            'Cut the test piece in the free corner and look at it first.',
            'a test costs a corner, not the sheet; on a printed sheet it lies on a patch of ink',
          ),
        ]
      : []),
  ];
}

function partSteps(part: Part, order: RunSheetOrder): readonly RunStep[] {
  const { station, job, sheet } = order;
  const { machine } = station;
  const carries = carriedOf(machine);
  const unit = forceUnit(machine.forceScale);
  // What a panel holds in numbered cuts was dialled before the sheet was loaded.
  const isDialled = part.dials.length > 0 && part === order.parts[0] && panelCutsOf(machine) > 1;
  const wait = isDialled ? part.pause : part.before;
  return [
    ...(wait ? [makeStep(`${wait}.`, 'the machine waits for it')] : []),
    ...(part.setsExposure
      ? [
          makeStep(
            `Set the exposure by hand: ${describeExposure(part.exposureMm, machine.depthScale)}.`,
            'no file carries it',
            [[part.exposureMm.toFixed(2), 'mm exposure']],
          ),
        ]
      : []),
    ...(job.print.hasMarks ? markSteps(sheet) : []),
    ...part.passes.flatMap((pass) => passSteps(pass, unit, machine.speedScale.unit, carries)),
  ];
}

/** Reading the marks; what throws light back is dulled first. */
function markSteps({ material, condition }: LoadedSheet): readonly RunStep[] {
  return [
    ...(glareOf(material, condition) > 0
      ? [
          makeStep(
            'Dull every mark: matt tape over it or white crayon on it, or set a lamp beside the machine.',
            'this sheet throws light back at the sensor',
          ),
        ]
      : []),
    makeStep('Have the machine read the marks.', 'the cut follows the print'),
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
    makeStep(`${verb} with the ${pass.seatName} tool${tabs}.`, whoSets(carries, pass), figures),
    makeStep(pass.lookAfter, 'the same path can be repeated only while the sheet has not moved'),
  ];
}

/** Whose numbers count, in words: never silently both. */
function whoSets({ force, speed }: Carried, { panelCut }: Pass): string {
  if (panelCut !== undefined)
    return `the file chooses cut ${panelCut} of the panel: leave it as it is dialled`;
  if (force && speed) return 'the file carries force and speed: leave the panel alone';
  if (!force && !speed) return 'dial these at the panel';
  return force
    ? 'dial the speed; the file carries the force'
    : 'set the force by hand; the file carries the speed';
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
