import { around, between, PLAIN_WORLD, type World } from '#core/practice/worlds.ts';
import { drawNormal, type Random } from '#core/random/seededRandom.ts';
import type { ForceScale } from '#core/units/forceScale.ts';

/** A machine whose scale nobody can look behind. */
export interface TrueMachine {
  readonly id: number;
  readonly scale: ForceScale;
  readonly isScaleGuessed: boolean;
  /** True grams of a nominal gram-force. */
  readonly trueGf: (nominalGf: number) => number;
}

/**
 * A machine: in gram-force with an error of its scale, or in levels whose zero nobody measured.
 *
 * @example drawMachine(1, hiddenTask.random).scale.kind // 'gramForce'
 */
export function drawMachine(id: number, random: Random, world = PLAIN_WORLD): TrueMachine {
  const bias = around(random, 0.1);
  if (id % 2 === 1) {
    const scale = {
      kind: 'gramForce',
      min: 10,
      max: 600,
      step: id % 4 === 1 ? 1 : 5,
      gfAtZero: 0,
      gfPerUnit: 1,
    } as const;
    return { id, scale, isScaleGuessed: false, trueGf: (gf) => gf * bias };
  }
  const scale = { kind: 'level', min: 1, max: 40, step: 1, gfAtZero: 6, gfPerUnit: 15 } as const;
  const zero = between(random, -8, 8);
  const trueGf = (gf: number) => Math.max(1, zero + gf * bias);
  if (world.levelsOff === 1) return { id, scale, isScaleGuessed: false, trueGf };
  return guessLevels({ id, scale, isScaleGuessed: true, trueGf }, world, random);
}

/** The same machine as somebody wrote it down who never weighed it: its levels off by a factor, and bent. */
function guessLevels(machine: TrueMachine, { levelsOff, bendSd }: World, random: Random): TrueMachine {
  const off = Math.exp(Math.log(levelsOff) * (2 * random() - 1));
  const bend = Math.max(0.5, 1 + bendSd * drawNormal(random));
  const { scale } = machine;
  const most = scale.gfAtZero + scale.gfPerUnit * scale.max;
  return {
    ...machine,
    scale: { ...scale, gfAtZero: 0, gfPerUnit: (off * most) / scale.max },
    trueGf: (gf) => machine.trueGf(most * (gf / (off * most)) ** bend),
  };
}
