import { useEffect, useState } from 'react';
import type { DriftCause } from '#core/wear/findDrift.ts';
import { DriftChart } from '#web/islands/drift/DriftChart.tsx';
import { callApi } from '#web/islands/shared/callApi.ts';
import { formatDay } from '#web/islands/shared/formatTime.ts';
import { Refusal } from '#web/islands/shared/Refusal.tsx';
import type { DriftReply } from '#web/schemas/drift.ts';
import { say } from '#web/islands/shared/units.ts';

interface Props {
  readonly machineId: number;
  readonly machineName: string;
}

const CAUSE_WORDS: Readonly<Record<DriftCause, string>> = {
  bladeWorn: 'the blade is worn',
  bladeFitted: 'the blade that was fitted',
  lot: 'another lot',
  sheet: 'one material only',
  damp: 'a damp room',
  mat: 'the mat',
  machine: 'the machine itself',
};

const ADVICE_WORDS = { good: 'is good', clean: 'clean it', change: 'change it' } as const;

/** Whether everything on a machine slowly needs another force: chart, alarm with causes, the blade's life left. */
export function DriftPanel({ machineId, machineName }: Props) {
  const [drift, setDrift] = useState<DriftReply | null>(null);
  const [error, setError] = useState<unknown>(null);
  useEffect(() => {
    callApi<DriftReply>(`/api/machines/${machineId}/drift`).then(setDrift, setError);
  }, [machineId]);
  const answer = (why: string) =>
    callApi<DriftReply>(`/api/machines/${machineId}/drift/answer`, 'POST', { why }).then(setDrift, setError);
  return (
    <section aria-label={`Drift on ${machineName}`} className="sheet p-4 sm:px-6 sm:py-5">
      <h2 className="text-lg">Does {machineName} drift?</h2>
      <Refusal error={error} />
      {drift ? (
        <>
          <Alarm drift={drift} onAnswer={(why) => void answer(why)} />
          {drift.points.length > 2 ? (
            <DriftChart drift={drift} />
          ) : (
            <p className="text-muted mt-2">
              The chart begins with the fourth graded cut of a sheet: grade test cuts, or a run before
              unloading.
            </p>
          )}
          <BladeLife drift={drift} />
        </>
      ) : error ? null : (
        <p role="status" className="text-muted mt-2">
          Comparing cuts with what was expected …
        </p>
      )}
    </section>
  );
}

function Alarm({
  drift,
  onAnswer,
}: {
  readonly drift: DriftReply;
  readonly onAnswer: (why: string) => void;
}) {
  if (!drift.alarm) {
    return drift.points.length > 2 ? (
      <p className="note mt-2" data-tone="good">
        Quiet: the last {drift.points.length} graded cuts went as expected.
      </p>
    ) : null;
  }
  const { direction, began, causes } = drift.alarm;
  const answers = ['Blade cleaned', 'Blade changed', 'Exposure set again', 'Looked: nothing found'];
  return (
    <div className="note mt-2" data-tone="problem" role="alert">
      <p className="font-semibold">
        Since {formatDay(began)} cuts need {direction} force than expected. Settings kept before are doubted.
      </p>
      <ol className="mt-1.5">
        {causes.slice(0, 4).map(({ cause, chance, reason }) => (
          <li key={cause} className="flex gap-3">
            <span className="figure w-14 text-right shrink-0">{Math.round(chance * 100)} %</span>
            <span>
              <strong>{CAUSE_WORDS[cause]}</strong>: {say(reason)}
            </span>
          </li>
        ))}
      </ol>
      <p className="mt-2 text-sm">What was done? Cuts are watched anew from then on.</p>
      <div className="flex flex-wrap gap-2 mt-1">
        {answers.map((why) => (
          <button key={why} type="button" className="button" onClick={() => onAnswer(why)}>
            {why}
          </button>
        ))}
      </div>
    </div>
  );
}

function BladeLife({ drift: { blade } }: { readonly drift: DriftReply }) {
  if (!blade) return null;
  const { number, advice, reason, lowMetres, highMetres, changes, freshFactor } = blade;
  const learnt =
    changes > 0
      ? `learnt from ${changes} ${changes === 1 ? 'change' : 'changes'} here`
      : 'as usual for its kind';
  return (
    <p className="mt-3">
      Blade no. {number} <strong>{ADVICE_WORDS[advice]}</strong>: {say(reason)}. It has{' '}
      <span className="figure">{say(`${Math.round(lowMetres)} to ${Math.round(highMetres)} m`)}</span> left, 8
      times in 10 ({learnt}). A fresh one would want{' '}
      <strong className="figure">{Math.round(100 * (1 - freshFactor))} %</strong> less force.
    </p>
  );
}
