import { QueryClientProvider, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { callApi } from '#web/islands/shared/callApi.ts';
import { formatMoment } from '#web/islands/shared/formatTime.ts';
import { makeQueryClient } from '#web/islands/shared/queryClient.ts';
import { Refusal } from '#web/islands/shared/Refusal.tsx';
import { EffectPlot } from '#web/islands/knowledge/EffectPlot.tsx';
import { PriorTable } from '#web/islands/knowledge/PriorTable.tsx';
import { UsualForces } from '#web/islands/knowledge/UsualForces.tsx';
import { Sharing } from '#web/islands/knowledge/Sharing.tsx';
import type { SharingReply } from '#web/schemas/sharing.ts';
import type { KnowledgeReply } from '#web/schemas/knowledge.ts';
import { sayNumber } from '#web/islands/shared/units.ts';

const GROUPS = [
  ['machines', 'Machines', 'what each wants against what its scale says'],
  ['sheet', 'The sheet', 'caliper, print, laminate, pigment'],
  ['cutting', 'The cut', 'passes, wear, speed'],
  ['families', 'Families', 'where a face comes free, against the usual figure'],
] as const;

interface Props {
  readonly initial: KnowledgeReply;
  readonly sharing: SharingReply;
  readonly isOwner: boolean;
}

/** What your cuts have taught the model, in words and as a plot, and the beliefs it started from. */
export function Knowledge({ ...props }: Props) {
  const [client] = useState(makeQueryClient);
  return (
    <QueryClientProvider client={client}>
      <KnowledgeView {...props} />
    </QueryClientProvider>
  );
}

function KnowledgeView({ initial, sharing, isOwner }: Props) {
  const queries = useQueryClient();
  const { data } = useQuery({
    queryKey: ['knowledge'],
    queryFn: () => callApi<KnowledgeReply>('/api/knowledge'),
    initialData: initial,
    refetchInterval: (query) => (query.state.data?.refit.state === 'idle' ? 8000 : 700),
  });
  const show = (reply: KnowledgeReply) => queries.setQueryData(['knowledge'], reply);
  const refit = useMutation({
    mutationFn: () => callApi<KnowledgeReply>('/api/knowledge/refits', 'POST'),
    onMutate: () => setTimeout(() => void queries.invalidateQueries({ queryKey: ['knowledge'] }), 150),
    onSuccess: show,
  });
  const stop = useMutation({
    mutationFn: () => callApi<KnowledgeReply>('/api/knowledge/refits', 'DELETE'),
    onSuccess: show,
  });
  return (
    <div className="grid gap-5">
      <section
        aria-label="Fit"
        className="sheet p-4 sm:px-6 sm:py-4 flex flex-wrap items-center justify-between gap-4"
      >
        <div>
          <h1>What your cuts have taught</h1>
          <p className="text-muted">
            {data.id === 0
              ? 'Nothing has been learnt from your cuts yet: every answer starts from common beliefs.'
              : `Fit ${data.id}: ${data.trialCount} trials of ${data.sheetCount} sheets, ${data.at ? formatMoment(data.at) : ''}, ${sayNumber(data.milliseconds / 1000, 1)} s.`}
          </p>
          <p className="text-sm text-muted mt-1">
            <span className="inline-block w-6 h-3 align-middle bg-hairline" /> believed before any cut{' '}
            <span className="inline-block w-6 h-1.5 align-middle bg-verdigris ml-3" /> by now, nine times in
            ten
          </p>
        </div>
        <RefitControl data={data} onRefit={() => refit.mutate()} onStop={() => stop.mutate()} />
      </section>
      <Refusal error={refit.error ?? stop.error} />
      {data.effects.length > 0 ? (
        <div className="lg:columns-2 gap-5">
          {GROUPS.map(([group, title, about]) => (
            <section key={group} aria-label={title} className="sheet p-4 sm:p-5 mb-5 break-inside-avoid">
              <h2>{title}</h2>
              <p className="text-sm text-muted">{about}</p>
              <EffectPlot effects={data.effects.filter((effect) => effect.group === group)} />
            </section>
          ))}
        </div>
      ) : null}
      <UsualForces usualForces={data.usualForces} onChanged={show} />
      <PriorTable priors={data.priors} onChanged={show} />
      <Sharing initial={sharing} isOwner={isOwner} />
    </div>
  );
}

interface ControlProps {
  readonly data: KnowledgeReply;
  readonly onRefit: () => void;
  readonly onStop: () => void;
}

function RefitControl({ data, onRefit, onStop }: ControlProps) {
  const { refit } = data;
  if (refit.state === 'running') {
    return (
      <div className="flex items-center gap-3" role="status">
        <span>
          Fitting {refit.trialCount} trials, step {refit.iteration}…
        </span>
        <button type="button" className="button" onClick={onStop}>
          Stop
        </button>
      </div>
    );
  }
  return (
    <div className="flex items-center gap-3">
      {refit.state === 'waiting' ? <span role="status">New grades; a fit follows at once.</span> : null}
      {refit.problem ? <span className="text-sm text-muted">{refit.problem}</span> : null}
      <button type="button" className="button" onClick={onRefit}>
        Learn from all cuts now
      </button>
    </div>
  );
}
