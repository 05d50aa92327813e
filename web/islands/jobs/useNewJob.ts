import { useState, type ChangeEvent, type DragEvent } from 'react';
import { lookInto, nameOf, requireFormat } from '#web/islands/jobs/artwork/prepareArtwork.ts';
import { callApi } from '#web/islands/shared/callApi.ts';

/** Opening a drawing or a picture: by the file dialog or by dropping it; on success the new job opens. */
export function useNewJob(machineId: number | null) {
  const [isBusy, setBusy] = useState(false);
  const [isOver, setOver] = useState(false);
  const [error, setError] = useState<unknown>(null);
  const [picture, setPicture] = useState<File | null>(null);
  const [several, setSeveral] = useState<readonly File[] | null>(null);
  const open = async (files: readonly File[]) => {
    const [file] = files;
    if (!file || machineId === null) return;
    setError(null);
    if (files.length > 1) return setSeveral(files);
    setBusy(true);
    try {
      const found = await lookInto(file);
      if (found.kind === 'picture') {
        setPicture(found.file);
        return setBusy(false);
      }
      const source = found.text;
      if (source.trimStart().startsWith('{')) {
        const { id } = await callApi<{ id: number }>('/api/jobs/file', 'POST', JSON.parse(source) as object);
        return location.assign(`/jobs/${id}`);
      }
      const wish = { name: nameOf(file), format: requireFormat(source, file.name), source, machineId };
      const { id } = await callApi<{ id: number }>('/api/jobs', 'POST', wish);
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
    several,
    putSeveralAway: () => setSeveral(null),
    onPick: (event: ChangeEvent<HTMLInputElement>) => {
      void open([...(event.target.files ?? [])]);
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
      void open([...event.dataTransfer.files]);
    },
  };
}
