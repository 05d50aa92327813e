import { useState, type ChangeEvent, type DragEvent } from 'react';
import { pictureAlone } from '#core/artwork/pictureAlone.ts';
import { blobOf } from '#web/islands/jobs/picture/blobOf.ts';
import { sniffFormat } from '#core/artwork/readDrawing.ts';
import type { DrawingFormat } from '#core/drawing/drawing.ts';
import { callApi } from '#web/islands/shared/callApi.ts';

const MOST_BYTES = 50_000_000;
const PICTURE = /\.(png|jpe?g|webp|tiff?)$/i;
const PICTURE_TYPE = /^image\/(png|jpeg|webp|tiff)$/;

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
    if (PICTURE.test(file.name) || PICTURE_TYPE.test(file.type)) {
      setPicture(file);
      return;
    }
    setBusy(true);
    try {
      const source = decodeText(await file.arrayBuffer());
      const name = file.name.replace(/\.[a-z]+$/i, '').slice(0, 120) || 'drawing';
      if (source.trimStart().startsWith('{')) {
        const { id } = await callApi<{ id: number }>('/api/jobs/file', 'POST', JSON.parse(source) as object);
        return location.assign(`/jobs/${id}`);
      }
      const alone = pictureAlone(source);
      if (alone) {
        setPicture(new File([blobOf(alone)], file.name));
        return setBusy(false);
      }
      const format = requireFormat(source, file.name);
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

/** @throws Error in words for what is no artwork */
function requireFormat(source: string, fileName: string): DrawingFormat {
  const format = sniffFormat(source, fileName);
  if (format) return format;
  throw new Error(
    `${fileName} is no artwork that is read: a picture (PNG, JPEG, WebP, TIFF) or a drawing (SVG, DXF as text, HPGL).`,
  );
}

/** As UTF-8; what is none has a character to each byte, as plots have. */
function decodeText(bytes: ArrayBuffer): string {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder('latin1').decode(bytes);
  }
}
