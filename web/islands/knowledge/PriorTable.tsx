import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { callApi } from '#web/islands/shared/callApi.ts';
import { Refusal } from '#web/islands/shared/Refusal.tsx';
import type { KnowledgeReply, PriorReply } from '#web/schemas/knowledge.ts';
import { say, sayNumber } from '#web/islands/shared/units.ts';

interface Props {
  readonly priors: readonly PriorReply[];
  readonly onChanged: (reply: KnowledgeReply) => void;
}

/** Every belief that answers start from, with its reason; the workshop may put its own in place of any. */
export function PriorTable({ priors, onChanged }: Props) {
  const [edited, setEdited] = useState<string | null>(null);
  return (
    <details className="sheet p-4 sm:p-5">
      <summary className="cursor-pointer font-semibold min-h-8">
        Beliefs before any cut ({priors.filter(({ author }) => author).length} of {priors.length} are your
        own)
      </summary>
      <p className="text-sm text-muted mt-1">
        {say('On ln force: 0.10 is about a tenth more.')} The spread says how far it may be off.
      </p>
      <ul className="divide-y divide-hairline mt-2">
        {priors.map((prior) => (
          <li key={prior.name} className="py-1.5">
            {edited === prior.name ? (
              <PriorForm
                prior={prior}
                onDone={(reply) => {
                  if (reply) onChanged(reply);
                  setEdited(null);
                }}
              />
            ) : (
              <div className="grid sm:grid-cols-[1fr_11rem_auto] gap-x-4 items-center">
                <span>
                  {say(prior.reason)}
                  {prior.author ? (
                    <span className="block text-sm text-muted">
                      {prior.author}&apos;s own; commonly {sayNumber(prior.commonMean, 2)} ±{' '}
                      {sayNumber(prior.commonSd, 2)}
                    </span>
                  ) : null}
                </span>
                <span className="figure sm:text-right">
                  {sayNumber(prior.mean, 2)} ± {sayNumber(prior.sd, 2)}
                </span>
                <button
                  type="button"
                  className="button px-3"
                  data-kind="quiet"
                  onClick={() => setEdited(prior.name)}
                  aria-label={say(`Change: ${prior.reason}`)}
                >
                  Change
                </button>
              </div>
            )}
          </li>
        ))}
      </ul>
    </details>
  );
}

interface FormProps {
  readonly prior: PriorReply;
  readonly onDone: (reply: KnowledgeReply | null) => void;
}

function PriorForm({ prior, onDone }: FormProps) {
  const [mean, setMean] = useState(String(Number(prior.mean.toFixed(3))));
  const [sd, setSd] = useState(String(Number(prior.sd.toFixed(3))));
  const [reason, setReason] = useState(prior.author ? prior.reason : '');
  const path = `/api/knowledge/priors/${prior.name}`;
  const save = useMutation({
    mutationFn: () => callApi<KnowledgeReply>(path, 'PUT', { mean: Number(mean), sd: Number(sd), reason }),
    onSuccess: onDone,
  });
  const drop = useMutation({ mutationFn: () => callApi<KnowledgeReply>(path, 'DELETE'), onSuccess: onDone });
  return (
    <form
      className="grid sm:grid-cols-[6rem_6rem_1fr] gap-3 items-end"
      onSubmit={(event) => {
        event.preventDefault();
        save.mutate();
      }}
    >
      <p className="sm:col-span-3">{prior.commonReason}</p>
      <label className="block text-sm text-muted">
        middle
        <input className="field" value={mean} onChange={(event) => setMean(event.target.value)} />
      </label>
      <label className="block text-sm text-muted">
        spread
        <input className="field" value={sd} onChange={(event) => setSd(event.target.value)} />
      </label>
      <label className="block text-sm text-muted">
        why
        <input
          className="field"
          value={reason}
          maxLength={300}
          onChange={(event) => setReason(event.target.value)}
        />
      </label>
      <div className="sm:col-span-3 flex gap-3">
        <button type="submit" className="button" data-kind="main" disabled={save.isPending}>
          Keep this belief
        </button>
        {prior.author ? (
          <button type="button" className="button" disabled={drop.isPending} onClick={() => drop.mutate()}>
            Back to the common one
          </button>
        ) : null}
        <button type="button" className="button" data-kind="quiet" onClick={() => onDone(null)}>
          Cancel
        </button>
      </div>
      <div className="sm:col-span-3">
        <Refusal error={save.error ?? drop.error} />
      </div>
    </form>
  );
}
