import { sayForce } from '#core/units/forceScale.ts';
import { Undo2 } from 'lucide-react';
import type { TestCut } from '#core/dialIn/testCut.ts';
import { FLAW_NAMES, GRADE_WORDS, type Flaw } from '#core/stack/depthGrade.ts';
import { FlawToggles } from '#web/islands/testCuts/FlawToggles.tsx';
import { formatMoment } from '#web/islands/shared/formatTime.ts';

interface Props {
  readonly cuts: readonly TestCut[];
  readonly unit: string;
  readonly onUndo: () => void;
  readonly onFlaws: (cutId: number, flaws: readonly Flaw[]) => void;
  readonly isBusy: boolean;
  /** Whether there is a search whose last grade can be taken back. */
  readonly isOpen: boolean;
}

/** The cuts so far, the newest first; the last can be taken back, or given flaws that were seen after its depth. */
export function CutList({ cuts, unit, onUndo, onFlaws, isBusy, isOpen }: Props) {
  const newest = cuts.at(-1);
  const last = isOpen && newest?.dialInId != null ? newest : null;
  return (
    <section aria-label="Cuts so far" className="sheet p-4 sm:p-5">
      <h2 className="text-muted mb-1">Cuts so far</h2>
      {cuts.length === 0 ? <p>None yet on this sheet. The first one starts low.</p> : null}
      {/* A list that scrolls must be reachable by keyboard, also when nothing in it can be pressed. */}
      <ol tabIndex={0} className="divide-y divide-hairline max-h-72 overflow-y-auto">
        {[...cuts].reverse().map((cut) => (
          <li key={cut.id} className="flex items-center gap-3 py-1">
            <span className="figure w-16 text-right font-semibold">
              {cut.force} <span className="text-sm font-normal text-muted">{unit}</span>
            </span>
            <span className="grow">
              {wordGrade(cut)}
              <span className="block text-sm text-muted">
                {[
                  cut.operation,
                  cut.author,
                  formatMoment(cut.at),
                  ...cut.flaws.map((flaw) => FLAW_NAMES[flaw]),
                ].join(' · ')}
              </span>
            </span>
            {cut === last ? (
              <button
                type="button"
                className="button px-2.5"
                data-kind="quiet"
                disabled={isBusy}
                onClick={onUndo}
                aria-label={`Take back the cut at ${sayForce(cut.force, unit)}`}
              >
                <Undo2 size={17} aria-hidden />
              </button>
            ) : null}
          </li>
        ))}
      </ol>
      {last ? <LastFlaws key={last.id} cut={last} {...{ isBusy, onFlaws }} /> : null}
    </section>
  );
}

interface LastFlawsProps extends Pick<Props, 'isBusy' | 'onFlaws'> {
  readonly cut: TestCut;
}

/** A fuzzy edge is often seen after the depth was graded. */
function LastFlaws({ cut, isBusy, onFlaws }: LastFlawsProps) {
  const { id, flaws } = cut;
  const toggle = (flaw: Flaw) =>
    onFlaws(id, flaws.includes(flaw) ? flaws.filter((one) => one !== flaw) : [...flaws, flaw]);
  return (
    <details className="mt-2">
      <summary className="min-h-11 flex items-center cursor-pointer text-sm text-muted">
        Saw a flaw on the last cut?
      </summary>
      <FlawToggles label="Flaws of the last cut" {...{ flaws, isBusy }} onToggle={toggle} />
    </details>
  );
}

/** The grade in a word; a range where a card was graded by its boundaries. */
function wordGrade({ grade, upTo }: TestCut): string {
  if (upTo == null || upTo === grade) return GRADE_WORDS[grade].word;
  return `${GRADE_WORDS[grade].word} to ${GRADE_WORDS[upTo].word}`;
}
