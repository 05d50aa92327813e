import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { LogKind } from '#core/job/logKinds.ts';
import { callApi } from '#web/islands/shared/callApi.ts';
import type { LogEntryReply } from '#web/schemas/run.ts';

/** Which part of the log is on the screen; days as YYYY-MM-DD, numbers as text, empty for all. */
export interface ShownScope {
  readonly from: string;
  readonly to: string;
  readonly machine: string;
  readonly material: string;
  readonly kind: LogKind | '';
}

/** The log with the part of it that is asked for. The address follows, so that a part can be kept and sent. */
export function useLog(initial: readonly LogEntryReply[], initialScope: ShownScope) {
  const [scope, setScope] = useState(initialScope);
  const query = writeScope(scope);
  const { data, error } = useQuery({
    queryKey: ['log', query],
    queryFn: () => callApi<readonly LogEntryReply[]>(`/api/log${query}`),
    initialData: () => (query === writeScope(initialScope) ? initial : undefined),
  });
  const [last, setLast] = useState(initial);
  // A part that was refused leaves what was shown before it.
  if (data && data !== last) setLast(data);
  return {
    entries: data ?? last,
    error,
    scope,
    query,
    narrow: (change: Partial<ShownScope>) => {
      const next = { ...scope, ...change };
      setScope(next);
      history.replaceState(null, '', `${location.pathname}${writeScope(next)}`);
    },
  };
}

/** The query of an address, with its question mark; empty for the whole log. */
export function writeScope(scope: ShownScope): string {
  const asked = Object.entries(scope).filter(([, value]) => value !== '');
  return asked.length === 0 ? '' : `?${new URLSearchParams(asked as [string, string][]).toString()}`;
}
