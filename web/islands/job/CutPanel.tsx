import { Download, Send } from 'lucide-react';
import { useState } from 'react';
import type { Machine } from '#core/station/machine.ts';
import { PlanProblem } from '#web/islands/job/PassesPanel.tsx';
import { callApi } from '#web/islands/shared/callApi.ts';
import { formatDuration } from '#web/islands/shared/formatTime.ts';
import { Refusal } from '#web/islands/shared/Refusal.tsx';
import type { PlanReply } from '#web/schemas/job.ts';

interface Props {
  readonly jobId: number;
  readonly plan: PlanReply | null;
  readonly machine: Machine;
  readonly sheetNumber: number;
}

/** Sending the job to its machine, or taking its file there. */
export function CutPanel({ jobId, plan, machine, sheetNumber }: Props) {
  const [error, setError] = useState<unknown>(null);
  const [isBusy, setBusy] = useState(false);
  // Pressed twice, or sent again by a weak link, it is one run.
  const [requestKey] = useState(() => crypto.randomUUID());
  if (!plan) return <p role="status">Working the order out …</p>;
  if (plan.problem) return <PlanProblem problem={plan.problem} />;
  const send = async () => {
    setBusy(true);
    setError(null);
    try {
      const path = `/api/jobs/${jobId}/runs?sheet=${sheetNumber}`;
      const { id } = await callApi<{ id: number }>(path, 'POST', { requestKey });
      location.assign(`/runs/${id}`);
    } catch (refusal) {
      setError(refusal);
      setBusy(false);
    }
  };
  return (
    <>
      <h2>To the machine</h2>
      <Checklist plan={plan} />
      <button
        type="button"
        className="button w-full mt-4"
        data-kind="main"
        disabled={isBusy || machine.link.kind === 'none'}
        onClick={send}
      >
        <Send size={18} aria-hidden /> Send to {machine.name} · {formatDuration(plan.seconds)}
      </button>
      {machine.link.kind === 'none' ? (
        <p className="text-sm text-muted mt-1">{machine.name} has no link: take the file there.</p>
      ) : null}
      {machine.link.kind === 'standIn' ? (
        <p className="text-sm text-muted mt-1">A stand-in cutter takes it: practice, no sheet is spent.</p>
      ) : null}
      <Refusal error={error} />
      <ul className="mt-4 grid gap-2">
        {Array.from({ length: plan.parts }, (_, index) => (
          <li key={index}>
            <a
              className="button w-full"
              href={`/api/jobs/${jobId}/machine-file?sheet=${sheetNumber}&part=${index + 1}`}
              download
            >
              <Download size={18} aria-hidden /> Machine file
              {plan.parts > 1 ? `, part ${index + 1} of ${plan.parts}` : ''}
            </a>
          </li>
        ))}
      </ul>
    </>
  );
}

/** What to look at before the run: what is open now stands first and apart. */
function Checklist({ plan }: { readonly plan: PlanReply }) {
  return (
    <ul className="grid gap-2 mt-2">
      {plan.checklist.map(({ words, reason, state }) => (
        <li key={words} className={state === 'open' ? 'note' : 'pl-3'} data-tone="careful">
          <span className="font-semibold">{words}</span>
          <span className="block text-sm text-muted">{reason}</span>
        </li>
      ))}
    </ul>
  );
}
