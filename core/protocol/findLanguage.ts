import { itemAt } from '#core/collections/itemAt.ts';
import { AppError } from '#core/errors/appError.ts';
import { LANGUAGES } from '#core/protocol/languages.ts';
import type { Abilities, MachineLanguage } from '#core/protocol/machineLanguage.ts';
import type { Carried, LanguageChoice, Machine } from '#core/station/machine.ts';

/**
 * The language of a choice.
 *
 * @param languages those that are known; tests add their own
 * @throws AppError `badInput` for one that is not known here
 * @example findLanguage({ id: 'hpgl' }).id // 'hpgl'
 */
export function findLanguage(
  { id }: Pick<LanguageChoice, 'id'>,
  languages: readonly MachineLanguage[] = LANGUAGES,
): MachineLanguage {
  const found = languages.find((language) => language.id === id);
  if (!found) {
    const known = languages.map(({ name }) => name).join(', ');
    throw new AppError('badInput', `"${id}" is no machine language that is known here: ${known}`);
  }
  return found;
}

/**
 * The language of a machine and its options as they may have been kept: before there was a choice, machines had one
 * figure, its steps in a mm.
 *
 * @example readLanguage(undefined, 40).options.unitsPerMm // 40
 */
export function readLanguage(
  language: LanguageChoice | undefined,
  unitsPerMm: number | undefined,
): LanguageChoice {
  if (language) return language;
  const first = itemAt(LANGUAGES, 0);
  return { id: first.id, options: unitsPerMm === undefined ? {} : { unitsPerMm } };
}

/**
 * What a machine can be told in its language. @throws AppError `badInput` for a language that is not known
 *
 * @example abilitiesOf(machine).force // true
 */
export function abilitiesOf({ language }: Pick<Machine, 'language'>): Abilities {
  return findLanguage(language).abilities(language.options);
}

/**
 * How many numbered cuts the panel of a machine holds that its files can choose among: 1 where the files carry the
 * numbers, or their language knows no numbered cuts.
 *
 * @example panelCutsOf({ ...machine, numbersOwner: 'panel', panelCuts: 6 }) // 6
 */
export function panelCutsOf(machine: Pick<Machine, 'language' | 'numbersOwner' | 'panelCuts'>): number {
  const isChosen = machine.numbersOwner === 'panel' && abilitiesOf(machine).numberedCuts;
  return isChosen ? (machine.panelCuts ?? 1) : 1;
}

/**
 * Which numbers go to a machine with the lines: those its language has words for, unless its panel owns them.
 *
 * @example carriedOf({ ...machine, numbersOwner: 'panel' }) // { force: false, speed: false }
 */
export function carriedOf(machine: Pick<Machine, 'language' | 'numbersOwner'>): Carried {
  const { force, speed } = abilitiesOf(machine);
  const isFile = machine.numbersOwner === 'file';
  return { force: isFile && force, speed: speed === 'always' || (isFile && speed) };
}
