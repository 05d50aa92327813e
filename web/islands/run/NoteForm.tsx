import { zodResolver } from '@hookform/resolvers/zod';
import { useState } from 'react';
import { useForm, type UseFormRegisterReturn } from 'react-hook-form';
import { countPieces } from '#core/run/countPieces.ts';
import type { Run } from '#core/run/run.ts';
import type { RunVerdict } from '#core/setting/setting.ts';
import { callApi } from '#web/islands/shared/callApi.ts';
import { Flaws, MoreFacts, TabsHeld } from '#web/islands/run/NoteFacts.tsx';
import { PhotoForm } from '#web/islands/run/PhotoForm.tsx';
import { Refusal } from '#web/islands/shared/Refusal.tsx';
import { runNoteSchema, type TypedNote } from '#web/schemas/run.ts';

const VERDICTS: readonly { readonly value: RunVerdict; readonly words: string }[] = [
  { value: 'clean', words: 'Clean' },
  { value: 'someSpoiled', words: 'Some spoiled' },
  { value: 'failed', words: 'Failed' },
];

/** How the run went: the settings it used learn from it. */
export function NoteForm({ run, onNoted }: { readonly run: Run; readonly onNoted: (run: Run) => void }) {
  const { form, note, error, isNoted, isSubmitting, errors } = useNote(run, onNoted);
  return (
    <form aria-label="Note the run" className="sheet p-4 sm:p-5" onSubmit={note} noValidate>
      <h2>How did it go?</h2>
      <Verdicts field={form.register('verdict')} />
      {errors.verdict ? <p className="text-ember text-sm mt-1">Choose one of the three.</p> : null}
      <div className="grid grid-cols-2 gap-3 mt-3">
        <Count
          label="Pieces good"
          invalid={Boolean(errors.piecesGood)}
          field={form.register('piecesGood', { valueAsNumber: true })}
        />
        <Count
          label="Pieces spoiled"
          invalid={Boolean(errors.piecesSpoiled)}
          field={form.register('piecesSpoiled', { valueAsNumber: true })}
        />
      </div>
      <Flaws field={form.register('flaws')} />
      {run.strokes.some(({ operation }) => operation === 'perforated') ? <TabsHeld form={form} /> : null}
      <MoreFacts form={form} />
      <label className="block text-sm text-muted mt-3" htmlFor="run-note">
        Note, if you like
      </label>
      <textarea id="run-note" rows={2} className="field" maxLength={1000} {...form.register('note')} />
      <button type="submit" className="button w-full mt-3" data-kind="main" disabled={isSubmitting}>
        {isNoted ? 'Note it again' : 'Note it'}
      </button>
      <Refusal error={error} />
      <PhotoForm runId={run.id} />
      {isNoted ? (
        <p className="note mt-3" data-tone="good" role="status">
          Noted. <a href="/log">See the Log</a> or <a href="/">the Bench</a>.
        </p>
      ) : null}
    </form>
  );
}

/** The note as it is typed, and keeping it. */
function useNote(run: Run, onNoted: (run: Run) => void) {
  const [error, setError] = useState<unknown>(null);
  const [isNoted, setNoted] = useState(run.verdict !== null);
  const form = useForm<TypedNote>({
    resolver: zodResolver(runNoteSchema),
    defaultValues: {
      ...(run.verdict ? { verdict: run.verdict } : {}),
      // What was cut is good until somebody says otherwise.
      piecesGood: run.verdict ? run.piecesGood : countPieces(run),
      piecesSpoiled: run.piecesSpoiled,
      note: run.note,
      flaws: run.flaws,
      sheetsUsed: run.sheetsUsed,
      humidity: run.humidity,
      tabsHeld: null,
      shift: null,
    },
  });
  const { errors, isSubmitting } = form.formState;
  const note = form.handleSubmit(async (input) => {
    setError(null);
    try {
      onNoted(await callApi<Run>(`/api/runs/${run.id}/note`, 'PUT', input));
      setNoted(true);
    } catch (refusal) {
      setError(refusal);
    }
  });
  return { form, note, error, isNoted, isSubmitting, errors };
}

function Verdicts({ field }: { readonly field: UseFormRegisterReturn }) {
  return (
    <fieldset className="grid grid-cols-3 gap-2 mt-2">
      <legend className="sr-only">Verdict</legend>
      {VERDICTS.map(({ value, words }) => (
        <label
          key={value}
          className="button px-2 font-normal has-checked:border-verdigris has-checked:bg-verdigris-pale has-checked:font-semibold has-focus-visible:outline-3"
        >
          <input type="radio" value={value} className="sr-only" {...field} />
          {words}
        </label>
      ))}
    </fieldset>
  );
}

interface CountProps {
  readonly label: string;
  readonly invalid: boolean;
  readonly field: object;
}

function Count({ label, invalid, field }: CountProps) {
  return (
    <label className="text-sm text-muted">
      {label}
      <input
        type="number"
        min={0}
        className="field figure text-base text-ink"
        aria-invalid={invalid}
        {...field}
      />
    </label>
  );
}
