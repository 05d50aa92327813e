import { useState } from 'react';
import { callApi } from '#web/islands/shared/callApi.ts';

/** Sends changes of blades and mats; every one reads the page anew, since the rail shows them too. */
export function useTools() {
  const [error, setError] = useState<unknown>(null);
  const [isBusy, setBusy] = useState(false);
  const send = (path: string, method: string, body: object) => {
    setBusy(true);
    setError(null);
    callApi(path, method, body).then(
      () => location.reload(),
      (refusal: unknown) => {
        setError(refusal);
        setBusy(false);
      },
    );
  };
  return { error, isBusy, send };
}

/** The values of a form's named fields: numbers as numbers, empty ones as `null`, ticks as truth. */
export function readFields(form: HTMLFormElement): Record<string, string | number | boolean | null> {
  const fields: Record<string, string | number | boolean | null> = {};
  for (const field of form.elements) {
    if (field instanceof HTMLSelectElement && field.name) fields[field.name] = field.value;
    if (!(field instanceof HTMLInputElement) || !field.name) continue;
    if (field.type === 'checkbox') fields[field.name] = field.checked;
    else if (field.type === 'number' || field.dataset['number'] !== undefined)
      fields[field.name] = field.value === '' ? null : Number(field.value);
    else fields[field.name] = field.value;
  }
  return fields;
}
