import { ACTION_FACTS, ACTIONS, type Action } from '#core/faults/faultActions.ts';
import { factsOfCause } from '#core/faults/causes.ts';
import type { Hold } from '#core/faults/listCauses.ts';
import type { Symptom } from '#core/faults/symptoms.ts';
import type { RankedFault } from '#core/faults/rankCauses.ts';

/** How an action fared here: how often it helped of how often it was tried. */
export type ActionRecord = Readonly<
  Partial<Record<Action, { readonly helped: number; readonly tried: number }>>
>;

/** An action with what it promises. */
export interface RankedAction {
  readonly action: Action;
  /** Chance that the fault is gone after it. */
  readonly mends: number;
  /** Sheets saved on average, less what it costs: what actions are ordered by. */
  readonly gain: number;
}

/** A fault that stays spoils so many sheets before the work is given up. Common practice, no source. */
const SHEETS_AT_STAKE = 4;
/** What a minute at the bench is worth, in sheets. Common practice, no source. */
const SHEETS_PER_MINUTE = 0.04;
/** The table's chances count like so many tries. */
const TABLE_WEIGHT = 6;

/**
 * Actions by what they gain on average: the chance that they mend the fault times the sheets at stake, less their
 * sheets and minutes.
 *
 * @param ranked causes with their chances
 * @param tried actions that did not help with this fault: they are left out
 * @param record how actions fared at this workshop
 * @param hold how the machine holds its sheet; `null` where nobody says
 * @example rankActions([{ cause: 'glare', chance: 1, reason: '' }], ['marksNotRead'])[0].action // 'shadeMarks'
 */
export function rankActions(
  ranked: readonly RankedFault[],
  symptoms: readonly Symptom[],
  tried: readonly Action[] = [],
  record: ActionRecord = {},
  hold: Hold | null = null,
): readonly RankedAction[] {
  return ACTIONS.filter((action) => {
    const { notFor = [], needs } = ACTION_FACTS[action];
    if (hold !== null && needs !== undefined && needs !== hold) return false;
    return !tried.includes(action) && !symptoms.some((symptom) => notFor.includes(symptom));
  })
    .map((action): RankedAction => {
      const facts = ACTION_FACTS[action];
      const table = ranked.reduce(
        (sum, { cause, chance }) => sum + chance * (factsOfCause(cause).mendedBy[action] ?? 0),
        0,
      );
      const own = record[action] ?? { helped: 0, tried: 0 };
      // The table is a guess that this workshop's own tries outweigh: a Beta prior of so many tries, updated.
      const chance = (TABLE_WEIGHT * table + own.helped) / (TABLE_WEIGHT + own.tried);
      const cost = facts.sheets + facts.minutes * SHEETS_PER_MINUTE;
      return { action, mends: chance, gain: chance * SHEETS_AT_STAKE - cost };
    })
    .sort((a, b) => b.gain - a.gain);
}
