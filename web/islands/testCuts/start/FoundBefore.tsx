import type { Station } from '#core/station/station.ts';
import { formatMoment } from '#web/islands/shared/formatTime.ts';
import type { Dial } from '#web/islands/testCuts/useDialIn.ts';

/** Whose search this is, since when, and what stands in its way. */
export function FoundBefore({ dial, station }: { readonly dial: Dial; readonly station: Station }) {
  const { dialIn, isLoaded, cuts } = dial;
  if (!isLoaded) {
    return (
      <p className="note mt-2" data-tone="careful" role="status">
        Another sheet lies on {station.machine.name} by now. Grades still go to this search.
      </p>
    );
  }
  if (!dialIn || dialIn.state !== 'open') return null;
  const others = [
    ...new Set(cuts.map(({ author }) => author).filter((name) => name && name !== dialIn.author)),
  ];
  return (
    <p className="text-sm text-muted mt-1" role="status">
      Opened by {dialIn.author}, {formatMoment(dialIn.openedAt)}
      {others.length > 0 ? `, with ${others.join(' and ')}` : ''}.
      <span className="hidden sm:inline"> Go on here or on any other device.</span>
    </p>
  );
}
