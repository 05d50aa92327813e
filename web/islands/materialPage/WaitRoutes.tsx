import { Plus, X } from 'lucide-react';
import { useState } from 'react';
import { WAIT_KINDS, WAIT_WORDS, type WaitKind } from '#core/prep/waits.ts';
import { callApi } from '#web/islands/shared/callApi.ts';
import { Refusal } from '#web/islands/shared/Refusal.tsx';
import type { WaitRouteReply } from '#web/schemas/day.ts';

interface Props {
  readonly materialId: number;
  readonly routes: readonly WaitRouteReply[];
}

/** What each state waits for on its way to the blade, in order; steps are added at the end and taken out anywhere. */
export function WaitRoutes({ materialId, routes: initial }: Props) {
  const [routes, setRoutes] = useState(initial);
  const [error, setError] = useState<unknown>(null);
  const say = (conditionId: number, kinds: readonly WaitKind[] | null) => {
    setError(null);
    const path = `/api/materials/${materialId}/wait-routes/${conditionId}`;
    callApi<readonly WaitRouteReply[]>(path, 'PUT', { kinds }).then(setRoutes, setError);
  };
  return (
    <div className="mt-4">
      <h3 className="font-semibold">On its way to the blade</h3>
      <ul className="grid gap-3 mt-1">
        {routes.map((route) => (
          <RouteRow key={route.conditionId} route={route} onSay={(kinds) => say(route.conditionId, kinds)} />
        ))}
      </ul>
      <Refusal error={error} />
    </div>
  );
}

interface RowProps {
  readonly route: WaitRouteReply;
  readonly onSay: (kinds: readonly WaitKind[] | null) => void;
}

function RouteRow({ route: { condition, kinds, isOwn }, onSay }: RowProps) {
  return (
    <li className="grid sm:grid-cols-[7rem_1fr] gap-x-3 items-start">
      <span className="min-h-11 content-center">{condition}</span>
      <ol className="flex flex-wrap gap-2 items-center">
        {kinds.length === 0 ? <li className="text-muted">waits for nothing</li> : null}
        {kinds.map((kind, index) => (
          <li key={`${index}/${kind}`}>
            <button
              type="button"
              className="button px-3 font-normal"
              aria-label={`Take out: ${WAIT_WORDS[kind]}`}
              onClick={() => onSay(kinds.filter((_, place) => place !== index))}
            >
              {WAIT_WORDS[kind]} <X size={15} aria-hidden />
            </button>
          </li>
        ))}
        <li className="flex items-center gap-1">
          <Plus size={16} aria-hidden />
          <select
            className="field w-48"
            aria-label={`Add a wait to ${condition}`}
            value=""
            onChange={(event) => event.target.value && onSay([...kinds, event.target.value as WaitKind])}
          >
            <option value="">another wait …</option>
            {WAIT_KINDS.map((kind) => (
              <option key={kind} value={kind}>
                {WAIT_WORDS[kind]}
              </option>
            ))}
          </select>
        </li>
        {isOwn ? (
          <li>
            <button
              type="button"
              className="underline cursor-pointer min-h-11 text-sm"
              onClick={() => onSay(null)}
            >
              back to usual
            </button>
          </li>
        ) : null}
      </ol>
    </li>
  );
}
