import { Popover } from 'radix-ui';
import { useEffect, useState } from 'react';
import { minutesLeft, WAIT_KINDS, WAIT_WORDS, type WaitKind } from '#core/prep/waits.ts';
import type { Timer } from '#store/repositories/jobs/waits.ts';
import { callApi } from '#web/islands/shared/callApi.ts';
import { Refusal } from '#web/islands/shared/Refusal.tsx';

interface Props {
  readonly timers: readonly Timer[];
  readonly materialId: number | null;
  readonly className: string;
}

const TICK_MS = 1_000;

/** Waits under way with the time left; one that is over says so on every view until it is cleared. */
export function WaitSlot({ timers: initial, materialId, className }: Props) {
  const [timers, setTimers] = useState(initial);
  const [error, setError] = useState<unknown>(null);
  const now = useNow();
  const take = (ask: Promise<readonly Timer[]>) => void ask.then(setTimers, setError);
  const start = (kind: WaitKind) => take(callApi('/api/timers', 'POST', { kind, materialId }));
  const clear = (id: number) => take(callApi(`/api/timers/${id}/clear`, 'POST'));
  const over = now === null ? [] : timers.filter(({ endsAt }) => minutesLeft(endsAt, now) === 0);
  const next = timers[0];
  return (
    <>
      <Popover.Root>
        <Popover.Trigger className={`cursor-pointer hover:bg-sheet ${className}`} title={next?.words}>
          <span className="block text-sm text-muted">Waits</span>
          <span className="block font-semibold truncate">
            {next && now ? leftWords(minutesLeft(next.endsAt, now)) : 'none'}
          </span>
          <span className="block text-sm text-muted truncate">{next?.words ?? 'start one'}</span>
        </Popover.Trigger>
        <Popover.Portal>
          <Popover.Content side="top" className="sheet p-4 w-80 z-20 grid gap-3">
            <ul className="grid gap-2">
              {timers.map(({ id, words, endsAt }) => (
                <li key={id} className="flex items-center gap-2">
                  <span className="grow leading-tight">
                    {words}
                    <span className="block text-sm text-muted">
                      {now ? leftWords(minutesLeft(endsAt, now)) : ''}
                    </span>
                  </span>
                  <button type="button" className="button px-3" onClick={() => clear(id)}>
                    Clear
                  </button>
                </li>
              ))}
            </ul>
            <div className="grid gap-1.5">
              <span className="text-sm text-muted">Start a wait for what is loaded</span>
              {WAIT_KINDS.map((kind) => (
                <button key={kind} type="button" className="button justify-start" onClick={() => start(kind)}>
                  {WAIT_WORDS[kind]}
                </button>
              ))}
            </div>
            <p className="text-sm">
              <a href="/day">The day</a> · <a href="/api/timers.ics">calendar file</a>
            </p>
            <Refusal error={error} />
          </Popover.Content>
        </Popover.Portal>
      </Popover.Root>
      {over.length > 0 ? <Alarm timers={over} onClear={clear} /> : null}
    </>
  );
}

function Alarm({
  timers,
  onClear,
}: {
  readonly timers: readonly Timer[];
  readonly onClear: (id: number) => void;
}) {
  return (
    <div role="alert" className="fixed right-3 bottom-24 z-30 grid gap-2 max-w-sm">
      {timers.map(({ id, words }) => (
        <p key={id} className="note flex items-center gap-3 shadow-sm" data-tone="good">
          <span className="grow">
            <strong>Over:</strong> {words}
          </span>
          <button type="button" className="button px-3" onClick={() => onClear(id)}>
            Clear
          </button>
        </p>
      ))}
    </div>
  );
}

/** The time, read anew every few seconds; `null` until the page lives, so that both sides draw the same at first. */
function useNow(): Date | null {
  const [now, setNow] = useState<Date | null>(null);
  useEffect(() => {
    const read = () => setNow(new Date());
    read();
    const beat = setInterval(read, TICK_MS);
    return () => clearInterval(beat);
  }, []);
  return now;
}

function leftWords(minutes: number): string {
  if (minutes === 0) return 'over';
  if (minutes < 90) return `${minutes} min left`;
  return `${Math.floor(minutes / 60)} h ${minutes % 60} min left`;
}
