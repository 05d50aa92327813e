import { Popover } from 'radix-ui';
import type { ReactNode } from 'react';
import { TRADE_WORDS, tradeWord, type TradeWordId } from '#core/words/tradeWords.ts';
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
      <Popover.Portal>
        <Popover.Content side="bottom" sideOffset={6} className="sheet z-30 p-3 w-80 shadow-lg">
          <WordEntry {...tradeWord(id)} id={id} />
          <p className="text-sm mt-2">
            <a href={`/words#${id}`}>All words</a>
          </p>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
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
