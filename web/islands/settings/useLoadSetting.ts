import { useState } from 'react';
import { callApi } from '#web/islands/shared/callApi.ts';
import { keepCookie } from '#web/islands/shared/cookies.ts';
import type { SettingSummary } from '#web/schemas/setting.ts';

/** Puts a setting's material on its machine and opens the Bench there. */
export function useLoadSetting() {
  const [error, setError] = useState<unknown>(null);
  const load = ({ machineId, conditionId }: SettingSummary) => {
    callApi(`/api/stations/${machineId}`, 'PATCH', { conditionId }).then(() => {
      keepCookie('feather_station', String(machineId));
      location.assign('/');
    }, setError);
  };
  return { load, error };
}
