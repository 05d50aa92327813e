import { useState } from 'react';
import { callApi } from '#web/islands/shared/callApi.ts';
import type { ImportProgress, ImportReply } from '#web/schemas/book.ts';

interface OpenFile {
  readonly name: string;
  readonly kind: 'json' | 'csv';
  readonly text: string;
}

/** A big file shows this often how far it is. */
const LOOK_EVERY_MS = 400;

/** Reading a file in, twice: first to see what it would do, then to do it. */
export function useImport() {
  const [file, setFile] = useState<OpenFile | null>(null);
  const [reply, setReply] = useState<ImportReply | null>(null);
  const [error, setError] = useState<unknown>(null);
  const [isBusy, setBusy] = useState(false);
  const [progress, setProgress] = useState<ImportProgress | null>(null);
  const look = async () => {
    const now = await callApi<ImportProgress>('/api/book/import').catch(() => null);
    setProgress(now?.isReading ? now : null);
  };
  const send = async ({ kind, text }: OpenFile, isDryRun: boolean) => {
    setBusy(true);
    setError(null);
    const watch = setInterval(() => void look(), LOOK_EVERY_MS);
    try {
      setReply(await callApi<ImportReply>('/api/book/import', 'POST', { kind, text, isDryRun }));
    } catch (refusal) {
      setError(refusal);
      if (isDryRun) setReply(null);
    } finally {
      clearInterval(watch);
      setProgress(null);
      setBusy(false);
    }
  };
  return {
    name: file?.name ?? '',
    reply,
    error,
    isBusy,
    progress,
    open: async (chosen: File) => {
      const text = await chosen.text();
      const kind = /^\s*[{[]/.test(text) ? 'json' : 'csv';
      const opened = { name: chosen.name, kind, text } as const;
      setFile(opened);
      await send(opened, true);
    },
    apply: async () => file && send(file, false),
  };
}
