import { AppError } from '#core/errors/appError.ts';
import type { LayerRole, Stack } from '#core/stack/layer.ts';

/** The depths that matter in a stack, all in µm from the top surface. */
export interface StackDepths {
  /** Everything. */
  readonly totalUm: number;
  /** Down to the top of the liner; for a single layer, its whole caliper. */
  readonly toLinerUm: number;
  /** The liner's caliper, 0 where there is none. */
  readonly linerUm: number;
  /** Whether there is a liner to keep whole, so that a kiss cut exists. */
  readonly isLayered: boolean;
}

const ORDER: Readonly<Record<LayerRole, number>> = {
  laminate: 0,
  ink: 1,
  face: 2,
  adhesive: 3,
  liner: 4,
  body: 2,
};

/**
 * Measures a stack.
 *
 * @throws AppError `badInput` when the stack cannot be: see {@link requireStack}
 * @example measureStack(film) // { totalUm: 245, toLinerUm: 105, linerUm: 140, isLayered: true }
 */
export function measureStack(stack: Stack): StackDepths {
  requireStack(stack);
  const totalUm = stack.reduce((sum, layer) => sum + layer.caliperUm, 0);
  const linerUm = caliperOf(stack, 'liner');
  return { totalUm, toLinerUm: totalUm - linerUm, linerUm, isLayered: linerUm > 0 };
}

/**
 * The summed caliper of all layers with a role, in µm; 0 when there is none.
 *
 * @example caliperOf([{ role: 'face', caliperUm: 80, isMeasured: true }], 'liner') // 0
 */
export function caliperOf(stack: Stack, role: LayerRole): number {
  return stack.reduce((sum, layer) => (layer.role === role ? sum + layer.caliperUm : sum), 0);
}

/**
 * Refuses stacks that no sheet can have: empty, without face or body, layers out of order, a caliper that is
 * not between 1 µm and 5 mm, a liner below nothing, or a body with a liner.
 *
 * @throws AppError `badInput` naming the layer and the requirement
 * @example requireStack(film) === undefined // true
 */
export function requireStack(stack: Stack): void {
  if (stack.length === 0) refuse('a stack needs at least one layer');
  let last = -1;
  for (const [index, layer] of stack.entries()) {
    const name = `layer ${index + 1} (${layer.role})`;
    if (!(layer.caliperUm >= 1 && layer.caliperUm <= 5000)) {
      refuse(`${name} is ${layer.caliperUm} µm; a caliper lies between 1 and 5000 µm`);
    }
    if (ORDER[layer.role] < last)
      refuse(`${name} lies below a layer that belongs under it; order from the top`);
    last = ORDER[layer.role];
  }
  const faces = stack.filter((layer) => layer.role === 'face' || layer.role === 'body');
  if (faces.length !== 1) refuse(`a stack has exactly one face or body, this one has ${faces.length}`);
  const liners = stack.filter((layer) => layer.role === 'liner').length;
  if (liners > 1) refuse(`a stack has at most one liner, this one has ${liners}`);
  if (faces[0]?.role === 'body' && liners > 0)
    refuse('a single body has no liner; name the top layer face instead');
}

function refuse(message: string): never {
  throw new AppError('badInput', message);
}
