import { useEffect, useRef, useState, type FocusEvent, type KeyboardEvent } from 'react';
import { isSingleKey } from '#web/islands/shared/singleKeys.ts';
import { callApi } from '#web/islands/shared/callApi.ts';
import { offersOf, type Offer } from '#web/islands/materialSearch/offersOf.ts';
import type { LookupHit } from '#web/schemas/lookup.ts';

/** Fingers pause about so long between letters; asking sooner asks too often. */
const PAUSE_MS = 60;

/** The search field: `/` focuses it, arrows walk the list, Enter loads. */
export function useMaterialSearch(machineId: number | null) {
  const [text, setText] = useState('');
  const [isOpen, setOpen] = useState(false);
  const [chosen, setActive] = useState(0);
  /** Enter was pressed before the answer to what was typed had come. */
  const isAwaited = useRef(false);
  const { offers, isLoading, error, setError } = useLookup(isOpen, text, machineId);
  useSlash();
  // The list may have grown shorter under the hand.
  const active = Math.max(0, Math.min(offers.length - 1, chosen));
  const load = (offer: Offer) => {
    if (machineId === null) return;
    const { conditionId, hit } = offer;
    const lot = hit.met.find(({ field }) => field === 'lot')?.term;
    callApi(`/api/stations/${machineId}`, 'PATCH', { conditionId, ...(lot ? { lotNamed: lot } : {}) }).then(
      () => location.assign('/'),
      setError,
    );
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const step = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
    if (step !== 0) {
      event.preventDefault();
      setActive(Math.max(0, Math.min(offers.length - 1, active + step)));
    }
    const offer = offers[active];
    if (event.key === 'Enter' && isLoading) isAwaited.current = true;
    else if (event.key === 'Enter' && offer) load(offer);
    if (event.key === 'Escape') {
      isAwaited.current = false;
      setOpen(false);
    }
  };
  useEffect(() => {
    if (isLoading || !isAwaited.current) return;
    isAwaited.current = false;
    const offer = offers[active];
    if (offer) load(offer);
  });
  return {
    text,
    isOpen,
    active,
    offers,
    error,
    isLoading,
    type: (value: string) => {
      setText(value);
      isAwaited.current = false;
      setActive(0);
      setOpen(true);
    },
    open: () => setOpen(true),
    load,
    onKeyDown,
    onBlur: (event: FocusEvent) => {
      if (!event.currentTarget.contains(event.relatedTarget)) setOpen(false);
    },
  };
}

/** What the server finds for the text; an answer to an older text is never shown for a newer one. */
function useLookup(isOpen: boolean, text: string, machineId: number | null) {
  const [found, setFound] = useState<{ text: string; offers: readonly Offer[] } | null>(null);
  const [error, setError] = useState<unknown>(null);
  const newest = useRef(0);
  useEffect(() => {
    if (!isOpen) return;
    const asked = ++newest.current;
    const timer = setTimeout(() => {
      const query = new URLSearchParams({
        text,
        ...(machineId === null ? {} : { machineId: String(machineId) }),
      });
      callApi<{ hits: readonly LookupHit[] }>(`/api/lookup?${query}`).then(
        ({ hits }) => {
          if (asked !== newest.current) return;
          setFound({ text, offers: offersOf(hits) });
          setError(null);
        },
        (refusal: unknown) => asked === newest.current && setError(refusal),
      );
    }, PAUSE_MS);
    return () => clearTimeout(timer);
  }, [isOpen, text, machineId]);
  return { offers: found?.offers ?? [], isLoading: found?.text !== text && !error, error, setError };
}

function useSlash(): void {
  useEffect(() => {
    const onSlash = (event: globalThis.KeyboardEvent) => {
      if (event.key !== '/' || !isSingleKey(event)) return;
      event.preventDefault();
      document.getElementById('material-search')?.focus();
    };
    document.addEventListener('keydown', onSlash);
    return () => document.removeEventListener('keydown', onSlash);
  }, []);
}
