import { Download, Send } from 'lucide-react';
import { useState } from 'react';
import type { WayOut } from '#core/job/composeChecklist.ts';
import type { Machine } from '#core/station/machine.ts';
import { PlanProblem } from '#web/islands/job/PassesPanel.tsx';
import type { Step } from '#web/islands/job/useJob.ts';
import { callApi } from '#web/islands/shared/callApi.ts';
import { formatDuration } from '#web/islands/shared/formatTime.ts';
import { Refusal } from '#web/islands/shared/Refusal.tsx';
import { TickBox } from '#web/islands/shared/TickBox.tsx';
import type { PlanReply } from '#web/schemas/plan.ts';
import { say } from '#web/islands/shared/units.ts';

interface Props {
  readonly jobId: number;
  readonly plan: PlanReply | null;
  readonly machine: Machine;
  readonly sheetNumber: number;
  readonly onStep: (step: Step) => void;
  /** The version of the job that is shown. */
  readonly version: number;
  /** Whether a change is still being kept, or worked out: what is shown is not yet what would be cut. */
  readonly isUnsettled: boolean;
}

/** Sending the job to its machine, or taking its file there. */
export function CutPanel({ jobId, plan, machine, sheetNumber, onStep, version, isUnsettled }: Props) {
  const [error, setError] = useState<unknown>(null);
  const [isBusy, setBusy] = useState(false);
  const [accepted, setAccepted] = useState<readonly string[]>([]);
  // Pressed twice, or sent again by a weak link, it is one run.
  const [requestKey] = useState(() => crypto.randomUUID());
  if (!plan) return <p role="status">Working out the order …</p>;
  if (plan.problem) return <PlanProblem problem={plan.problem} />;
  const isStopped = plan.checklist.some(({ state, id = '' }) => state === 'stop' && !accepted.includes(id));
  const accept = (id: string, isAccepted: boolean) =>
    setAccepted(isAccepted ? [...accepted, id] : accepted.filter((one) => one !== id));
  const send = async () => {
    setBusy(true);
    setError(null);
    try {
      const path = `/api/jobs/${jobId}/runs?sheet=${sheetNumber}`;
      const { id } = await callApi<{ id: number }>(path, 'POST', { requestKey, accepted, version });
      location.assign(`/runs/${id}`);
    } catch (refusal) {
      setError(refusal);
      setBusy(false);
    }
  };
  return (
    <>
      <h2>To the machine</h2>
      <Checklist plan={plan} machine={machine} accepted={accepted} onAccept={accept} onStep={onStep} />
      <button
        type="button"
        className="button w-full mt-4"
        data-kind="main"
        disabled={isBusy || isUnsettled || isStopped || machine.link.kind === 'none'}
        onClick={send}
      >
        <Send size={18} aria-hidden /> Send to {machine.name} · {formatDuration(plan.seconds)}
      </button>
      {isStopped ? (
        <p className="text-sm text-ember mt-1">Fix what is red above, or tick it to send anyway.</p>
      ) : null}
      {machine.link.kind === 'none' ? (
        <p className="text-sm text-muted mt-1">{machine.name} has no link: take the file there.</p>
      ) : null}
      {machine.link.kind === 'standIn' ? (
        <p className="text-sm text-muted mt-1">A stand-in cutter takes it: practice, no sheet is spent.</p>
      ) : null}
      <Refusal error={error} />
      <MachineFiles jobId={jobId} parts={plan.parts} sheetNumber={sheetNumber} />
    </>
  );
}

/** A file for every part, to be taken to the machine. */
function MachineFiles({
  jobId,
  parts,
  sheetNumber,
}: Pick<Props, 'jobId' | 'sheetNumber'> & { readonly parts: number }) {
  return (
    <ul className="mt-4 grid gap-2">
      {Array.from({ length: parts }, (_, index) => (
        <li key={index}>
          <a
            className="button w-full"
            href={`/api/jobs/${jobId}/machine-file?sheet=${sheetNumber}&part=${index + 1}`}
            download
          >
            <Download size={18} aria-hidden /> Machine file
            {parts > 1 ? `, part ${index + 1} of ${parts}` : ''}
          </a>
        </li>
      ))}
    </ul>
  );
}

interface ListProps {
  readonly plan: PlanReply;
  readonly machine: Machine;
  readonly accepted: readonly string[];
  readonly onAccept: (id: string, isAccepted: boolean) => void;
  readonly onStep: (step: Step) => void;
}

/** What to look at before the run: what stops it first, then what may go wrong, each with its way out. */
function Checklist({ plan, machine, accepted, onAccept, onStep }: ListProps) {
  return (
    <ul className="grid gap-2 mt-2">
      {plan.checklist.map(({ words, reason, state, id = '', way }) => (
        <li
          key={words}
          className={state === 'toDo' ? 'pl-3' : 'note'}
          data-tone={state === 'stop' ? 'problem' : 'careful'}
        >
          <span className="font-semibold">{say(words)}</span>
          <span className="block text-sm text-muted">{say(reason)}</span>
          {way ? <Way {...way} machine={machine} onStep={onStep} /> : null}
          {id.startsWith('standing:') ? <PutAway id={id.slice('standing:'.length)} /> : null}
          {state === 'stop' ? (
            <TickBox
              label="I have seen it: send it anyway"
              isOn={accepted.includes(id)}
              onSet={(isOn) => onAccept(id, isOn)}
            />
          ) : null}
        </li>
      ))}
    </ul>
  );
}

interface WayProps {
  readonly words: string;
  readonly step: WayOut;
  readonly machine: Machine;
  readonly onStep: (step: Step) => void;
}

/** Where something is put right: a step of this job, or another page. */
function Way({ words, step, machine, onStep }: WayProps) {
  const page = { bench: '/', machine: `/machines/${machine.id}`, day: '/day' };
  if (step === 'bench' || step === 'machine' || step === 'day') {
    return (
      <a href={page[step]} className="text-sm font-semibold inline-block py-1">
        {say(words)}
      </a>
    );
  }
  return (
    <button
      type="button"
      className="underline cursor-pointer text-sm font-semibold py-1"
      onClick={() => onStep(step)}
    >
      {say(words)}
    </button>
  );
}

/** What helped once need not be looked at for ever. */
function PutAway({ id }: { readonly id: string }) {
  const [isAway, setAway] = useState(false);
  const [error, setError] = useState<unknown>(null);
  const putAway = () => callApi(`/api/faults/${id}/standing`, 'DELETE').then(() => setAway(true), setError);
  if (isAway) return <span className="text-sm text-muted">Put away: it is not asked again.</span>;
  return (
    <>
      <button type="button" className="underline cursor-pointer text-sm py-1" onClick={() => void putAway()}>
        Put this check away
      </button>
      <Refusal error={error} />
    </>
  );
}
