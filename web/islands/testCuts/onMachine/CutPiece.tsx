import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Send } from 'lucide-react';
import { useRef } from 'react';
import { isRunOver } from '#core/run/run.ts';
import type { Machine } from '#core/station/machine.ts';
import { callApi } from '#web/islands/shared/callApi.ts';
import { readAnew } from '#web/islands/shared/readAnew.ts';
import { Refusal } from '#web/islands/shared/Refusal.tsx';
import { HandledPiece } from '#web/islands/testCuts/onMachine/HandledPiece.tsx';
import type { JudgedReply, JudgedRunReply } from '#web/schemas/judgedPieces.ts';

interface Props {
  readonly machine: Machine;
  readonly quantity: JudgedReply['quantity'];
  /** With what, and how large: as the query of its file. */
  readonly asked: Readonly<Record<string, number>>;
  readonly words: string;
  readonly isBusy: boolean;
}

/** Cutting the piece to be judged from here: what the machine does, and what hands find of it. */
export function CutPiece({ machine, quantity, asked, words, isBusy }: Props) {
  const path = `/api/stations/${machine.id}/judged/${quantity}/runs`;
  const { data } = useQuery({ queryKey: ['judgedRun', path], queryFn: () => callApi<JudgedRunReply>(path) });
  const cutting = useCutPiece(path, asked);
  if (machine.link.kind === 'none') return null;
  const run = data?.run ?? null;
  const isAtWork = run !== null && !isRunOver(run.state) && run.state !== 'looking';
  return (
    <section aria-label="On the machine" className="mt-3 flex flex-wrap items-start gap-x-4 gap-y-2">
      <button
        type="button"
        className="button"
        disabled={isBusy || cutting.isPending || isAtWork}
        onClick={() => cutting.mutate()}
      >
        <Send size={18} aria-hidden /> {quantity === 'tabs' ? 'Cut' : 'Press'} {words} on {machine.name}
      </button>
      {machine.link.kind === 'standIn' && !run ? (
        <p className="text-sm text-muted">A stand-in cutter takes it: practice, no sheet is spent.</p>
      ) : null}
      <Refusal error={cutting.error} />
      {run && !cutting.isPending ? (
        <HandledPiece
          key={run.id}
          run={run}
          quantity={quantity}
          seen={data?.seen ?? null}
          canPause={data?.canPause ?? false}
        />
      ) : null}
    </section>
  );
}

/** Pressed again after a lost answer, it is one run. */
function useCutPiece(path: string, asked: Props['asked']) {
  const queries = useQueryClient();
  const sent = useRef<{ readonly what: string; readonly requestKey: string } | null>(null);
  return useMutation({
    mutationFn: () => {
      const what = JSON.stringify(asked);
      if (sent.current?.what !== what) sent.current = { what, requestKey: crypto.randomUUID() };
      return callApi<{ id: number }>(path, 'POST', { ...asked, requestKey: sent.current.requestKey });
    },
    onSuccess: () => {
      sent.current = null;
      return readAnew(queries);
    },
  });
}
