import { useEffect, useRef, type ReactNode } from 'react';
import { EXERCISES, type Exercise } from '#core/practice/exercises.ts';

interface Props {
  readonly exercise: Exercise;
  readonly columns: readonly string[];
  /** The learner's row, and those of the others; `null` while they are played. */
  readonly mine: readonly ReactNode[];
  readonly others: readonly (readonly ReactNode[])[] | null;
  readonly verdict: string;
  readonly isGood: boolean;
}

/** What it cost and what was found, beside others on the same sheet; then the rule it teaches. */
export function ScoreTable({ exercise, columns, mine, others, verdict, isGood }: Props) {
  const top = useRef<HTMLElement>(null);
  useEffect(() => top.current?.scrollIntoView({ block: 'start' }), []);
  const next = EXERCISES[EXERCISES.findIndex(({ id }) => id === exercise.id) + 1];
  return (
    <section ref={top} aria-label="How it went" className="sheet p-4 sm:px-6 sm:py-5 scroll-mt-4">
      <h2 className="text-lg">How it went</h2>
      <p className="note mt-2" data-tone={isGood ? 'good' : 'careful'} role="status">
        {verdict}
      </p>
      <div className="overflow-x-auto mt-3" tabIndex={0} role="region" aria-label="Scores">
        <table className="w-full text-left">
          <thead>
            <tr className="text-sm text-muted border-b border-hairline">
              {['', ...columns].map((words) => (
                <th key={words} scope="col" className="py-1.5 pr-4 font-normal">
                  {words}
                </th>
              ))}
            </tr>
          </thead>
          <tbody className="divide-y divide-hairline">
            <Row cells={mine} isMine />
            {others?.map((cells) => (
              <Row key={String(cells[0])} cells={cells} />
            ))}
          </tbody>
        </table>
      </div>
      {others ? null : (
        <p role="status" className="text-muted mt-2">
          The others are cutting the same sheet …
        </p>
      )}
      <p className="mt-4 text-lg leading-snug">
        <strong>The rule:</strong> {exercise.rule}
      </p>
      <div className="flex flex-wrap gap-3 mt-4">
        <a className="button" href={`/practice/${exercise.id}`}>
          Again, another sheet
        </a>
        {next ? (
          <a className="button" data-kind="main" data-keys="n" href={`/practice/${next.id}`}>
            Next: {next.title}
          </a>
        ) : (
          <a className="button" data-kind="main" href="/practice">
            All exercises
          </a>
        )}
      </div>
    </section>
  );
}

function Row({ cells, isMine = false }: { readonly cells: readonly ReactNode[]; readonly isMine?: boolean }) {
  return (
    <tr className={isMine ? 'bg-verdigris-pale font-semibold' : ''}>
      {cells.map((cell, index) => {
        const key = `cell ${index}`;
        return index === 0 ? (
          <th key={key} scope="row" className="py-2 pr-4 pl-2 font-[inherit]">
            {cell}
          </th>
        ) : (
          <td key={key} className="figure py-2 pr-4">
            {cell}
          </td>
        );
      })}
    </tr>
  );
}
