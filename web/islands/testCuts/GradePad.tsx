import { FLAW_NAMES, FLAWS, GRADE_WORDS, gradesOfStack } from '#core/stack/depthGrade.ts';
import { GradePicture } from '#web/components/gradePicture/GradePicture.tsx';
import type { Dial } from '#web/islands/testCuts/useDialIn.ts';

/** Grading: one tap on what is seen records the cut; flaws are set before it. */
export function GradePad({ isLayered, dial }: { readonly isLayered: boolean; readonly dial: Dial }) {
  return (
    <fieldset className="mt-2" disabled={dial.isBusy}>
      <legend className="font-semibold">
        {dial.gradedCell === null
          ? 'What do you see? One tap records it.'
          : `Cell ${dial.gradedCell + 1}, ${dial.card?.forces[dial.gradedCell] ?? ''}: what do you see?`}
      </legend>
      <div className="grid grid-cols-3 gap-1.5 mt-1.5">
        {gradesOfStack(isLayered).map((grade) => (
          <button
            key={grade}
            type="button"
            onClick={() => dial.grade(grade)}
            title={GRADE_WORDS[grade].look}
            className="sheet border-edge hover:border-ink text-left px-2 py-1 flex items-center gap-2.5 cursor-pointer flex-wrap sm:flex-nowrap min-h-14"
          >
            <GradePicture grade={grade} isLayered={isLayered} />
            <span className="min-w-0">
              <span className="block font-semibold leading-tight text-[15px] sm:text-base">
                <span className="figure text-muted">{grade}</span> {GRADE_WORDS[grade].word}
              </span>
              <span className="hidden xl:block text-sm text-muted leading-tight">
                {GRADE_WORDS[grade].look}
              </span>
            </span>
          </button>
        ))}
      </div>
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
