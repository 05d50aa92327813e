import { CircleCheck } from 'lucide-react';
import { useEffect, useState } from 'react';
import { EXERCISES } from '#core/practice/exercises.ts';
import { say } from '#web/islands/shared/units.ts';
import { readDone, type DoneHere } from '#web/islands/practice/doneHere.ts';

/** The ten exercises, in order, with what was done in this browser. */
export function PracticeList() {
  const [done, setDone] = useState<Readonly<Record<string, DoneHere>>>({});
  useEffect(() => setDone(readDone()), []);
  return (
    <section aria-label="Practice" className="sheet p-4 sm:px-6 sm:py-5 max-w-4xl">
      <h1>Practice</h1>
      <p className="mt-1">
        Ten hidden sheets to cut and look at. Nothing is spent and nothing is kept: what you find here never
        reaches your settings.
      </p>
      <ol className="divide-y divide-hairline mt-3">
        {EXERCISES.map(({ id, title, story }, index) => (
          <li key={id}>
            <a
              href={`/practice/${id}`}
              className="grid grid-cols-[2.2rem_1fr_auto] gap-x-2 py-2.5 px-1 no-underline hover:bg-verdigris-pale items-start"
            >
              <span className="figure text-xl text-muted">{index + 1}</span>
              <span>
                <span className="font-semibold underline underline-offset-3">{title}</span>
                <span className="block text-sm text-muted">{say(story)}</span>
              </span>
              {done[id] ? <Done {...done[id]} /> : null}
            </a>
          </li>
        ))}
      </ol>
      <p className="mt-4 text-sm">
        Teaching others? <a href="/practice/teacher">The page for the teacher</a> gives everybody the same
        sheets and shows what they hide.
      </p>
    </section>
  );
}

function Done({ pieces, harm, isGood }: DoneHere) {
  return (
    <span className="text-sm text-right whitespace-nowrap">
      <span className={`inline-flex items-center gap-1 font-semibold ${isGood ? 'text-verdigris' : ''}`}>
        {isGood ? <CircleCheck size={16} aria-hidden /> : null} {isGood ? 'found' : 'tried'}
      </span>
      <span className="block text-muted">
        {pieces} cut{harm > 0 ? `, ${harm} harmed` : ''}
      </span>
    </span>
  );
}
