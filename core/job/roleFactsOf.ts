import type { RoleFacts } from '#core/drawing/roles/guessRoles.ts';
import { hasLiner, type Stack } from '#core/stack/layer.ts';
import type { Machine } from '#core/station/machine.ts';

/**
 * What decides which roles the lines of a job can have.
 *
 * @example roleFactsOf(card, machine).canKiss // false
 */
export function roleFactsOf(stack: Stack, machine: Pick<Machine, 'kind' | 'operations'>): RoleFacts {
  return {
    canKiss: hasLiner(stack),
    isRollFed: machine.kind === 'rollFed',
    canCrease: machine.operations.includes('crease'),
  };
}
