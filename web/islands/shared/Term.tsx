import { CircleHelp } from 'lucide-react';
import { Popover } from 'radix-ui';
import type { ReactNode } from 'react';
import { TRADE_WORDS, tradeWord, wordsIn, type TradeWordId } from '#core/words/tradeWords.ts';
import { WordEntry } from '#web/components/tradePicture/WordEntry.tsx';

/** A word of the trade that explains itself: a tap shows its picture and two lines. */
export function Term({ id, children }: { readonly id: TradeWordId; readonly children: ReactNode }) {
  return (
    <Popover.Root>
      <Popover.Trigger
        className="inline-flex items-center min-h-11 min-w-11 -my-3 underline decoration-dotted underline-offset-3 cursor-help"
        aria-label={`${typeof children === 'string' ? children : id}: what it means`}
      >
        {children}
      </Popover.Trigger>
      <WordCard id={id} />
    </Popover.Root>
  );
}

/** Beside a label: the first word of the trade in it explains itself at a tap. Nothing where there is none. */
export function Hint({
  label,
  isInLine = false,
}: {
  readonly label: string;
  /** Beside words of the same height, not at the end of a line above a field. */
  readonly isInLine?: boolean;
}) {
  const [found] = wordsIn(label);
  if (!found) return null;
  return (
    <Popover.Root>
      <Popover.Trigger
        className={`inline-grid place-items-center shrink-0 cursor-help text-muted hover:text-ink ${isInLine ? 'size-11' : 'size-7 -my-1'}`}
        aria-label={`What does “${found.word}” mean?`}
      >
        <CircleHelp size={16} aria-hidden />
      </Popover.Trigger>
      <WordCard id={found.id} />
    </Popover.Root>
  );
}

function WordCard({ id }: { readonly id: TradeWordId }) {
  return (
    <Popover.Portal>
      <Popover.Content side="bottom" sideOffset={6} className="sheet z-30 p-3 w-80 max-w-[94vw] shadow-lg">
        <WordEntry {...tradeWord(id)} id={id} />
        <p className="text-sm mt-2">
          <a href={`/words#${id}`}>All words</a>
        </p>
      </Popover.Content>
    </Popover.Portal>
  );
}

/** Words under a figure, where the first of them explains itself if it is one of the trade. */
export function explained(words: string): ReactNode {
  const begins = (form: string) => words === form || words.startsWith(`${form} `);
  const [found] = TRADE_WORDS.flatMap(({ id, word, also }) =>
    [word, ...also].filter(begins).map((form) => ({ id, form })),
  );
  if (!found) return words;
  return (
    <>
      <Term id={found.id}>{found.form}</Term>
      {words.slice(found.form.length)}
    </>
  );
}
