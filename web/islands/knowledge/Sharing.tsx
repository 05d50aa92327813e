import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { callApi } from '#web/islands/shared/callApi.ts';
import { formatDate } from '#web/islands/shared/formatTime.ts';
import { Refusal } from '#web/islands/shared/Refusal.tsx';
import type { SharingReply } from '#web/schemas/sharing.ts';

interface Props {
  readonly initial: SharingReply;
  readonly isOwner: boolean;
}

type Taken = SharingReply['taken'][number];

/** What other workshops learnt: a file each, what it moves here, and what this book could give them. */
export function Sharing({ initial, isOwner }: Props) {
  const [sharing, setSharing] = useState(initial);
  const queries = useQueryClient();
  const onSuccess = (reply: SharingReply) => {
    setSharing(reply);
    void queries.invalidateQueries({ queryKey: ['knowledge'] });
  };
  const takeIn = useMutation({
    mutationFn: async (file: File) => {
      const signed: unknown = JSON.parse(await file.text());
      const name = file.name.replace(/\.json$/i, '').slice(0, 60);
      return callApi<SharingReply>('/api/lessons', 'POST', { name, signed });
    },
    onSuccess,
  });
  const putAway = useMutation({
    mutationFn: ({ id, isPutAway }: Pick<Taken, 'id' | 'isPutAway'>) =>
      callApi<SharingReply>(`/api/lessons/${id}`, 'PATCH', { isPutAway: !isPutAway }),
    onSuccess,
  });
  return (
    <section aria-label="Other workshops" className="sheet p-4 sm:p-5">
      <h2>Other workshops</h2>
      <p className="text-muted max-w-prose">
        A book can give away what it learnt: how much force families, blades and machines of a kind want, and
        how surely. No sheet, maker, person or setting is in the file. Taken in, it is where you start; your
        own cuts outweigh it.
      </p>
      {isOwner ? <GiveAndTake canGive={sharing.canGive} onTake={takeIn.mutate} /> : null}
      <Refusal error={readable(takeIn.error) ?? putAway.error} />
      <ul className="grid gap-3 mt-3">
        {sharing.taken.map((one) => (
          <TakenIn
            key={one.id}
            taken={one}
            isOwner={isOwner}
            isBusy={putAway.isPending}
            onPutAway={() => putAway.mutate(one)}
          />
        ))}
      </ul>
    </section>
  );
}

interface GiveAndTakeProps {
  readonly canGive: boolean;
  readonly onTake: (file: File) => void;
}

function GiveAndTake({ canGive, onTake }: GiveAndTakeProps) {
  return (
    <div className="flex flex-wrap items-center gap-3 mt-3">
      {canGive ? (
        <a className="button" href="/api/lessons/own" download>
          Give away what this book learnt
        </a>
      ) : null}
      <label className="button cursor-pointer focus-within:outline-2">
        Take in a file
        <input
          type="file"
          accept=".json,application/json"
          className="sr-only"
          onChange={({ target }) => {
            const [file] = target.files ?? [];
            if (file) onTake(file);
            target.value = '';
          }}
        />
      </label>
    </div>
  );
}

/** A file that is no JSON at all is told in words. */
function readable(error: unknown): unknown {
  return error instanceof SyntaxError ? new Error('This file holds nothing that can be read here.') : error;
}

interface TakenProps {
  readonly taken: Taken;
  readonly isOwner: boolean;
  readonly isBusy: boolean;
  readonly onPutAway: () => void;
}

function TakenIn({ taken, isOwner, isBusy, onPutAway }: TakenProps) {
  const { name, giver, trials, sheets, takenAt, author, isPutAway, isFitting, moved } = taken;
  return (
    <li className="border-t border-hairline pt-3">
      <div className="flex flex-wrap items-baseline justify-between gap-2">
        <p>
          <strong>{name}</strong>{' '}
          <span className="text-muted">
            {trials} cuts on {sheets} sheets · taken in {formatDate(takenAt)} by {author} · key{' '}
            <span className="font-mono">{giver.slice(0, 8)}</span>
          </span>
        </p>
        {isOwner ? (
          <button type="button" className="button" disabled={isBusy} onClick={onPutAway}>
            {isPutAway ? 'Believe it again' : 'Put away'}
          </button>
        ) : null}
      </div>
      {isFitting ? null : <p>From another version of the model: kept, and not believed.</p>}
      {isPutAway ? <p>Put away: not believed.</p> : null}
      {moved.length > 0 ? (
        <ul className="text-sm grid gap-x-6 sm:grid-cols-2 mt-1">
          {moved.map((line) => (
            <li key={line.name}>{sayMoved(line)}</li>
          ))}
        </ul>
      ) : (
        <p className="text-sm text-muted">It moves nothing here that matters.</p>
      )}
    </li>
  );
}

function sayMoved({ label, factor, sd, commonSd }: Taken['moved'][number]): string {
  const [now, before] = [sd, commonSd].map((spread) => Math.round(100 * spread));
  const surer = now === before ? `± ${now} % as before` : `± ${now} %, before ± ${before} %`;
  if (factor === null) return `${label}: ${surer}`;
  const percent = Math.round((factor - 1) * 100);
  const change =
    percent === 0 ? 'the same force' : `${Math.abs(percent)} % ${percent > 0 ? 'more' : 'less'} force`;
  return `${label}: ${change} (${surer})`;
}
