/** What a layer does in the stack. `body` is the single layer of card, stencil sheet or carton. */
export const LAYER_ROLES = ['laminate', 'ink', 'face', 'adhesive', 'liner', 'body'] as const;
export type LayerRole = (typeof LAYER_ROLES)[number];

/** One layer. `isMeasured` is false while its caliper is only the family's usual figure. */
export interface Layer {
  readonly role: LayerRole;
  readonly caliperUm: number;
  readonly isMeasured: boolean;
}

/** Layers from the top (where the blade enters) to the bottom (on the mat). */
export type Stack = readonly Layer[];

/**
 * Whether a liner lies under the face, so that a kiss cut exists. Asks nothing else of the stack.
 *
 * @example hasLiner([{ role: 'face', caliperUm: 80, isMeasured: true }]) // false
 */
export function hasLiner(stack: Stack): boolean {
  return stack.some(({ role }) => role === 'liner');
}
