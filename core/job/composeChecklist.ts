import { carriedOf, panelCutsOf } from '#core/protocol/findLanguage.ts';
import { ACTION_FACTS, type Action } from '#core/faults/faultActions.ts';
import type { Pass } from '#core/passes/plan.ts';
import { wearOfMat } from '#core/station/wearOfMat.ts';
import type { LoadedSheet, Station } from '#core/station/station.ts';
import { minutesLeft } from '#core/prep/waits.ts';
import { glareOf } from '#core/stack/glare.ts';
import { describeExposure, isSetByHand } from '#core/units/depthScale.ts';
import { fitTack, tackIndex } from '#core/wear/tackIndex.ts';

/** One thing to look at before a run, and why. */
export interface CheckItem {
  readonly words: string;
  readonly reason: string;
  /** `open`: something may go wrong now; `stop`: it is not sent before somebody says that it may go nevertheless. */
  readonly state: 'toDo' | 'open' | 'stop';
  /** Names what stands against it, so that it can be said of this and nothing else that it may go. */
  readonly id?: string;
  /** The way out: where it is put right. */
  readonly way?: { readonly words: string; readonly step: WayOut };
}

/** Where something is put right: a step of the job, the Bench, the machine's page, the Day. */
export const WAYS_OUT = ['drawing', 'roles', 'sheet', 'passes', 'bench', 'machine', 'day'] as const;
export type WayOut = (typeof WAYS_OUT)[number];

/** What a checklist is made from. */
export interface ChecklistOrder {
  readonly station: Station;
  readonly sheet: LoadedSheet;
  readonly passes: readonly Pass[];
  readonly isPrinted: boolean;
  readonly hasMarks: boolean;
  /** How far the sheet travels, mm; left out where nobody says. */
  readonly sheetHeightMm?: number | undefined;
  /** Whether a part of the drawing is finer than the material bears without a flat ground. */
  readonly isFinestTooFine?: boolean | undefined;
  /** Waits under way of this job or this material. */
  readonly waits: readonly { readonly words: string; readonly endsAt: string }[];
  /** What stands against sending it, see listStops. */
  readonly stops: readonly CheckItem[];
  /** What helped at this machine for good, by the fault it helped with. */
  readonly standing: readonly { readonly id: number; readonly action: Action }[];
  /** An alarm of drift on the machine, in words, or `null`. */
  readonly drift: string | null;
  readonly now: Date;
}

const OLD_SHARE = 0.9;
/** What stops comes first, then what may go wrong. */
const RANK: Readonly<Record<CheckItem['state'], number>> = { stop: 0, open: 1, toDo: 2 };

/**
 * A short list for this job on this station: only what matters here, each with its reason; what is open comes first.
 *
 * @example composeChecklist({ station, sheet: station.loaded, passes: plan.passes, isPrinted: false, hasMarks: false, waits: [], stops: [], standing: [], drift: 'a worn blade', now: new Date(0) })[0].state // 'open'
 */
export function composeChecklist(order: ChecklistOrder): readonly CheckItem[] {
  const items = [
    ...order.stops,
    ...checkLink(order),
    ...checkDry(order),
    ...checkStanding(order),
    ...checkPrint(order),
    ...checkHold(order),
    ...checkBlade(order),
    ...checkNumbers(order),
  ];
  return items.toSorted((a, b) => RANK[a.state] - RANK[b.state]);
}

const item = (words: string, reason: string, state: CheckItem['state'] = 'toDo'): CheckItem => ({
  words,
  reason,
  state,
});

function checkLink({ station: { machine } }: ChecklistOrder): readonly CheckItem[] {
  if (machine.link.kind !== 'none') return [];
  return [
    {
      ...item(`${machine.name} has no link`, 'take the machine file there, or give it a link', 'open'),
      id: 'noLink',
      way: { words: 'Give it a link', step: 'machine' },
    },
  ];
}

function checkDry({ waits, now, isPrinted, sheet }: ChecklistOrder): readonly CheckItem[] {
  const isWaiting = waits.some(({ endsAt }) => minutesLeft(endsAt, now) > 0);
  if (isWaiting || !(isPrinted || sheet.condition.kind !== 'bare')) return [];
  return [item('Ink and laminate are dry to the touch', 'wet ink drags, and the rollers print it on')];
}

/** What helped here once is kept up. */
function checkStanding({ standing, hasMarks }: ChecklistOrder): readonly CheckItem[] {
  return standing.flatMap(({ id, action }): readonly CheckItem[] => {
    const kept = ACTION_FACTS[action].standing;
    if (!kept || (kept.needsMarks && !hasMarks)) return [];
    return [{ ...item(kept.words, 'it helped at this machine before'), id: `standing:${id}` }];
  });
}

function checkPrint({ hasMarks, sheet }: ChecklistOrder): readonly CheckItem[] {
  if (!hasMarks) return [];
  const whole = item(
    'Every mark is whole and matt, with nothing dark beside it',
    'the sensor takes anything dark for a mark',
  );
  if (glareOf(sheet.material, sheet.condition) === 0) return [whole];
  return [
    {
      ...item(
        'This sheet throws light back at the sensor',
        'matt tape over each mark, white crayon on it, or a lamp beside the machine',
        'open',
      ),
      id: 'glare',
    },
    whole,
  ];
}

function checkHold(order: ChecklistOrder): readonly CheckItem[] {
  const { station, sheet, now, hasMarks } = order;
  const { machine, mat } = station;
  const room = checkRoom(order);
  if (machine.kind === 'flatbed') {
    return [item('The sheet lies square and flat, its edges held down', 'what lifts is dragged')];
  }
  if (machine.kind === 'rollFed') {
    return [
      item('The sheet runs straight, pinch rollers on both edges', 'a skewed sheet walks sideways'),
      room,
    ];
  }
  if (!mat)
    return [item('A mat is chosen at the rail', 'its loads are counted, and its tack judged', 'open')];
  const index = tackIndex(wearOfMat(mat, now));
  const fit = fitTack(index, sheet.material.family);
  const rolled = [
    item(`Sheet square on mat ${mat.number}, rolled down hard`, 'what lifts is dragged'),
    ...(hasMarks
      ? [item('The grid of the mat is covered beside the marks', 'the sensor takes its lines for marks')]
      : []),
    ...(mat.hasGrooves && order.isFinestTooFine
      ? [item(`Mat ${mat.number} has grooves`, 'fine parts dip into them and tear: take a flat one', 'open')]
      : []),
  ];
  if (fit === 'suits') return [...rolled, room];
  return [
    item(
      fit === 'slips'
        ? `Mat ${mat.number} holds weakly (${index})`
        : `Mat ${mat.number} holds too hard (${index})`,
      fit === 'slips'
        ? 'this sheet slips on it: wash it or take another'
        : 'this liner tears on it: take a lighter one',
      'open',
    ),
    ...rolled,
    room,
  ];
}

/** What travels needs as much room on both sides as it is long: the mat with its sheet, or the sheet alone. */
function checkRoom({ station: { machine, mat }, sheetHeightMm }: ChecklistOrder): CheckItem {
  const longest = Math.max(sheetHeightMm ?? 0, machine.kind === 'matFed' ? (mat?.heightMm ?? 0) : 0);
  const words =
    longest > 0
      ? `There is room for ${Math.round(longest)} mm in front and behind`
      : 'There is room to travel in front and behind';
  return item(words, 'a sheet that meets a wall shifts');
}

function checkBlade({ station, passes, drift }: ChecklistOrder): readonly CheckItem[] {
  const cut = passes.find(({ role }) => role !== 'crease');
  if (!cut) return [];
  const { blade, machine } = station;
  const exposure = describeExposure(cut.values.exposureMm, machine.depthScale);
  return [
    ...(blade
      ? [
          item(
            `Blade no. ${blade.number} is in the ${cut.seatName} seat`,
            'its travel is counted by its number',
          ),
        ]
      : [item('A blade is chosen at the rail', 'its wear is counted by its number', 'open')]),
    ...(blade && blade.travelMetres > OLD_SHARE * blade.lifeMetres
      ? [
          item(
            `Blade ${blade.number} has cut ${Math.round(blade.travelMetres)} of about ${Math.round(blade.lifeMetres)} m`,
            'it is near its end: look at the first cut twice',
            'open',
          ),
        ]
      : []),
    ...(drift
      ? [item(`Cuts drift on this machine: ${drift}`, 'one test cut tells before a sheet is spent', 'open')]
      : []),
    ...(isSetByHand(machine.depthScale)
      ? [
          item(
            `Exposure ${cut.values.exposureMm.toFixed(2)} mm: ${exposure}`,
            'it is set by hand, no file carries it; power off before touching the holder',
          ),
        ]
      : []),
  ];
}

function checkNumbers({ station }: ChecklistOrder): readonly CheckItem[] {
  const carries = carriedOf(station.machine);
  return [
    carries.force && carries.speed
      ? item('The panel is left alone', 'the file carries force and speed: never silently both')
      : carries.force || carries.speed
        ? item(
            `The ${carries.force ? 'speed' : 'force'} is set by hand as the run asks`,
            'the file has no word for it',
          )
        : panelCutsOf(station.machine) > 1
          ? item(
              'The numbered cuts of the panel are dialled as the run sheet lists them',
              'the file chooses among them and carries no figure itself',
            )
          : item(
              'Force and speed are dialled as the run asks',
              'the panel owns them: the file carries neither',
            ),
    item('Hands, hair and cords are clear of the carriage', 'it starts without a warning'),
  ];
}
