import { FLAW_NAMES, FLAWS } from '#core/stack/depthGrade.ts';
import { wordForce, type ForceScale } from '#core/units/forceScale.ts';
import { GradeGrid } from '#web/islands/shared/GradeGrid.tsx';
import type { Dial } from '#web/islands/testCuts/useDialIn.ts';

/** Grading: one tap on what is seen records the cut; flaws are set before it. */
export function GradePad({ dial, scale }: { readonly dial: Dial; readonly scale: ForceScale }) {
  return (
    <fieldset className="mt-2" disabled={dial.isBusy}>
      <legend className="font-semibold">
        {dial.gradedCell === null
          ? `What do you see${dial.lyingForce === null ? '' : ` of the piece at ${wordForce(dial.lyingForce, scale)}`}? One tap records it.`
          : `Cell ${dial.gradedCell + 1}, ${dial.card?.forces[dial.gradedCell] ?? ''}: what do you see?`}
      </legend>
      <GradeGrid isLayered={dial.isLayered} onGrade={dial.grade} />
      <div role="group" aria-label="Flaws seen" className="flex flex-wrap gap-2 mt-2">
        {FLAWS.map((flaw) => (
          <button
            key={flaw}
            type="button"
            aria-pressed={dial.flaws.includes(flaw)}
            onClick={() => dial.toggleFlaw(flaw)}
            className="button px-3 font-normal aria-pressed:bg-ink aria-pressed:text-white aria-pressed:font-semibold"
          >
            {FLAW_NAMES[flaw]}
          </button>
        ))}
      </div>
    </fieldset>
  );
}
