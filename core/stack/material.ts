import type { Stack } from '#core/stack/layer.ts';
import type { Family } from '#core/stack/families/families.ts';
import type { MaterialDetails } from '#core/stack/materialDetails.ts';

/** States a sheet of one material can be in; each has its own stack and its own settings. */
export const CONDITION_KINDS = ['bare', 'printed', 'laminated', 'sealed'] as const;
export type ConditionKind = (typeof CONDITION_KINDS)[number];

/** One state of a material. */
export interface MaterialCondition {
  readonly id: number;
  readonly kind: ConditionKind;
  readonly stack: Stack;
  /** Share of the face that is printed, 0 to 1; `null` when nobody said. */
  readonly coverage?: number | null;
}

/** A material as the pack names it. `darkness` is its pigment from 0 (pale) to 1 (black). */
export interface Material {
  readonly id: number;
  readonly name: string;
  readonly maker: string;
  readonly family: Family;
  readonly finish: string;
  readonly colourName: string;
  readonly colourHex: string;
  readonly darkness: number;
  readonly cautions: readonly string[];
  readonly details: MaterialDetails;
  readonly conditions: readonly MaterialCondition[];
  /** Counts changes; who changes it says which version they saw. */
  readonly version: number;
  readonly isArchived: boolean;
}

/**
 * The state a stack is in, from its layers.
 *
 * @example conditionOfStack([{ role: 'laminate', caliperUm: 40, isMeasured: true }]) // 'laminated'
 */
export function conditionOfStack(stack: Stack): ConditionKind {
  if (stack.some((layer) => layer.role === 'laminate')) return 'laminated';
  return stack.some((layer) => layer.role === 'ink') ? 'printed' : 'bare';
}

/** A material in one state, as people say it. @example nameCondition('Herringglass matt', 'bare') // 'Herringglass matt' */
export function nameCondition(materialName: string, kind: ConditionKind): string {
  return kind === 'bare' ? materialName : `${materialName}, ${kind}`;
}
