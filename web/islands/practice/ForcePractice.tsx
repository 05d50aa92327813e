import { useMemo, useState, type ReactNode } from 'react';
import { POOR_CHANCE, type CutAdvice } from '#core/dialIn/adviseNextCut.ts';
import type { ForceExercise } from '#core/practice/exercises.ts';
import {
  bestForce,
  cutPiece,
  openForce,
  scoreForce,
  type CutPiece,
  type ForceScore,
  type OpenForce,
} from '#core/practice/practiceForce.ts';
import { wordForce } from '#core/units/forceScale.ts';
import { GOOD_SHARE, keepDone } from '#web/islands/practice/doneHere.ts';
import { ExerciseHead } from '#web/islands/practice/ExerciseHead.tsx';
import { Advice, ForceDial, Pieces, Told } from '#web/islands/practice/ForceParts.tsx';
import { ScoreTable } from '#web/islands/practice/ScoreTable.tsx';
import { usePracticeThread } from '#web/islands/practice/usePracticeThread.ts';
import { sayNumber } from '#web/islands/shared/units.ts';

interface Props {
  readonly exercise: ForceExercise;
  readonly seed: number;
}

/** What was kept: a force and its passes, or `null` for "no force is right". */
type Kept = { readonly kept: number | null; readonly passes: number } | null;

type Search = ReturnType<typeof useForceSearch>;

/** What is dialled, what was cut, and what was kept in the end. */
function useForceSearch(exercise: ForceExercise, seed: number) {
  const open = useMemo(() => openForce(exercise, seed), [exercise, seed]);
  const [force, setForce] = useState(open.scale.min);
  const [passes, setPasses] = useState(exercise.passes[0] ?? 1);
  const [pieces, setPieces] = useState<readonly CutPiece[]>([]);
  const [kept, setKept] = useState<Kept>(null);
  return {
    open,
    force,
    setForce,
    passes,
    setPasses,
    pieces,
    kept,
    cut: () => setPieces([...pieces, cutPiece(open, pieces.length, force, passes)]),
    keep: (value: number | null) => {
      const found = { kept: value, passes };
      const score = scoreForce(open, pieces, found);
      keepDone(exercise.id, { pieces: score.pieces, harm: score.harm, isGood: isGood(open, score) });
      setKept(found);
    },
  };
}

/** Find the force of a hidden sheet by cutting and looking. */
export function ForcePractice({ exercise, seed }: Props) {
  const search = useForceSearch(exercise, seed);
  const { open, pieces, passes, kept } = search;
  const [isAdvised, setAdvised] = useState(false);
  const advice = usePracticeThread(
    isAdvised && !kept ? `${seed} ${passes} ${pieces.length}` : null,
    async (thread): Promise<CutAdvice> => thread.adviseForce(exercise.id, seed, pieces, passes),
  );
  return (
    <div className="grid gap-5 lg:grid-cols-[minmax(0,1fr)_22.5rem] items-start">
      <div className="grid gap-5">
        <section aria-label="Exercise" className="sheet p-4 sm:px-6 sm:py-5">
          <ExerciseHead exercise={exercise} isAdvised={isAdvised} onAdvice={setAdvised}>
            <Told open={open} />
          </ExerciseHead>
          {kept ? null : (
            <Dials search={search}>
              {isAdvised ? <Advice advice={advice} scale={open.scale} onTake={search.setForce} /> : null}
            </Dials>
          )}
        </section>
        {kept ? <ForceResult open={open} pieces={pieces} kept={kept} /> : null}
      </div>
      <Pieces open={open} pieces={pieces} isNamed={isAdvised || kept !== null} />
    </div>
  );
}

/** What hands do: dial, cut, and say when it is found. */
function Dials({ search, children }: { readonly search: Search; readonly children: ReactNode }) {
  const { open, force, setForce, passes, setPasses, pieces, cut, keep } = search;
  const { exercise, scale } = open;
  return (
    <>
      <div className="flex flex-wrap items-end gap-3 mt-4">
        <ForceDial scale={scale} force={force} onChange={setForce} onCut={cut} />
        {exercise.passes.length > 1 ? (
          <label>
            <span className="block text-sm text-muted">Passes</span>
            <select
              className="field w-24"
              value={passes}
              onChange={(event) => setPasses(Number(event.target.value))}
            >
              {exercise.passes.map((count) => (
                <option key={count}>{count}</option>
              ))}
            </select>
          </label>
        ) : null}
        <button type="button" className="button" data-kind="main" data-keys="c" onClick={cut}>
          Cut a piece
        </button>
      </div>
      {children}
      <div className="flex flex-wrap gap-3 mt-5 border-t border-hairline pt-4">
        <button
          type="button"
          className="button"
          data-keys="k"
          disabled={pieces.length === 0}
          onClick={() => keep(force)}
        >
          Keep {wordForce(force, scale)}
        </button>
        <button type="button" className="button" disabled={pieces.length === 0} onClick={() => keep(null)}>
          No force is right
        </button>
      </div>
    </>
  );
}

function isGood(open: OpenForce, { right, kept }: ForceScore): boolean {
  if (kept === null) return right === 1;
  const best = Math.max(...open.exercise.passes.map((passes) => bestForce(open, passes).right));
  return best >= POOR_CHANCE && right >= GOOD_SHARE * best;
}

interface ResultProps {
  readonly open: OpenForce;
  readonly pieces: readonly CutPiece[];
  readonly kept: NonNullable<Kept>;
}

function ForceResult({ open, pieces, kept }: ResultProps) {
  const { exercise, seed, scale } = open;
  const others = usePracticeThread(`${exercise.id} ${seed}`, (thread) =>
    thread.othersOfForce(exercise.id, seed),
  );
  const mine = scoreForce(open, pieces, kept);
  const good = isGood(open, mine);
  const row = (score: ForceScore) => [
    score.name,
    score.pieces,
    score.harm,
    `${sayNumber(score.minutes)} min`,
    score.kept === null
      ? 'none is right'
      : `${wordForce(score.kept, scale)}${score.passes > 1 ? `, ${score.passes} passes` : ''}`,
    score.kept === null
      ? score.right === 1
        ? 'true'
        : 'not true'
      : `${Math.round(score.right * 100)} of 100`,
  ];
  return (
    <ScoreTable
      exercise={exercise}
      columns={['Pieces', 'Harm', 'Time', 'Kept', 'Right']}
      mine={row(mine)}
      others={others?.map(row) ?? null}
      isGood={good}
      verdict={verdictOf(open, mine, good)}
    />
  );
}

function verdictOf(open: OpenForce, { kept, right }: ForceScore, isFound: boolean): string {
  const best = open.exercise.passes
    .map((passes) => ({ ...bestForce(open, passes), passes }))
    .reduce((most, one) => (one.right > most.right ? one : most));
  const at = `${wordForce(best.force, open.scale)}${best.passes > 1 ? ` in ${best.passes} passes` : ''}`;
  const there = `The best is ${at}: right ${Math.round(best.right * 100)} times in 100.`;
  if (kept === null) return isFound ? `Yes: no force is right here. ${there}` : `There is one. ${there}`;
  if (best.right < POOR_CHANCE) return `No force is right here, and it is better to say so. ${there}`;
  const mine = `Yours is right ${Math.round(right * 100)} times in 100.`;
  return isFound ? `Found. ${mine} ${there}` : `Not yet. ${mine} ${there}`;
}
