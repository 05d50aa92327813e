import { useState } from 'react';
import type { SettingRevision } from '#core/setting/setting.ts';
import type { Machine } from '#core/station/machine.ts';
import { forceUnit, wordForce } from '#core/units/forceScale.ts';
import { Refusal } from '#web/islands/shared/Refusal.tsx';
import type { Dial } from '#web/islands/testCuts/useDialIn.ts';
import type { KeptReply } from '#web/schemas/dialIn.ts';
import type { BenchAnswer } from '#web/schemas/setting.ts';
import { sayNumber } from '#web/islands/shared/units.ts';

interface Props {
  readonly answer: NonNullable<BenchAnswer['answer']>;
  readonly machine: Machine;
  readonly dial: Dial;
  readonly revision: SettingRevision | null;
}

/** How sure the best force is, and keeping it as a new revision. */
export function KeepPanel({ answer, machine, dial, revision }: Props) {
  const [reason, setReason] = useState('');
  const unit = forceUnit(machine.forceScale);
  const { best } = answer.window;
  const inHundred = Math.round(best.right * 100);
  const isReady = answer.advice.kind === 'keep' && !dial.card;
  const hasCuts = dial.cuts.length > 0;
  return (
    <section aria-label="Keep" className={`sheet p-4 sm:p-5 ${isReady ? 'border-verdigris' : ''}`}>
      <h2 className="text-muted">Best so far</h2>
      <p className="mt-1">
        <span className="figure text-[2rem] font-bold">{answer.bestForce}</span>{' '}
        <span className="figure text-muted">{unit}</span>
      </p>
      <p>
        cuts right <strong>{inHundred} times in 100</strong>
      </p>
      <WhyNot under={best.under} over={best.over} />
      {hasCuts ? (
        <>
          <label className="block mt-3 text-sm text-muted" htmlFor="keep-reason">
            A word for later, if you like
          </label>
          <input
            id="keep-reason"
            className="field"
            maxLength={300}
            value={reason}
            onChange={(event) => setReason(event.target.value)}
          />
          <button
            type="button"
            data-keys="k"
            className="button mt-3 w-full"
            data-kind={isReady ? 'main' : undefined}
            disabled={dial.isBusy}
            onClick={() => dial.keep({ force: answer.bestForce, reason })}
          >
            Keep {wordForce(answer.bestForce, machine.forceScale)}
            {isReady ? '' : ' all the same'}
          </button>
        </>
      ) : (
        <p className="note mt-3" data-tone="careful">
          Only a prediction. It asks for a cut before it can be kept.
        </p>
      )}
      <Refusal error={dial.keepError} />
      {revision ? (
        <p className={`note mt-3`} data-tone={dial.kept ? 'good' : undefined} role="status">
          Kept: {wordForce(revision.values.force, machine.forceScale)}, revision {revision.revision} by{' '}
          {revision.author}. <a href="/">See it on the Bench</a>
        </p>
      ) : null}
      {dial.kept ? <Moved moved={dial.kept.moved} /> : null}
    </section>
  );
}

/** Why it is not a hundred: which side the rest falls on. */
function WhyNot({ under, over }: { readonly under: number; readonly over: number }) {
  const low = Math.round(under * 100);
  const high = Math.round(over * 100);
  if (low + high === 0) return null;
  const parts = [low > 0 ? `${low} too shallow` : '', high > 0 ? `${high} too deep` : ''].filter(Boolean);
  return <p className="text-sm text-muted">the rest: {parts.join(', ')}</p>;
}

/** What else in the book the evidence moved. Kept settings stay as they are. */
function Moved({ moved }: { readonly moved: KeptReply['moved'] }) {
  if (moved.length === 0) {
    return <p className="text-sm text-muted mt-2">No other prediction moved by half a percent.</p>;
  }
  return (
    <div className="text-sm mt-2">
      <p className="text-muted">What it taught about others (kept settings stay):</p>
      <ul>
        {moved.slice(0, 5).map(({ name, percent }) => (
          <li key={name} className="flex justify-between gap-3">
            <span>{name}</span>
            <span className="figure">
              {percent > 0 ? '+' : '−'}
              {sayNumber(Math.abs(percent), 1)} %
            </span>
          </li>
        ))}
      </ul>
    </div>
  );
}
