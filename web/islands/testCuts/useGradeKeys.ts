import { useEffect } from 'react';
import type { DepthGrade } from '#core/stack/depthGrade.ts';
import { isSingleKey } from '#web/islands/shared/singleKeys.ts';

interface GradeKeys {
  readonly grades: readonly DepthGrade[];
  readonly isBusy: boolean;
  readonly onGrade: (grade: DepthGrade) => void;
  readonly onNudge: (steps: number) => void;
  readonly onUndo: () => void;
}

/** Digits grade, arrows nudge, u takes back: for one hand on the keyboard. */
export function useGradeKeys({ grades, isBusy, onGrade, onNudge, onUndo }: GradeKeys) {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (isBusy || !isSingleKey(event)) return;
      const grade = grades.find((one) => String(one) === event.key);
      if (grade !== undefined) onGrade(grade);
      if (event.key === 'ArrowLeft') onNudge(-1);
      if (event.key === 'ArrowRight') onNudge(1);
      if (event.key === 'u') onUndo();
    };
    document.addEventListener('keydown', onKey);
    return () => document.removeEventListener('keydown', onKey);
  });
}
