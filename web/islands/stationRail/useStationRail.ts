import { useState, type MouseEvent } from 'react';
import { callApi } from '#web/islands/shared/callApi.ts';
import { keepCookie } from '#web/islands/shared/cookies.ts';

/** Changing what is at the station. Every view reads its context from the rail, so a change loads the view anew. */
export function useStationRail(machineId: number | null) {
  const [error, setError] = useState<unknown>(null);
  const change = async (body: object) => {
    if (machineId === null) return;
    try {
      await callApi(`/api/stations/${machineId}`, 'PATCH', body);
      location.reload();
    } catch (refusal) {
      setError(refusal);
    }
  };
  const remember = (name: 'feather_station' | 'feather_operator', value: string) => {
    keepCookie(name, value);
    location.reload();
  };
  return {
    error,
    forgetError: () => setError(null),
    standAt: (id: number) => remember('feather_station', String(id)),
    /** @param isOpen whether a name is enough, as in the demo */
    signAs: (name: string, isOpen: boolean) => {
      if (isOpen) return remember('feather_operator', name);
      const back = encodeURIComponent(location.pathname + location.search);
      location.assign(`/sign-in?name=${encodeURIComponent(name)}&to=${back}`);
    },
    fitBlade: (bladeId: number) => void change({ bladeId }),
    chooseLot: (lot: string) => void change({ lot }),
    chooseColour: (colour: string) => void change({ colour }),
    layMat: (matId: number) => void change({ matId }),
    focusSearch: (event: MouseEvent) => {
      event.preventDefault();
      document.getElementById('material-search')?.focus();
    },
  };
}
