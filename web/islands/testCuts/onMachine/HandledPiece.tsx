import { useQueryClient } from '@tanstack/react-query';
import { PackageOpen } from 'lucide-react';
import { useEffect } from 'react';
import { isRunOver, type Run } from '#core/run/run.ts';
import { RunProgress } from '#web/islands/run/RunProgress.tsx';
import { useRun } from '#web/islands/run/useRun.ts';
import { Refusal } from '#web/islands/shared/Refusal.tsx';
import type { JudgedReply } from '#web/schemas/judgedPieces.ts';

/** What hands find, from far too weak to far too strong: as one would tell it, not as it is judged. */
const FOUND: Readonly<Record<JudgedReply['quantity'], readonly string[]>> = {
  tabs: [
    'It dropped out while it was cut.',
    'It moves when the sheet is lifted, and nearly drops by itself.',
    'It stays when the sheet is lifted, and comes out with a light push.',
    'It takes both thumbs to push it out.',
    'The sheet tears beside the tabs before it comes out.',
  ],
  crease: [
    'Nothing is felt under a finger, and the fold goes where it likes.',
    'A line is just felt; the fold wanders off it.',
    'It folds sharp along the line, and its back is whole.',
    'It folds sharp, and its back is stretched white.',
    'Its back breaks open along the fold.',
  ],
};

interface Props {
  readonly run: Run;
  readonly quantity: JudgedReply['quantity'];
  /** What hands at a stand-in find; `null` where nobody but the person there can. */
  readonly seen: number | null;
  readonly canPause: boolean;
}

/** A piece while it is cut, and what is found of it before it is judged. */
export function HandledPiece({ run: initial, quantity, seen, canPause }: Props) {
  const live = useRun(initial);
  const { run } = live;
  const queries = useQueryClient();
  // Whoever cuts the next piece asks how this one stands, and what was found of it.
  useEffect(() => void queries.invalidateQueries({ queryKey: ['judgedRun'] }), [queries, run.state]);
  if (!isRunOver(run.state) && run.state !== 'looking') {
    return (
      <div className="grow basis-72">
        <RunProgress live={live} canPause={canPause} />
      </div>
    );
  }
  if (run.state !== 'looking') {
    return <p role="status">{run.state === 'done' ? 'The last piece was taken out.' : run.message}</p>;
  }
  const byHand = quantity === 'tabs' ? 'Push the piece out' : 'Fold it once, look at its back';
  return (
    <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
      <p role="status" className="grow basis-40 font-semibold">
        {(seen === null ? null : FOUND[quantity][seen]) ?? `${byHand}.`}{' '}
        <span className="font-normal">Tap what that is.</span>
      </p>
      <button type="button" className="button" onClick={() => live.order('unload', {})}>
        <PackageOpen size={18} aria-hidden /> Take it out
      </button>
      <Refusal error={live.error} />
    </div>
  );
}
