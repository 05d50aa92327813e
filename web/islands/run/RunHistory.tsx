import { useEffect, useState } from 'react';
import type { Run } from '#core/run/run.ts';
import { formatClock } from '#web/islands/shared/formatTime.ts';
import { callApi } from '#web/islands/shared/callApi.ts';
import { Refusal } from '#web/islands/shared/Refusal.tsx';
import type { RunHistoryReply } from '#web/schemas/run.ts';
import { say } from '#web/islands/shared/units.ts';

/** What happened to a run, step by step and by whom; read when it is opened and whenever the run moves. */
export function RunHistory({ run }: { readonly run: Run }) {
  const [isOpen, setOpen] = useState(false);
  const [entries, setEntries] = useState<readonly RunHistoryReply[] | null>(null);
  const [error, setError] = useState<unknown>(null);
  useEffect(() => {
    if (!isOpen) return;
    callApi<readonly RunHistoryReply[]>(`/api/runs/${run.id}/history`).then(setEntries, setError);
  }, [isOpen, run.id, run.state, run.message]);
  return (
    <details className="sheet px-4 py-2 sm:px-5" onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary className="min-h-11 content-center cursor-pointer font-semibold">What happened</summary>
      <Refusal error={error} />
      {entries?.length === 0 ? <p className="text-muted pb-2">Nothing has happened yet.</p> : null}
      <ol className="grid gap-1 pb-3 text-sm">
        {entries?.map(({ at, words, message, author, strokes }, index) => (
          <li key={index} className="grid grid-cols-[4.75rem_1fr] gap-x-2">
            <time dateTime={at} className="figure text-muted">
              {formatClock(at)}
            </time>
            <span>
              {say(words)}
              {author ? `, ${author}` : ''}
              {message ? <span className="block text-muted">{message}</span> : null}
              <span className="sr-only">, {strokes} strokes cut by then</span>
            </span>
          </li>
        ))}
      </ol>
    </details>
  );
}
