import { useState, type ChangeEvent, type DragEvent } from 'react';
import { callApi } from '#web/islands/shared/callApi.ts';

const MOST_BYTES = 5_000_000;

/** Opening a drawing: by the file dialog or by dropping it; on success the new job opens. */
export function useNewJob(machineId: number | null) {
  const [isBusy, setBusy] = useState(false);
  const [isOver, setOver] = useState(false);
  const [error, setError] = useState<unknown>(null);
  const open = async (file: File | undefined) => {
    if (!file || machineId === null) return;
    setBusy(true);
    setError(null);
    try {
      if (file.size > MOST_BYTES)
        throw new Error(`${file.name} has ${(file.size / 1e6).toFixed(1)} MB; at most 5 MB are read.`);
      const name = file.name.replace(/\.svg$/i, '').slice(0, 120) || 'drawing';
      const { id } = await callApi<{ id: number }>('/api/jobs', 'POST', {
        name,
        svg: await file.text(),
        machineId,
      });
      location.assign(`/jobs/${id}`);
    } catch (refusal) {
      setError(refusal);
      setBusy(false);
    }
  };
  return {
    isBusy,
    isOver,
    error,
    onPick: (event: ChangeEvent<HTMLInputElement>) => {
      void open(event.target.files?.[0]);
      event.target.value = '';
    },
    onDragOver: (event: DragEvent) => {
      event.preventDefault();
      setOver(true);
    },
    onDragLeave: () => setOver(false),
    onDrop: (event: DragEvent) => {
      event.preventDefault();
      setOver(false);
      void open(event.dataTransfer.files[0]);
    },
  };
}
