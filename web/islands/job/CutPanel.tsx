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
  if (!plan) return <p role="status">Working the order out …</p>;
  if (plan.problem) return <PlanProblem problem={plan.problem} />;
  const send = async () => {
    setBusy(true);
    setError(null);
    try {
      const { id } = await callApi<{ id: number }>(`/api/jobs/${jobId}/runs?sheet=${sheetNumber}`, 'POST');
      location.assign(`/runs/${id}`);
    } catch (refusal) {
      setError(refusal);
      setBusy(false);
    }
  };
  return (
    <>
      <h2>To the machine</h2>
      <Checklist plan={plan} machine={machine} />
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
              {plan.parts > 1 ? `, part ${index + 1} of ${plan.parts}` : ''} (HPGL)
            </a>
          </li>
        ))}
      </ul>
    </>
  );
}

function Checklist({ plan, machine }: { readonly plan: PlanReply; readonly machine: Machine }) {
  const bladed = plan.passes.find(({ role }) => role !== 'crease');
  return (
    <ul className="list-disc pl-5 mt-2 grid gap-1">
      <li>Ink and laminate are dry, the sheet lies square and is pressed down.</li>
      {bladed ? (
        <li>
          The exposure is set to {bladed.values.exposureMm.toFixed(2)} mm: it is set by hand, no file carries
          it.
        </li>
      ) : null}
      <li>
        {machine.numbersOwner === 'file'
          ? 'The file carries force and speed: leave the panel alone.'
          : 'The panel owns force and speed: dial what the run asks for.'}
      </li>
      <li>Hands, hair and cords are clear of the carriage.</li>
    </ul>
  );
}
