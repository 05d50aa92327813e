import type { TradeWord, TradeWordId } from '#core/words/tradeWords.ts';
import { TradePicture } from '#web/components/tradePicture/TradePicture.tsx';
import { say } from '#web/islands/shared/units.ts';

/** A word of the trade with its picture and its two lines. */
export function WordEntry({ id, word, lines }: TradeWord & { readonly id: TradeWordId }) {
  return (
    <div className="flex items-start gap-3">
      <TradePicture id={id} />
      <div>
        <p className="font-semibold">{word}</p>
        <p className="text-sm">
          {say(lines[0])} {say(lines[1])}
        </p>
      </div>
    </div>
  );
}
