import { useState } from 'react';
import { callApi } from '#web/islands/shared/callApi.ts';
import { keepCookie } from '#web/islands/shared/cookies.ts';
import type { WorkshopReply } from '#web/schemas/workshop.ts';

/** Changing who works here and which clock counts. @param isOpen whether a name is enough, as in the demo */
export function useWorkshop(first: WorkshopReply, isOpen: boolean) {
  const [workshop, setWorkshop] = useState(first);
  const [error, setError] = useState<unknown>(null);
  const send = async (path: string, method: string, body?: object): Promise<boolean> => {
    setError(null);
    try {
      setWorkshop(await callApi<WorkshopReply>(path, method, body));
      return true;
    } catch (refusal) {
      setError(refusal);
      return false;
    }
  };
  return {
    workshop,
    error,
    add: async (name: string) => {
      const isFirst = workshop.people.length === 0;
      const isAdded = await send('/api/operators', 'POST', { name });
      // Who adds the first person is that person, and comes from the first steps on the bench.
      if (isAdded && isFirst && isOpen) {
        keepCookie('feather_operator', name.trim());
        location.assign('/');
      }
      return isAdded;
    },
    putAway: (id: number) => void send(`/api/operators/${id}`, 'DELETE'),
    chooseZone: async (timeZone: string) => {
      // Every time on the page is told anew.
      if (await send('/api/workshop', 'PUT', { timeZone })) location.reload();
    },
    priceHarm: (harmCuts: number) => void send('/api/workshop', 'PUT', { harmCuts }),
    standHere: (name: string) => {
      if (!isOpen) return location.assign(`/sign-in?name=${encodeURIComponent(name)}&to=/workshop`);
      keepCookie('feather_operator', name);
      location.reload();
    },
  };
}
