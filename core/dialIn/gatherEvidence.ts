import { readRun, type RunEvidence } from '#core/dialIn/listTrials.ts';
import { trialOf, type TestCut } from '#core/dialIn/testCut.ts';
import type { EvidenceSheet } from '#core/knowledge/evidence.ts';
import { sheetFactor } from '#core/setting/correctForce.ts';
import { hasLiner } from '#core/stack/layer.ts';
import type { Material, MaterialCondition } from '#core/stack/material.ts';
import type { Machine } from '#core/station/machine.ts';
import type { Trial } from '#core/threshold/trial.ts';
import { isGuessed } from '#core/units/forceScale.ts';

/** Everything cut of one condition of a material on one machine. */
export interface CutSource {
  readonly material: Material;
  readonly condition: MaterialCondition;
  readonly machine: Machine;
  readonly cuts: readonly TestCut[];
  readonly runs?: readonly RunEvidence[];
}

/**
 * The book's cuts and runs as evidence for the knowledge: one place per lot, colour and kind of blade, forces as a plain sheet would
 * have wanted them (what colour and lot are known to add is taken off, so that only the unknown rest is learnt).
 *
 * @example gatherEvidence([]) // []
 */
export function gatherEvidence(sources: readonly CutSource[]): readonly EvidenceSheet[] {
  return sources.flatMap((source) => {
    const { material, condition, machine, cuts, runs = [] } = source;
    const isLayered = hasLiner(condition.stack);
    const places = new Map<string, { lot: string; colour: string; bladeKind: string; trials: Trial[] }>();
    const placeAt = (lot: string, colour: string, bladeKind = '') => {
      const key = JSON.stringify([lot, colour, bladeKind]);
      const place = places.get(key) ?? { lot, colour, bladeKind, trials: [] };
      places.set(key, place);
      return place;
    };
    const plain = (lot: string, colour: string) => 1 / sheetFactor(material, colour, lot);
    for (const cut of cuts) {
      const [lot, colour] = [cut.lot ?? '', cut.colour ?? ''];
      placeAt(lot, colour, cut.bladeKind).trials.push(trialOf(cut, machine.forceScale, plain(lot, colour)));
    }
    for (const run of runs) {
      const trials = readRun(run, machine, isLayered).map((trial) => ({
        ...trial,
        forceGf: trial.forceGf * plain(run.lot, run.colour),
      }));
      placeAt(run.lot, run.colour, run.bladeKind).trials.push(...trials);
    }
    return [...places.values()]
      .filter(({ trials }) => trials.length > 0)
      .map(({ lot, colour, bladeKind, trials }): EvidenceSheet => ({
        traits: {
          family: material.family,
          stack: condition.stack,
          darkness: darknessOf(material, colour),
        },
        materialId: material.id,
        machineId: machine.id,
        isScaleGuessed: isGuessed(machine.forceScale),
        condition: condition.kind,
        lot,
        colour,
        bladeKind,
        trials,
      }));
  });
}

/**
 * The pigment the model should reckon with: the colour's, unless the book already says by how much that colour
 * differs; then it would count twice, and the material's own stands.
 *
 * @example darknessOf(material, 'slate') // 0.5
 */
export function darknessOf(
  { details, darkness }: Pick<Material, 'details' | 'darkness'>,
  colour: string,
): number {
  const known = details.colours.find(({ name }) => name === colour);
  return known && known.forcePercent === 0 ? known.darkness : darkness;
}
