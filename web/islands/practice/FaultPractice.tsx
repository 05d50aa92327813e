import { useState } from 'react';
import { factsOfCause } from '#core/faults/causes.ts';
import { ACTION_FACTS, type Action } from '#core/faults/faultActions.ts';
import { FINDING_FACTS, type Finding } from '#core/faults/findings.ts';
import { SYMPTOM_WORDS } from '#core/faults/symptoms.ts';
import type { FaultExercise } from '#core/practice/exercises.ts';
import {
  adviseFault,
  scoreFault,
  tryAction,
  type FaultScore,
  type TriedAction,
} from '#core/practice/practiceFault.ts';
import { SymptomPicture } from '#web/components/symptomPicture/SymptomPicture.tsx';
import { keepDone } from '#web/islands/practice/doneHere.ts';
import { ExerciseHead } from '#web/islands/practice/ExerciseHead.tsx';
import { ScoreTable } from '#web/islands/practice/ScoreTable.tsx';
import { usePracticeThread } from '#web/islands/practice/usePracticeThread.ts';
import { sayNumber } from '#web/islands/shared/units.ts';

interface Props {
  readonly exercise: FaultExercise;
  readonly seed: number;
}

const LEFT_WORDS = {
  all: 'as before',
  some: 'better, not gone',
  none: 'the cut is right',
} as const;
const END_WORDS = { mended: 'mended', covered: 'covered up', there: 'still there' } as const;

/** Mend a fault, one thing at a time. */
export function FaultPractice({ exercise, seed }: Props) {
  const [tried, setTried] = useState<readonly TriedAction[]>([]);
  const [isAdvised, setAdvised] = useState(false);
  const [isOver, setOver] = useState(false);
  const open = { exercise, seed };
  const advised = isAdvised && !isOver ? adviseFault(open, tried) : null;
  const end = () => {
    const score = scoreFault(tried);
    keepDone(exercise.id, { pieces: score.tried, harm: 0, isGood: score.end === 'mended' });
    setOver(true);
  };
  return (
    <div className="grid gap-5 lg:grid-cols-[minmax(0,1fr)_22.5rem] items-start">
      <div className="grid gap-5">
        <section aria-label="Exercise" className="sheet p-4 sm:px-6 sm:py-5">
          <ExerciseHead exercise={exercise} isAdvised={isAdvised} onAdvice={setAdvised}>
            <Seen exercise={exercise} />
          </ExerciseHead>
          {isOver ? null : (
            <>
              <h2 className="mt-4">What do you try, and look again?</h2>
              <div role="group" aria-label="What to try" className="grid gap-2 sm:grid-cols-2 mt-2">
                {exercise.offered.map((action) => (
                  <TryButton
                    key={action}
                    action={action}
                    isTried={tried.some((one) => one.action === action)}
                    isAdvised={action === advised}
                    onTry={() => setTried([...tried, tryAction(open, tried, action)])}
                  />
                ))}
              </div>
              <button
                type="button"
                className="button mt-5"
                data-keys="k"
                data-kind={tried.at(-1)?.left === 'none' ? 'main' : undefined}
                disabled={tried.length === 0}
                onClick={end}
              >
                {tried.at(-1)?.left === 'none' ? 'It is mended' : 'Give up'}
              </button>
            </>
          )}
        </section>
        {isOver ? <FaultResult exercise={exercise} seed={seed} mine={scoreFault(tried)} /> : null}
      </div>
      <Tried tried={tried} />
    </div>
  );
}

function Seen({ exercise: { symptoms, known } }: Pick<Props, 'exercise'>) {
  const facts = Object.entries(known).map(([finding, is]) => {
    const { words } = FINDING_FACTS[finding as Finding];
    return is ? words : `not so: ${words}`;
  });
  return (
    <>
      <ul className="flex flex-wrap gap-5 mt-3">
        {symptoms.map((symptom) => (
          <li key={symptom} className="flex items-center gap-2">
            <SymptomPicture symptom={symptom} /> {SYMPTOM_WORDS[symptom]}
          </li>
        ))}
      </ul>
      <ul className="list-disc pl-5 mt-2 text-muted">
        {facts.map((words) => (
          <li key={words}>{words}</li>
        ))}
      </ul>
    </>
  );
}

interface TryProps {
  readonly action: Action;
  readonly isTried: boolean;
  readonly isAdvised: boolean;
  readonly onTry: () => void;
}

function TryButton({ action, isTried, isAdvised, onTry }: TryProps) {
  const { words, how, minutes } = ACTION_FACTS[action];
  return (
    <button
      type="button"
      disabled={isTried}
      onClick={onTry}
      className={`button flex-col items-start gap-0 text-left px-3 ${isAdvised ? 'border-verdigris shadow-[inset_4px_0_0_var(--color-verdigris)]' : ''}`}
    >
      <span>
        {words}
        {isAdvised ? <span className="font-normal text-verdigris"> · advised</span> : null}
      </span>
      <span className="text-sm font-normal text-muted">
        {how} · {minutes} min
      </span>
    </button>
  );
}

function Tried({ tried }: { readonly tried: readonly TriedAction[] }) {
  return (
    <section aria-label="What was tried" className="sheet p-4 sm:p-5">
      <h2 className="text-muted">What was tried</h2>
      {tried.length === 0 ? <p>Nothing yet. Read what is seen and known first.</p> : null}
      <ol className="divide-y divide-hairline mt-1" aria-live="polite">
        {tried.map(({ action, left }, index) => (
          <li key={action} className="flex gap-3 py-1.5">
            <span className="figure text-muted w-6">{index + 1}</span>
            <span className="grow">{ACTION_FACTS[action].words}</span>
            <span className={left === 'none' ? 'font-semibold text-verdigris' : 'font-semibold'}>
              {LEFT_WORDS[left]}
            </span>
          </li>
        ))}
      </ol>
    </section>
  );
}

function FaultResult({ exercise, seed, mine }: Props & { readonly mine: FaultScore }) {
  const others = usePracticeThread(`${exercise.id} ${seed}`, (thread) =>
    thread.othersOfFault(exercise.id, seed),
  );
  const row = ({ name, tried, sheets, minutes, end }: FaultScore) => [
    name,
    tried,
    sayNumber(sheets, 1),
    `${sayNumber(minutes)} min`,
    END_WORDS[end],
  ];
  const causes = exercise.causes.map((cause) => factsOfCause(cause).words).join(' and ');
  const verdict = {
    mended: `Mended. It was ${causes}.`,
    covered: `The cut is right for now, but ${causes} is still there: it will come back.`,
    there: `It is still there. It was ${causes}.`,
  }[mine.end];
  return (
    <ScoreTable
      exercise={exercise}
      columns={['Things tried', 'Sheets', 'Time', 'End']}
      mine={row(mine)}
      others={others?.map(row) ?? null}
      isGood={mine.end === 'mended'}
      verdict={verdict}
    />
  );
}
