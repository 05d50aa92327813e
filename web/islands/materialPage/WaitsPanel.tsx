import { useState } from 'react';
import { WAIT_WORDS, type Wait, type WaitKind } from '#core/prep/waits.ts';
import { callApi } from '#web/islands/shared/callApi.ts';
import { NumberBox } from '#web/islands/shared/NumberBox.tsx';
import { WaitRoutes } from '#web/islands/materialPage/WaitRoutes.tsx';
import type { WaitRouteReply } from '#web/schemas/day.ts';
import { Refusal } from '#web/islands/shared/Refusal.tsx';

interface Props {
  readonly materialId: number;
  readonly waits: readonly Wait[];
  readonly routes: readonly WaitRouteReply[];
}

/** How long this material waits for what: the maker's sheet first, else what is usual. */
export function WaitsPanel({ materialId, waits: initial, routes }: Props) {
  const [waits, setWaits] = useState(initial);
  const [error, setError] = useState<unknown>(null);
  const say = (kind: WaitKind, minutes: number | null) => {
    setError(null);
    callApi<readonly Wait[]>(`/api/materials/${materialId}/waits`, 'PUT', { kind, minutes }).then(
      setWaits,
      setError,
    );
  };
  return (
    <section aria-label="Waits" className="sheet p-4 sm:p-5">
      <h2>How long it waits</h2>
      <p className="text-sm text-muted">
        Type what the maker says; until then the usual counts, common practice without a source. All in
        minutes.
      </p>
      <ul className="grid gap-x-10 gap-y-2 sm:grid-cols-2 mt-2">
        {waits.map(({ kind, minutes, source, reason }) => (
          <li key={kind} className="grid grid-cols-[1fr_6.5rem] gap-3 items-end">
            <span className="leading-tight">
              {WAIT_WORDS[kind]}
              <span className="block text-sm text-muted">
                {source === 'maker' ? 'as said here' : `usual: ${reason}`}
                {source === 'maker' ? (
                  <button
                    type="button"
                    className="underline cursor-pointer ml-2 min-h-11"
                    onClick={() => say(kind, null)}
                  >
                    back to usual
                  </button>
                ) : null}
              </span>
            </span>
            <NumberBox
              label={`${WAIT_WORDS[kind]}, minutes`}
              isLabelHidden
              unit="min"
              value={minutes}
              onChange={(typed) => say(kind, Math.max(0, Math.round(typed)))}
            />
          </li>
        ))}
      </ul>
      <Refusal error={error} />
      <WaitRoutes materialId={materialId} routes={routes} />
    </section>
  );
}
