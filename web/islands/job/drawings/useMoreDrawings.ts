import { useState, type ChangeEvent } from 'react';
import { prepareArtwork } from '#web/islands/jobs/artwork/prepareArtwork.ts';
import { callApi } from '#web/islands/shared/callApi.ts';
import type { JobReply } from '#web/schemas/job.ts';

/** Drawings that come to a job, and leave it. */
export function useMoreDrawings(job: JobReply, onRefresh: () => Promise<unknown>) {
  const [words, setWords] = useState<string | null>(null);
  const [isBusy, setBusy] = useState(false);
  const [error, setError] = useState<unknown>(null);
  const act = async (wish: () => Promise<unknown>) => {
    setBusy(true);
    setError(null);
    try {
      await wish();
      await onRefresh();
    } catch (refusal) {
      setError(refusal);
    }
    setBusy(false);
    setWords(null);
  };
  const add = (files: readonly File[]) =>
    act(async () => {
      const drawings = [];
      for (const [index, file] of files.entries()) {
        setWords(`Reading ${index + 1} of ${files.length} …`);
        drawings.push(await prepareArtwork(file));
      }
      await callApi(`/api/jobs/${job.id}/drawings`, 'POST', { version: job.version, drawings });
    });
  return {
    words,
    isBusy,
    error,
    onPick: (event: ChangeEvent<HTMLInputElement>) => {
      const files = [...(event.target.files ?? [])];
      event.target.value = '';
      if (files.length > 0) void add(files);
    },
    remove: (number: number) =>
      void act(async () => {
        await callApi(`/api/jobs/${job.id}/drawings/${number}?version=${job.version}`, 'DELETE');
        // The next has its number now, and its file is another.
        if (number === 0) location.reload();
      }),
  };
}
