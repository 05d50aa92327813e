import type { ReactNode } from 'react';
import { EXERCISES, type Exercise } from '#core/practice/exercises.ts';
import { say } from '#web/islands/shared/units.ts';

interface Props {
  readonly exercise: Exercise;
  readonly isAdvised: boolean;
  readonly onAdvice: (isAdvised: boolean) => void;
  readonly children?: ReactNode;
}

/** Which exercise it is, what lies there, and whether the tool speaks. */
export function ExerciseHead({ exercise, isAdvised, onAdvice, children }: Props) {
  const number = EXERCISES.findIndex(({ id }) => id === exercise.id) + 1;
  return (
    <>
      <p className="text-sm text-muted">
        <a href="/practice">Practice</a> · exercise {number} of {EXERCISES.length}
      </p>
      <div className="flex flex-wrap items-start justify-between gap-x-4">
        <h1>{exercise.title}</h1>
        <label className="flex items-center gap-2 min-h-11 cursor-pointer">
          <input
            type="checkbox"
            className="size-5 accent-verdigris"
            checked={isAdvised}
            onChange={(event) => onAdvice(event.target.checked)}
          />
          The tool advises
        </label>
      </div>
      <p>{say(exercise.story)}</p>
      {children}
    </>
  );
}
