import { useRef, useState } from 'react';
import { callApi } from '#web/islands/shared/callApi.ts';
import type { ImportReply } from '#web/schemas/book.ts';
import type { ReadCodeReply, ReadSheet } from '#web/schemas/sheetCode.ts';

export interface TakeDesk {
  readonly sheet: ReadSheet | null;
  /** For each machine of the sheet the one here that it stands for. */
  readonly onto: readonly (number | null)[];
  readonly reply: ImportReply | null;
  readonly isBusy: boolean;
  readonly error: unknown;
  readonly read: (text: string) => Promise<void>;
  readonly choose: (index: number, id: number | null) => void;
  readonly take: () => Promise<void>;
}

/** What a code says, and what taking it in would do; each choice is tried at once, the newest wins. */
export function useTakeSheet(): TakeDesk {
  const [text, setText] = useState('');
  const [sheet, setSheet] = useState<ReadSheet | null>(null);
  const [onto, setOnto] = useState<readonly (number | null)[]>([]);
  const [reply, setReply] = useState<ImportReply | null>(null);
  const [isBusy, setBusy] = useState(false);
  const [error, setError] = useState<unknown>(null);
  const newest = useRef(0);

  const attempt = async (act: (isNewest: () => boolean) => Promise<void>) => {
    const mine = ++newest.current;
    const isNewest = () => newest.current === mine;
    setBusy(true);
    setError(null);
    try {
      await act(isNewest);
    } catch (refusal) {
      if (isNewest()) setError(refusal);
    } finally {
      if (isNewest()) setBusy(false);
    }
  };
  const send = (given: string, chosen: readonly (number | null)[], isDryRun: boolean) =>
    callApi<ImportReply>('/api/codes/take', 'POST', { text: given, onto: chosen, isDryRun });

  const read = (given: string) =>
    attempt(async (isNewest) => {
      setSheet(null);
      setReply(null);
      const found = await callApi<ReadCodeReply>('/api/codes/read', 'POST', { text: given });
      if (!isNewest()) return;
      if (found.kind === 'page') return location.assign(found.path);
      const chosen = found.machines.map(({ likeliestId }) => likeliestId);
      setText(given);
      setSheet(found);
      setOnto(chosen);
      const tried = await send(given, chosen, true);
      if (isNewest()) setReply(tried);
    });
  const choose = (index: number, id: number | null) => {
    const chosen = onto.map((one, at) => (at === index ? id : one));
    setOnto(chosen);
    void attempt(async (isNewest) => {
      const tried = await send(text, chosen, true);
      if (isNewest()) setReply(tried);
    });
  };
  const take = () => attempt(async () => setReply(await send(text, onto, false)));
  return { sheet, onto, reply, isBusy, error, read, choose, take };
}
