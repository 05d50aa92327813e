import { abilitiesOf } from '#core/protocol/findLanguage.ts';
import type { Machine } from '#core/station/machine.ts';

/** Whether a machine can be told from here to pause: hands at a stand-in can, and a language that has the word. */
export function canPause(machine: Machine): boolean {
  return machine.link.kind === 'standIn' || abilitiesOf(machine).pause;
}
