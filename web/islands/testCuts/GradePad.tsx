import { wordForce, type ForceScale } from '#core/units/forceScale.ts';
import { FlawToggles } from '#web/islands/testCuts/FlawToggles.tsx';
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
      <div data-grades>
        <FlawToggles label="Flaws seen" flaws={dial.flaws} onToggle={dial.toggleFlaw} />
      </div>
    </fieldset>
  );
}
