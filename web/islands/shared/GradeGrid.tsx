import { GRADE_WORDS, gradesOfStack, type DepthGrade } from '#core/stack/depthGrade.ts';
import { GradePicture } from '#web/components/gradePicture/GradePicture.tsx';

interface Props {
  readonly isLayered: boolean;
  readonly onGrade: (grade: DepthGrade) => void;
  /** In a narrow column pictures stand above their word, and only the word is written. */
  readonly isNarrow?: boolean;
}

/** What a cut can look like, as pictures and words: one tap says it. */
export function GradeGrid({ isLayered, onGrade, isNarrow = false }: Props) {
  return (
    <div className="grid grid-cols-3 gap-1.5 mt-1.5">
      {gradesOfStack(isLayered).map((grade) => (
        <button
          key={grade}
          type="button"
          onClick={() => onGrade(grade)}
          title={GRADE_WORDS[grade].look}
          className={`sheet border-edge hover:border-ink text-left px-2 py-1 flex items-center gap-x-2.5 cursor-pointer flex-wrap min-h-14 ${isNarrow ? '' : 'sm:flex-nowrap'}`}
        >
          <GradePicture grade={grade} isLayered={isLayered} />
          <span className="min-w-0">
            <span className="block font-semibold leading-tight text-[15px] sm:text-base">
              <span className="figure text-muted">{grade}</span> {GRADE_WORDS[grade].word}
            </span>
            <span className={`hidden text-sm text-muted leading-tight ${isNarrow ? '' : 'xl:block'}`}>
              {GRADE_WORDS[grade].look}
            </span>
          </span>
        </button>
      ))}
    </div>
  );
}
