import { useMemo, useState, type ReactNode } from 'react';
import { TABS_MM } from '#core/perforation/tabModel.ts';
import type { TabExercise } from '#core/practice/exercises.ts';
import {
  bestTabLength,
  openTabs,
  pushPiece,
  scoreTabs,
  TAB_OUTCOMES,
  type PushedPiece,
  type TabScore,
} from '#core/practice/practiceTabs.ts';
import { GOOD_SHARE, keepDone } from '#web/islands/practice/doneHere.ts';
import { ExerciseHead } from '#web/islands/practice/ExerciseHead.tsx';
import { ScoreTable } from '#web/islands/practice/ScoreTable.tsx';
import { usePracticeThread } from '#web/islands/practice/usePracticeThread.ts';
import { sayCaliper, sayLength, sayNumber } from '#web/islands/shared/units.ts';

interface Props {
  readonly exercise: TabExercise;
  readonly seed: number;
}

/** Find the tab length of a hidden card by pushing pieces out. */
export function TabPractice({ exercise, seed }: Props) {
  const open = useMemo(() => openTabs(exercise, seed), [exercise, seed]);
  const best = useMemo(() => bestTabLength(open), [open]);
  const [length, setLength] = useState(1);
  const [pieces, setPieces] = useState<readonly PushedPiece[]>([]);
  const [isAdvised, setAdvised] = useState(false);
  const [kept, setKept] = useState<number | null>(null);
  const isGood = (score: TabScore) => score.right >= GOOD_SHARE * best.right;
  const keep = () => {
    const score = scoreTabs(open, pieces, length);
    keepDone(exercise.id, { pieces: score.pieces, harm: score.harm, isGood: isGood(score) });
    setKept(length);
  };
  return (
    <div className="grid gap-5 lg:grid-cols-[minmax(0,1fr)_22.5rem] items-start">
      <div className="grid gap-5">
        <section aria-label="Exercise" className="sheet p-4 sm:px-6 sm:py-5">
          <ExerciseHead exercise={exercise} isAdvised={isAdvised} onAdvice={setAdvised}>
            <p className="text-muted mt-2">
              Card, {sayCaliper(exercise.caliperUm)} · a square of {sayLength(50, 0)} · cut every{' '}
              {sayLength(exercise.cutLengthMm, 0)}
            </p>
          </ExerciseHead>
          {kept === null ? (
            <TabDials
              {...{ length, setLength, keep }}
              canKeep={pieces.length > 0}
              onPush={() => setPieces([...pieces, pushPiece(open, pieces.length, length)])}
            >
              {isAdvised ? <TabAdviceLine {...{ exercise, seed, pieces }} /> : null}
            </TabDials>
          ) : null}
        </section>
        {kept === null ? null : (
          <TabResult
            {...{ exercise, seed }}
            mine={scoreTabs(open, pieces, kept)}
            best={best}
            isGood={isGood}
          />
        )}
      </div>
      <Pushed pieces={pieces} />
    </div>
  );
}

interface DialsProps {
  readonly length: number;
  readonly setLength: (mm: number) => void;
  readonly keep: () => void;
  readonly canKeep: boolean;
  readonly onPush: () => void;
  readonly children: ReactNode;
}

function TabDials({ length, setLength, keep, canKeep, onPush, children }: DialsProps) {
  return (
    <>
      <div className="flex flex-wrap items-end gap-3 mt-4">
        <label>
          <span className="block text-sm text-muted">Tab length</span>
          <select
            className="field w-36 figure"
            value={length}
            onChange={(event) => setLength(Number(event.target.value))}
          >
            {TABS_MM.map((mm) => (
              <option key={mm} value={mm}>
                {sayLength(mm, 1)}
              </option>
            ))}
          </select>
        </label>
        <button type="button" className="button" data-kind="main" data-keys="c" onClick={onPush}>
          Cut a piece and push it out
        </button>
      </div>
      {children}
      <button type="button" className="button mt-5" data-keys="k" disabled={!canKeep} onClick={keep}>
        Keep {sayLength(length, 1)}
      </button>
    </>
  );
}

function TabAdviceLine({ exercise, seed, pieces }: Props & { readonly pieces: readonly PushedPiece[] }) {
  const advice = usePracticeThread(`${seed} ${pieces.length}`, (thread) =>
    thread.adviseTabs(exercise.id, seed, pieces),
  );
  return (
    <p className="note mt-3" role="status">
      {advice
        ? `Try ${sayLength(advice.tabLengthMm, 1)}: right ${Math.round(advice.right * 100)} times in 100, as far as it is known.`
        : 'Thinking …'}
    </p>
  );
}

/** What came of each piece, the newest first. */
function Pushed({ pieces }: { readonly pieces: readonly PushedPiece[] }) {
  return (
    <section aria-label="Pieces pushed" className="sheet p-4 sm:p-5">
      <h2 className="text-muted">Pieces pushed</h2>
      {pieces.length === 0 ? <p>None yet. Choose a length and cut one.</p> : null}
      <ol className="divide-y divide-hairline mt-1" aria-live="polite">
        {pieces
          .map((piece, index) => ({ ...piece, number: index + 1 }))
          .reverse()
          .map(({ number, tabLengthMm, seen }) => (
            <li key={number} className="flex gap-3 py-1.5">
              <span className="figure text-muted w-6">{number}</span>
              <span className="figure w-20">{sayLength(tabLengthMm, 1)}</span>
              <span className="font-semibold">{TAB_OUTCOMES[seen]}</span>
            </li>
          ))}
      </ol>
    </section>
  );
}

interface ResultProps extends Props {
  readonly mine: TabScore;
  readonly best: { readonly tabLengthMm: number; readonly right: number };
  readonly isGood: (score: TabScore) => boolean;
}

function TabResult({ exercise, seed, mine, best, isGood }: ResultProps) {
  const others = usePracticeThread(`${exercise.id} ${seed}`, (thread) =>
    thread.othersOfTabs(exercise.id, seed),
  );
  const row = ({ name, pieces, harm, minutes, kept, right }: TabScore) => [
    name,
    pieces,
    harm,
    `${sayNumber(minutes)} min`,
    sayLength(kept, 1),
    `${Math.round(right * 100)} of 100`,
  ];
  const there = `The best is ${sayLength(best.tabLengthMm, 1)}: right ${Math.round(best.right * 100)} times in 100.`;
  return (
    <ScoreTable
      exercise={exercise}
      columns={['Pieces', 'Lost', 'Time', 'Kept', 'Right']}
      mine={row(mine)}
      others={others?.map(row) ?? null}
      isGood={isGood(mine)}
      verdict={`${isGood(mine) ? 'Found.' : 'Not yet.'} Yours is right ${Math.round(mine.right * 100)} times in 100. ${there}`}
    />
  );
}
