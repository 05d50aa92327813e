import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { callApi } from '#web/islands/shared/callApi.ts';
import type { Dial } from '#web/islands/testCuts/useDialIn.ts';
import type { ReasonsReply } from '#web/schemas/dialIn.ts';
import { say } from '#web/islands/shared/units.ts';

/** Why the answer is what it is: what each thing known of the sheet adds, and what each cut moved. */
export function Reasons({ dial, unit }: { readonly dial: Dial; readonly unit: string }) {
  const [isOpen, setOpen] = useState(false);
  const id = dial.dialIn?.id ?? null;
  const { data } = useQuery({
    queryKey: ['reasons', id, dial.dialIn?.version],
    queryFn: () => callApi<ReasonsReply>(`/api/dial-ins/${id ?? 0}/reasons`),
    enabled: isOpen && id !== null,
  });
  if (id === null) return null;
  return (
    <details className="sheet p-4 sm:p-5" onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary className="cursor-pointer text-muted min-h-8">Why this answer</summary>
      {data ? <ReasonList reasons={data} unit={unit} /> : <p className="mt-2 text-muted">Reading…</p>}
    </details>
  );
}

function ReasonList({ reasons, unit }: { readonly reasons: ReasonsReply; readonly unit: string }) {
  const gf = (value: number) => `${Math.round(value)} ${unit}`;
  return (
    <div className="text-sm mt-2 grid gap-3">
      <dl className="grid grid-cols-[1fr_auto_auto] gap-x-3 gap-y-1">
        <dt>usual for the family</dt>
        <dd className="figure text-right">{gf(reasons.usualGf)}</dd>
        <dd />
        {reasons.effects.map(({ words, percent, sdPercent }) => (
          <EffectRow key={words} words={words} percent={percent} sdPercent={sdPercent} />
        ))}
        <dt className="font-semibold border-t border-hairline pt-1">enough from, before any cut</dt>
        <dd className="figure text-right border-t border-hairline pt-1">{gf(reasons.believedGf.middleGf)}</dd>
        <dd className="text-muted figure border-t border-hairline pt-1">
          {Math.round(reasons.believedGf.lowGf)}–{Math.round(reasons.believedGf.highGf)}
        </dd>
        <dt className="font-semibold">enough from, now</dt>
        <dd className="figure text-right font-semibold">{gf(reasons.nowGf.middleGf)}</dd>
        <dd className="text-muted figure">
          {Math.round(reasons.nowGf.lowGf)}–{Math.round(reasons.nowGf.highGf)}
        </dd>
      </dl>
      {reasons.cuts.length > 0 ? (
        <div>
          <h3 className="text-muted">What each cut moved</h3>
          <ul className="divide-y divide-hairline">
            {reasons.cuts.map(({ id, words, percent }) => (
              <li key={id} className="flex justify-between gap-3 py-0.5">
                <span>{say(words)}</span>
                <span className="figure">{signed(percent)} %</span>
              </li>
            ))}
          </ul>
        </div>
      ) : null}
      <p className="text-muted">
        {reasons.knowledgeId === 0
          ? 'From common beliefs: nothing has been learnt from your cuts yet.'
          : `From fit ${reasons.knowledgeId} of all your cuts.`}{' '}
        <a href="/knowledge">What your cuts have taught</a>
      </p>
    </div>
  );
}

function EffectRow({ words, percent, sdPercent }: ReasonsReply['effects'][number]) {
  return (
    <>
      <dt>{say(words)}</dt>
      <dd className="figure text-right">{signed(percent)} %</dd>
      <dd className="text-muted figure">± {Math.round(sdPercent)}</dd>
    </>
  );
}

function signed(percent: number): string {
  const whole = Math.round(percent);
  if (whole === 0) return '0';
  return `${whole > 0 ? '+' : '−'}${Math.abs(whole)}`;
}
