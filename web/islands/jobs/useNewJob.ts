import { useState, type ChangeEvent, type DragEvent } from 'react';
import { sniffFormat } from '#core/artwork/readDrawing.ts';
import { callApi } from '#web/islands/shared/callApi.ts';

const MOST_BYTES = 50_000_000;
const PICTURE = /\.(png|jpe?g|webp|tiff?)$/i;

/** Opening a drawing or a picture: by the file dialog or by dropping it; on success the new job opens. */
export function useNewJob(machineId: number | null) {
  const [isBusy, setBusy] = useState(false);
  const [isOver, setOver] = useState(false);
  const [error, setError] = useState<unknown>(null);
  const [picture, setPicture] = useState<File | null>(null);
  const open = async (file: File | undefined) => {
    if (!file || machineId === null) return;
    setError(null);
    if (file.size > MOST_BYTES) {
      setError(new Error(`${file.name} has ${(file.size / 1e6).toFixed(1)} MB; at most 50 MB are read.`));
      return;
    }
    if (PICTURE.test(file.name)) {
      setPicture(file);
      return;
    }
    setBusy(true);
    try {
      const source = await file.text();
      const name = file.name.replace(/\.[a-z]+$/i, '').slice(0, 120) || 'drawing';
      if (source.trimStart().startsWith('{')) {
        const { id } = await callApi<{ id: number }>('/api/jobs/file', 'POST', JSON.parse(source) as object);
        return location.assign(`/jobs/${id}`);
      }
      const format = sniffFormat(source, file.name);
      if (!format)
        throw new Error(
          `${file.name} is no artwork that is read: a picture (PNG, JPEG, WebP, TIFF) or a drawing (SVG, DXF as text, HPGL).`,
        );
      const { id } = await callApi<{ id: number }>('/api/jobs', 'POST', { name, format, source, machineId });
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
    picture,
    putPictureAway: () => setPicture(null),
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
