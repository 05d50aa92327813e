import type { FamilyFacts } from '#core/stack/families/familyFacts.ts';
import { FAMILY_FACTS } from '#core/stack/families/listFamilies.ts';

export type Family = keyof typeof FAMILY_FACTS;
export const FAMILIES = Object.keys(FAMILY_FACTS) as unknown as readonly [Family, ...Family[]];

/** The facts of a family. @example factsOf('cardstock').isFibrous // true */
export function factsOf(family: Family): FamilyFacts {
  return FAMILY_FACTS[family];
}

/** Whether a family is one thick layer, with nothing to kiss down to. @example isSingleLayerFamily('cardstock') // true */
export function isSingleLayerFamily(family: Family): boolean {
  return factsOf(family).startStack.every(({ role }) => role === 'body');
}
