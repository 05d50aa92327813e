import { Undo2 } from 'lucide-react';
import type { TestCut } from '#core/dialIn/testCut.ts';
import { FLAW_NAMES, GRADE_WORDS } from '#core/stack/depthGrade.ts';
import { formatMoment } from '#web/islands/shared/formatTime.ts';

interface Props {
  readonly cuts: readonly TestCut[];
  readonly unit: string;
  readonly onUndo: (id: number) => void;
  readonly isBusy: boolean;
}

/** The cuts so far, the newest first; each can be taken back. */
export function CutList({ cuts, unit, onUndo, isBusy }: Props) {
  return (
    <section aria-label="Cuts so far" className="sheet p-4 sm:p-5">
      <h2 className="text-muted mb-1">Cuts so far</h2>
      {cuts.length === 0 ? <p>None yet on this sheet. The first one starts low.</p> : null}
      <ol className="divide-y divide-hairline max-h-72 overflow-y-auto">
        {[...cuts].reverse().map((cut) => (
          <li key={cut.id} className="flex items-center gap-3 py-1">
            <span className="figure w-16 text-right font-semibold">
              {cut.force} <span className="text-sm font-normal text-muted">{unit}</span>
            </span>
            <span className="grow">
              {GRADE_WORDS[cut.grade].word}
              <span className="block text-sm text-muted">
                {[
                  cut.operation,
                  cut.author,
                  formatMoment(cut.at),
                  ...cut.flaws.map((flaw) => FLAW_NAMES[flaw]),
                ].join(' · ')}
              </span>
            </span>
            <button
              type="button"
              className="button px-2.5"
              data-kind="quiet"
              disabled={isBusy}
              onClick={() => onUndo(cut.id)}
              aria-label={`Take back the cut at ${cut.force} ${unit}`}
            >
              <Undo2 size={17} aria-hidden />
            </button>
          </li>
        ))}
      </ol>
    </section>
  );
}
