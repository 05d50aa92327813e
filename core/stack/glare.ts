import type { Material, MaterialCondition } from '#core/stack/material.ts';

/** How much light a finish throws back at a sensor, 0 to 1, by words on the pack. Common practice, no source (T19). */
const FINISHES: readonly (readonly [RegExp, number])[] = [
  [/clear|transparent|holo|mirror|chrome|metal|glitter/i, 1],
  [/gloss|satin|shin/i, 0.6],
];
/** Many coats of sealer hide the marks. Common practice, no source (T18). */
const SEALED = 0.5;

/**
 * How much light a sheet throws back at the sensor that looks for marks, 0 to 1: by its finish, and by what was sprayed
 * on it.
 *
 * @example glareOf({ finish: 'gloss' }, { kind: 'bare' }) // 0.6
 */
export function glareOf(
  { finish }: Pick<Material, 'finish'>,
  { kind }: Pick<MaterialCondition, 'kind'>,
): number {
  const shown = FINISHES.find(([words]) => words.test(finish))?.[1] ?? 0;
  return kind === 'sealed' ? Math.max(shown, SEALED) : shown;
}
