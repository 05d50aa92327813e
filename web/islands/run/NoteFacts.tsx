import { useState } from 'react';
import type { UseFormRegisterReturn, UseFormReturn } from 'react-hook-form';
import { TAB_QUANTITY } from '#core/perforation/tabModel.ts';
import { FLAW_NAMES, FLAWS } from '#core/stack/depthGrade.ts';
import type { TypedNote } from '#web/schemas/run.ts';
import { QuantityInput, unitOf } from '#web/islands/shared/QuantityInput.tsx';

/** Empty is nothing said. */
export function readNumber(text: unknown): number | null {
  const typed = String(text ?? '')
    .trim()
    .replace(',', '.');
  return typed === '' ? null : Number(typed);
}

const CHIP =
  'button px-3 font-normal has-checked:border-verdigris has-checked:bg-verdigris-pale has-checked:font-semibold has-focus-visible:outline-3';

/** Flaws seen on the pieces. */
export function Flaws({ field }: { readonly field: UseFormRegisterReturn }) {
  return (
    <fieldset className="mt-3">
      <legend className="text-sm text-muted">Flaws seen, if any</legend>
      <div className="flex flex-wrap gap-2 mt-1">
        {FLAWS.map((flaw) => (
          <label key={flaw} className={CHIP}>
            <input type="checkbox" value={flaw} className="sr-only" {...field} />
            {FLAW_NAMES[flaw]}
          </label>
        ))}
      </div>
    </fieldset>
  );
}

/** How perforated pieces held: the next tabs are proposed from it. */
export function TabsHeld({ form }: { readonly form: UseFormReturn<TypedNote> }) {
  const said = form.watch('tabsHeld');
  return (
    <fieldset className="mt-3">
      <legend className="text-sm text-muted">How did the pieces hold at their tabs?</legend>
      <div className="flex flex-wrap gap-2 mt-1">
        {TAB_QUANTITY.steps.map((words, seen) => (
          <button
            key={words}
            type="button"
            aria-pressed={said === seen}
            className="button px-3 font-normal aria-pressed:border-verdigris aria-pressed:bg-verdigris-pale aria-pressed:font-semibold"
            onClick={() => form.setValue('tabsHeld', said === seen ? null : seen)}
          >
            {words}
          </button>
        ))}
      </div>
    </fieldset>
  );
}

/** What else a run can tell: sheets, damp, shift of print and cut. */
export function MoreFacts({ form }: { readonly form: UseFormReturn<TypedNote> }) {
  const { errors } = form.formState;
  const [typed, setTyped] = useState({ x: Number.NaN, y: Number.NaN });
  // Nothing typed is nothing read: a shift of 0 is said with a 0.
  const typeShift = (axis: 'x' | 'y', mm: number) => {
    const next = { ...typed, [axis]: mm };
    setTyped(next);
    const isNothing = Number.isNaN(next.x) && Number.isNaN(next.y);
    form.setValue('shift', isNothing ? null : { x: next.x || 0, y: next.y || 0 });
  };
  const shift = (axis: 'x' | 'y') => ({
    kind: 'length' as const,
    className: 'field figure text-base text-ink',
    kept: typed[axis],
    'aria-invalid': Boolean(errors.shift),
    onKept: (mm: number) => typeShift(axis, mm),
  });
  return (
    <details className="mt-3">
      <summary className="cursor-pointer min-h-11 content-center text-sm">
        Sheets, damp, shift of print and cut
      </summary>
      <div className="grid grid-cols-2 gap-3">
        <label className="text-sm text-muted">
          Sheets used
          <input
            type="number"
            min={0}
            className="field figure text-base text-ink"
            {...form.register('sheetsUsed', { valueAsNumber: true })}
          />
        </label>
        <label className="text-sm text-muted">
          Damp of the room, %
          <input
            className="field figure text-base text-ink"
            inputMode="decimal"
            aria-invalid={Boolean(errors.humidity)}
            {...form.register('humidity', { setValueAs: readNumber })}
          />
        </label>
        <label className="text-sm text-muted">
          Cut lies right of print, {unitOf('length')}
          <QuantityInput {...shift('x')} />
        </label>
        <label className="text-sm text-muted">
          Cut lies below print, {unitOf('length')}
          <QuantityInput {...shift('y')} />
        </label>
      </div>
    </details>
  );
}
