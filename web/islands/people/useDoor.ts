import { useState, type FormEvent } from 'react';
import { callApi } from '#web/islands/shared/callApi.ts';

/** Sends what somebody shows, and goes on where they wanted to. */
export function useDoor(path: string, to: string) {
  const [error, setError] = useState<unknown>(null);
  const [isBusy, setBusy] = useState(false);
  const enter = async (shown: object) => {
    setBusy(true);
    setError(null);
    try {
      await callApi(path, 'POST', shown);
      location.assign(to);
    } catch (refusal) {
      setError(refusal);
      setBusy(false);
    }
  };
  const submit = (read: () => object) => (event: FormEvent) => {
    event.preventDefault();
    void enter(read());
  };
  return { error, isBusy, submit };
}
