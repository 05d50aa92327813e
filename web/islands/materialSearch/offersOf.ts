import { nameCondition } from '#core/stack/material.ts';
import type { LookupHit } from '#web/schemas/lookup.ts';

/** One thing that can be laid on the machine from what was found. */
export interface Offer {
  readonly conditionId: number;
  readonly materialId: number;
  readonly name: string;
  readonly hit: LookupHit;
  readonly answers: LookupHit['states'][number]['answers'];
  /** Where the typed words were found, when not in the name; else empty. */
  readonly why: string;
}

/**
 * What was found, as things to load: one for a material, or one for each of its states where that changes the answer.
 * A state that was typed is taken at its word.
 */
export function offersOf(hits: readonly LookupHit[]): readonly Offer[] {
  return hits.flatMap((hit) => {
    const named = hit.met.find(({ field }) => field === 'state')?.term;
    const wanted = named ? hit.states.filter(({ kind }) => kind === named) : hit.states;
    const shown = hit.isStateAsked ? wanted : wanted.slice(0, 1);
    return shown.map((state) => ({
      conditionId: state.conditionId,
      materialId: hit.materialId,
      name: nameCondition(hit.name, hit.isStateAsked ? state.kind : 'bare'),
      hit,
      answers: state.answers,
      why: [
        ...hit.met.map(({ field, term, typed }) =>
          field === 'measure' ? `about ${typed}` : `${field} “${term}”`,
        ),
        ...hit.missed.map((word) => `without “${word}”`),
      ].join(', '),
    }));
  });
}
