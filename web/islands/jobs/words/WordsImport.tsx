import { useState } from 'react';
import { useWords, type WordsState } from '#web/islands/jobs/words/useWords.ts';
import { MakeOrPutAway } from '#web/islands/jobs/MakeOrPutAway.tsx';
import { callApi } from '#web/islands/shared/callApi.ts';
import { Length } from '#web/islands/shared/Length.tsx';
import { Refusal } from '#web/islands/shared/Refusal.tsx';
import { sayLength } from '#web/islands/shared/units.ts';

interface Props {
  readonly machineId: number;
  readonly onCancel: () => void;
}

/** Typed words become a job: each letter cut by itself, or printed and cut around. */
export function WordsImport({ machineId, onCancel }: Props) {
  const words = useWords();
  const { text, set, error } = words;
  const making = useMakeJob(machineId, words);
  return (
    <section aria-label="Words" className="sheet p-4 sm:px-6 sm:py-5">
      <h1>Cut words</h1>
      <Refusal error={error ?? making.error} />
      <div className="grid gap-5 mt-3 lg:grid-cols-[minmax(0,1fr)_22.5rem]">
        <Preview words={words} />
        <div className="grid gap-4 content-start">
          <label className="text-sm text-muted">
            Words
            <textarea
              className="field text-base text-ink"
              rows={2}
              maxLength={400}
              value={text}
              // Whoever opens this wants to type.
              autoFocus
              onChange={(event) => words.setText(event.target.value)}
            />
          </label>
          <FontChoice words={words} />
          <Measures words={words} />
          <OnePiece words={words} />
          <MakeOrPutAway
            isBusy={making.isBusy}
            isOff={!set || text.trim() === ''}
            onMake={making.make}
            onPutAway={onCancel}
          />
        </div>
      </div>
    </section>
  );
}

function useMakeJob(machineId: number, { text, set }: WordsState) {
  const [isBusy, setBusy] = useState(false);
  const [error, setError] = useState<unknown>(null);
  const make = () => {
    if (!set) return;
    setBusy(true);
    const name = text.trim().split('\n')[0]?.slice(0, 120) || 'words';
    callApi<{ id: number }>('/api/jobs', 'POST', { name, format: 'svg', source: set.source, machineId }).then(
      ({ id }) => location.assign(`/jobs/${id}`),
      (refusal: unknown) => {
        setError(refusal);
        setBusy(false);
      },
    );
  };
  return { isBusy, error, make };
}

/** How tall the letters are, and how much is left around them. */
function Measures({ words }: { readonly words: WordsState }) {
  const { heightMm, setHeightMm, borderMm, setBorderMm } = words;
  return (
    <>
      <div className="grid grid-cols-2 gap-3">
        <Length
          label="Capitals tall"
          mm={heightMm}
          onChange={(mm) => setHeightMm(Math.min(500, Math.max(1, mm)))}
        />
        <Length
          label="Border around"
          mm={borderMm}
          onChange={(mm) => setBorderMm(Math.min(50, Math.max(0, mm)))}
        />
      </div>
      <p className="text-sm text-muted">
        {borderMm > 0
          ? 'The letters are printed, and cut around at the border.'
          : 'Each letter is cut by itself. With a border they are printed, and cut around.'}
      </p>
    </>
  );
}

function FontChoice({ words: { font, fonts, setFont, addFont } }: { readonly words: WordsState }) {
  return (
    <div className="grid grid-cols-[1fr_auto] gap-3 items-end">
      <label className="text-sm text-muted">
        Font
        <select
          className="field text-base text-ink"
          value={font}
          onChange={(event) => setFont(event.target.value)}
        >
          {fonts.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
      </label>
      <label className="button cursor-pointer focus-within:outline-2">
        Add a font
        <input
          type="file"
          accept=".ttf,.otf,.woff,.woff2"
          className="sr-only"
          onChange={(event) => {
            void addFont(event.target.files?.[0]);
            event.target.value = '';
          }}
        />
      </label>
    </div>
  );
}

/** How many pieces come off, and what makes one of them. */
function OnePiece({ words }: { readonly words: WordsState }) {
  const { set, borderMm, setBorderMm } = words;
  if (!set) return null;
  const { leastBorderMm, missing } = set;
  return (
    <>
      {missing.length > 0 ? (
        <p className="note" data-tone="careful">
          This font has no {missing.map((one) => `“${one}”`).join(', ')}.
        </p>
      ) : null}
      {set.pieces > 1 && leastBorderMm !== null && leastBorderMm > borderMm ? (
        <button
          type="button"
          className="button justify-self-start"
          onClick={() => setBorderMm(Number(leastBorderMm.toFixed(2)))}
        >
          One piece: border of {sayLength(leastBorderMm)}
        </button>
      ) : null}
    </>
  );
}

function Preview({ words: { set } }: { readonly words: WordsState }) {
  return (
    <div className="min-w-0">
      <div className="border border-edge rounded p-6 min-h-64 grid place-items-center paper">
        {set ? (
          <img
            src={`data:image/svg+xml,${encodeURIComponent(withRim(set.source))}`}
            alt="The words as they will be cut"
            className="max-h-96 w-full"
          />
        ) : (
          <p className="text-muted">Type a word to see it.</p>
        )}
      </div>
      {set ? (
        <p role="status" className="text-sm text-muted mt-2">
          <span className="figure">
            {sayLength(set.widthMm)} × {sayLength(set.heightMm)}
          </span>
          , {set.pieces} {set.pieces === 1 ? 'piece' : 'pieces'}
        </p>
      ) : null}
    </div>
  );
}

/** A rim around the words, so that the line at their edge is seen whole. */
function withRim(source: string): string {
  return source.replace(
    /viewBox="0 0 (\S+) (\S+)"/,
    (_, width: string, height: string) => `viewBox="-0.5 -0.5 ${Number(width) + 1} ${Number(height) + 1}"`,
  );
}
