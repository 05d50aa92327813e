import { carriedOf } from '#core/protocol/findLanguage.ts';
import type { Pass } from '#core/passes/plan.ts';
import { wearOfMat } from '#core/station/wearOfMat.ts';
import type { LoadedSheet, Station } from '#core/station/station.ts';
import { minutesLeft } from '#core/prep/waits.ts';
import { describeExposure, isSetByHand } from '#core/units/depthScale.ts';
import { fitTack, tackIndex } from '#core/wear/tackIndex.ts';

/** One thing to look at before a run, and why. */
export interface CheckItem {
  readonly words: string;
  readonly reason: string;
  /** `open`: something stands against the run now. */
  readonly state: 'toDo' | 'open';
}

/** What a checklist is made from. */
export interface ChecklistOrder {
  readonly station: Station;
  readonly sheet: LoadedSheet;
  readonly passes: readonly Pass[];
  readonly isPrinted: boolean;
  readonly hasMarks: boolean;
  /** Waits under way of this job or this material. */
  readonly waits: readonly { readonly words: string; readonly endsAt: string }[];
  /** An alarm of drift on the machine, in words, or `null`. */
  readonly drift: string | null;
  readonly now: Date;
}

const OLD_SHARE = 0.9;

/**
 * A short list for this job on this station: only what matters here, each with its reason; what is open comes first.
 *
 * @example composeChecklist({ station, sheet: station.loaded, passes: plan.passes, isPrinted: false, hasMarks: false, waits: [], drift: 'a worn blade', now: new Date(0) })[0].state // 'open'
 */
export function composeChecklist(order: ChecklistOrder): readonly CheckItem[] {
  const items = [
    ...checkWaits(order),
    ...checkPrint(order),
    ...checkHold(order),
    ...checkBlade(order),
    ...checkNumbers(order),
  ];
  return items.toSorted((a, b) => Number(b.state === 'open') - Number(a.state === 'open'));
}

const item = (words: string, reason: string, state: CheckItem['state'] = 'toDo'): CheckItem => ({
  words,
  reason,
  state,
});

function checkWaits({ waits, now, isPrinted, sheet }: ChecklistOrder): readonly CheckItem[] {
  const open = waits
    .map(({ words, endsAt }) => ({ words, minutes: minutesLeft(endsAt, now) }))
    .filter(({ minutes }) => minutes > 0)
    .map(({ words, minutes }) =>
      item(`${words}: ${minutes} min left`, 'what is wet drags and is printed on by the rollers', 'open'),
    );
  if (open.length > 0 || !(isPrinted || sheet.condition.kind !== 'bare')) return open;
  return [item('Ink and laminate are dry to the touch', 'wet ink drags, and the rollers print it on')];
}

function checkPrint({ hasMarks }: ChecklistOrder): readonly CheckItem[] {
  return hasMarks
    ? [
        item(
          'Every mark is whole and matt, with nothing dark beside it',
          'the sensor takes anything dark for a mark',
        ),
      ]
    : [];
}

function checkHold({ station, sheet, now }: ChecklistOrder): readonly CheckItem[] {
  const { machine, mat } = station;
  if (machine.kind !== 'matFed') {
    return [
      item('The sheet runs straight, pinch rollers on both edges', 'a skewed sheet walks sideways'),
      item('There is room to travel in front and behind', 'a sheet that meets a wall shifts'),
    ];
  }
  if (!mat)
    return [item('A mat is chosen at the rail', 'its loads are counted, and its tack judged', 'open')];
  const index = tackIndex(wearOfMat(mat, now));
  const fit = fitTack(index, sheet.material.family);
  const rolled = item(`Sheet square on mat ${mat.number}, rolled down hard`, 'what lifts is dragged');
  if (fit === 'suits') return [rolled];
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
    rolled,
  ];
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
            `It is at ${Math.round(blade.travelMetres)} m`,
            'near its end: look at the first cut twice',
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
        : item(
            'Force and speed are dialled as the run asks',
            'the panel owns them: the file carries neither',
          ),
    item('Hands, hair and cords are clear of the carriage', 'it starts without a warning'),
  ];
}
