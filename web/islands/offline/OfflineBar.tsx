import { useCallback, useEffect, useState } from 'react';
import { formatMoment } from '#web/islands/shared/formatTime.ts';
import { keepPages } from '#web/islands/offline/register.ts';
import {
  dropWish,
  listWishes,
  nameLater,
  onOutbox,
  retryWish,
  sendWishes,
  type KeptWish,
} from '#web/islands/shared/outbox.ts';

interface Props {
  /** When the page was made, ISO 8601: what it shows without a network is from then. */
  readonly madeAt: string;
}

/** It is tried so often whether the network is back, ms. */
const TRY_MS = 5_000;

/** Says that there is no network, what is kept on this device, and what was refused when it was sent. */
export function OfflineBar({ madeAt }: Props) {
  const { isAway, isCopy, wishes } = useOutbox(madeAt);
  const refused = wishes.filter(({ refusal }) => refusal !== null);
  const waiting = wishes.length - refused.length;
  if (!isAway && !isCopy && wishes.length === 0) return null;
  return (
    <section
      aria-label="Network"
      className="note mx-3 sm:mx-7 mt-2"
      data-tone={refused.length > 0 ? 'problem' : 'warn'}
    >
      <p role="status">
        {isAway ? `No network. What you see is from ${formatMoment(madeAt)}. ` : ''}
        {waiting > 0
          ? `${waiting === 1 ? 'One entry is' : `${waiting} entries are`} kept on this device and sent when the network is back.`
          : ''}
      </p>
      {isCopy && !isAway ? (
        <p role="status">
          What you see is from {formatMoment(madeAt)}.{' '}
          <button type="button" className="button" onClick={() => location.reload()}>
            Show it as it is now
          </button>
        </p>
      ) : null}
      {refused.length > 0 ? (
        <ul className="grid gap-2 mt-1">
          {refused.map((wish) => (
            <Refused key={wish.id} wish={wish} />
          ))}
        </ul>
      ) : null}
    </section>
  );
}

function Refused({ wish }: { readonly wish: KeptWish }) {
  const { method, path, refusal, at, id } = wish;
  return (
    <li className="flex flex-wrap items-center gap-2">
      <span className="grow">
        Not taken: {nameLater(method, path)} of {formatMoment(at)}. {refusal}
      </span>
      <button type="button" className="button" onClick={() => void retryWish(wish)}>
        Send again
      </button>
      <button type="button" className="button" onClick={() => void dropWish(id)}>
        Throw away
      </button>
    </li>
  );
}

function useOutbox(madeAt: string) {
  const [wishes, setWishes] = useState<readonly KeptWish[]>([]);
  const [isAway, setAway] = useState(false);
  const [isCopy, setCopy] = useState(false);
  const look = useCallback(async () => {
    const kept = await listWishes().catch(() => []);
    setWishes(kept);
    return kept;
  }, []);
  const tryIt = useCallback(async () => {
    const kept = await look();
    const now = await askTime();
    const isThere = now !== null;
    setAway(!isThere);
    if (now) setCopy(isFromBefore(madeAt, now));
    if (!isThere || !kept.some(({ refusal }) => refusal === null)) return;
    // What is sent is told to this page too, as if somebody else had done it.
    await sendWishes();
    await look();
  }, [look, madeAt]);
  useEffect(keepPages, []);
  useEffect(() => {
    void tryIt();
    const again = () => void tryIt();
    const forget = onOutbox(again);
    const timer = setInterval(() => {
      if (isAway || wishes.length > 0) again();
    }, TRY_MS);
    for (const event of ['online', 'offline']) window.addEventListener(event, again);
    return () => {
      forget();
      clearInterval(timer);
      for (const event of ['online', 'offline']) window.removeEventListener(event, again);
    };
  }, [tryIt, isAway, wishes.length]);
  return { isAway, isCopy, wishes };
}

/** What the clock of the workshop says, or `null` where it is out of reach. */
async function askTime(): Promise<Date | null> {
  if (!navigator.onLine) return null;
  try {
    const { headers } = await fetch('/api/health', { cache: 'no-store' });
    return new Date(headers.get('date') ?? Number.NaN);
  } catch {
    return null;
  }
}

/** A page that was made so long before it was opened, ms, was kept on this device. */
const LEAST_AGE_MS = 60_000;

/** Whether a page is one that was kept, by the clock of the workshop alone. */
function isFromBefore(madeAt: string, now: Date): boolean {
  return now.getTime() - performance.now() - Date.parse(madeAt) > LEAST_AGE_MS;
}
