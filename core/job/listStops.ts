import type { Trouble } from '#core/checks/trouble.ts';
import { groupBy } from '#core/collections/groupBy.ts';
import { itemAt } from '#core/collections/itemAt.ts';
import type { CheckItem } from '#core/job/composeChecklist.ts';
import { minutesLeft, placeOfWait, type WaitKind } from '#core/prep/waits.ts';
import { nameCondition } from '#core/stack/material.ts';
import type { LoadedSheet, Station } from '#core/station/station.ts';

/** What stands or may stand against sending a job now. */
export interface StopOrder {
  readonly station: Pick<Station, 'machine' | 'loaded'>;
  /** The sheet that the job is for. */
  readonly sheet: LoadedSheet;
  /** What was found in the drawing and not mended. */
  readonly troubles: readonly Trouble[];
  /** Waits under way of this job or this material. */
  readonly waits: readonly { readonly kind: WaitKind; readonly words: string; readonly endsAt: string }[];
  /** By how much cut lines reach over what can be printed and then cut, mm. */
  readonly overPrintAreaMm: number;
  /** A corner was wanted for a test piece, and there is no free place left. */
  readonly hasNoTestCorner: boolean;
  /** How many pieces lie over each other. */
  readonly touching?: number;
  readonly now: Date;
}

/** What would destroy the sheet, or the piece, whatever its weight as a trouble: it needs a word before it is sent. */
const DESTROYS = new Set<Trouble['kind']>(['island', 'throughOnRoll']);

/**
 * What is not right as a job is sent: what stops it until somebody says that it may go nevertheless, and what only may go
 * wrong. The wrong sheet comes first. Each with its way out.
 *
 * @example listStops({ station, sheet: station.loaded, troubles: [], waits: [], overPrintAreaMm: 4, hasNoTestCorner: false, now: new Date(0) })[0].id // 'printArea'
 */
export function listStops(order: StopOrder): readonly CheckItem[] {
  const found = [
    ...checkSheet(order),
    ...checkWaits(order),
    ...checkPrintArea(order),
    ...checkTouching(order),
    ...checkTroubles(order),
    ...checkCorner(order),
  ];
  return found.toSorted((a, b) => Number(b.state === 'stop') - Number(a.state === 'stop'));
}

function checkTouching({ touching = 0 }: StopOrder): readonly CheckItem[] {
  if (touching === 0) return [];
  return [
    {
      id: 'touching',
      state: 'stop',
      words: `${touching} pieces lie over each other`,
      reason: 'where their cuts meet both are spoiled',
      way: { words: 'Move them apart', step: 'sheet' },
    },
  ];
}

function checkSheet({ station: { machine, loaded }, sheet }: StopOrder): readonly CheckItem[] {
  const wanted = nameCondition(sheet.material.name, sheet.condition.kind);
  const way = { words: 'Load it at the Bench', step: 'bench' } as const;
  if (!loaded) {
    return [
      {
        id: 'noSheet',
        state: 'open',
        words: `Nobody has said what lies on ${machine.name}`,
        reason: `this job is for ${wanted}`,
        way,
      },
    ];
  }
  if (loaded.condition.id === sheet.condition.id) return [];
  return [
    {
      id: 'otherSheet',
      state: 'stop',
      words: `${nameCondition(loaded.material.name, loaded.condition.kind)} lies on ${machine.name}`,
      reason: `this job is for ${wanted}: its forces are for that sheet and no other`,
      way,
    },
  ];
}

function checkWaits({ waits, now }: StopOrder): readonly CheckItem[] {
  return waits
    .filter(({ kind }) => placeOfWait(kind) === 'cut')
    .map(({ words, endsAt }) => ({ words, minutes: minutesLeft(endsAt, now) }))
    .filter(({ minutes }) => minutes > 0)
    .map(({ words, minutes }) => ({
      id: 'wait',
      state: 'stop',
      words: `${words}: ${minutes} min left`,
      reason: 'what is wet drags and is printed on by the rollers',
      way: { words: 'See what waits', step: 'day' },
    }));
}

function checkPrintArea({ overPrintAreaMm }: StopOrder): readonly CheckItem[] {
  if (overPrintAreaMm === 0) return [];
  return [
    {
      id: 'printArea',
      state: 'stop',
      words: `Cut lines reach ${overPrintAreaMm.toFixed(1)} mm over what can be printed and cut`,
      reason:
        'the machine does not follow the print out there: those pieces are cut in the wrong place, or not at all',
      way: { words: 'Lay the sheet out again', step: 'sheet' },
    },
  ];
}

function checkTroubles({ troubles }: StopOrder): readonly CheckItem[] {
  return [...groupBy(troubles, ({ kind }) => kind).values()].map((alike) => {
    const first = itemAt(alike, 0);
    const more = alike.length > 1 ? `, and ${alike.length - 1} more like it` : '';
    const isGrave = DESTROYS.has(first.kind) || alike.some(({ weight }) => weight === 'stop');
    return {
      id: `trouble:${first.kind}`,
      state: isGrave ? 'stop' : 'open',
      words: `Not mended: ${first.what}${more}`,
      reason: first.why,
      way: { words: 'Mend it in the drawing', step: 'drawing' },
    };
  });
}

function checkCorner({ hasNoTestCorner }: StopOrder): readonly CheckItem[] {
  if (!hasNoTestCorner) return [];
  return [
    {
      id: 'testCorner',
      state: 'open',
      words: 'There is no free place for the test piece',
      reason: 'the pieces leave no corner for it: test on a scrap, or take a piece off the sheet',
      way: { words: 'Make room on the sheet', step: 'sheet' },
    },
  ];
}
