import { useEffect, useState } from 'react';
import { factsOfCause } from '#core/faults/causes.ts';
import { EXERCISES, type Exercise } from '#core/practice/exercises.ts';
import { bestForce, openForce } from '#core/practice/practiceForce.ts';
import { bestTabLength, openTabs } from '#core/practice/practiceTabs.ts';
import { wordForce } from '#core/units/forceScale.ts';
import { say, sayLength } from '#web/islands/shared/units.ts';

/** For who teaches: one number gives a whole class the same sheets; what they hide, the rules, and what to say. */
export function TeacherView() {
  const [seed, setSeed] = useState(1);
  const [isShown, setShown] = useState(false);
  return (
    <section aria-label="For the teacher" className="sheet p-4 sm:px-6 sm:py-5 max-w-5xl">
      <h1>For the teacher</h1>
      <p className="mt-1">
        Everybody who opens an exercise with the same number cuts the same sheet. Give the class a number, let
        each search alone, then compare pieces, harm and minutes on the wall.
      </p>
      <div className="flex flex-wrap items-end gap-4 mt-3 print:hidden">
        <label>
          <span className="block text-sm text-muted">Number of the sheets</span>
          <input
            type="number"
            min={1}
            max={9999}
            className="field figure w-32"
            value={seed}
            onChange={({ target }) =>
              setSeed(Math.min(9999, Math.max(1, Math.round(target.valueAsNumber) || 1)))
            }
          />
        </label>
        <label className="flex items-center gap-2 min-h-11 cursor-pointer">
          <input
            type="checkbox"
            className="size-5 accent-verdigris"
            checked={isShown}
            onChange={(event) => setShown(event.target.checked)}
          />
          Show what they hide
        </label>
        <button type="button" className="button" onClick={() => print()}>
          Print this page
        </button>
      </div>
      <ol className="divide-y divide-hairline mt-3">
        {EXERCISES.map((exercise, index) => (
          <li key={exercise.id} className="grid grid-cols-[2.2rem_1fr] gap-x-2 py-3 break-inside-avoid">
            <span className="figure text-xl text-muted">{index + 1}</span>
            <div>
              <a className="font-semibold" href={`/practice/${exercise.id}?seed=${seed}`}>
                {exercise.title}
              </a>
              <p>
                <strong>Teaches:</strong> {say(exercise.rule)}
              </p>
              <p className="text-muted">{exercise.forTeacher}</p>
              {isShown ? <Hidden exercise={exercise} seed={seed} /> : null}
            </div>
          </li>
        ))}
      </ol>
    </section>
  );
}

function Hidden({ exercise, seed }: { readonly exercise: Exercise; readonly seed: number }) {
  const [words, setWords] = useState('');
  useEffect(() => setWords(hiddenWords(exercise, seed)), [exercise, seed]);
  return <p className="note mt-1">{words}</p>;
}

/** What a sheet hides, for the teacher's eyes. */
function hiddenWords(exercise: Exercise, seed: number): string {
  if (exercise.kind === 'fault')
    return `Behind it: ${exercise.causes.map((cause) => factsOfCause(cause).words).join(' and ')}.`;
  if (exercise.kind === 'tabs') {
    const { tabLengthMm, right } = bestTabLength(openTabs(exercise, seed));
    return `Best: ${sayLength(tabLengthMm, 1)}, right ${Math.round(right * 100)} times in 100.`;
  }
  const open = openForce(exercise, seed);
  return exercise.passes
    .map((passes) => {
      const { force, right } = bestForce(open, passes);
      const how = exercise.passes.length > 1 ? ` in ${passes} ${passes === 1 ? 'pass' : 'passes'}` : '';
      return `Best${how}: ${wordForce(force, open.scale)}, right ${Math.round(right * 100)} times in 100.`;
    })
    .join(' ');
}
