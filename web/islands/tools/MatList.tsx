import { factsOf, type Family } from '#core/stack/families/families.ts';
import type { Mat } from '#core/station/station.ts';
import type { JudgedMat } from '#core/wear/judgeMat.ts';
import { TACK_CLASSES, TACK_FEELS, TACK_FELT } from '#core/wear/tackIndex.ts';
import { CareList, type CareLine } from '#web/islands/tools/CareList.tsx';
import { Field, Quantity } from '#web/islands/tools/Field.tsx';
import { readFields, useTools } from '#web/islands/tools/useTools.ts';
import { nextNumber, ToolShelf } from '#web/islands/tools/ToolShelf.tsx';
import { say } from '#web/islands/shared/units.ts';

/** A mat with how well it still holds, worked out where the time is known. */
export interface MatView extends Mat {
  readonly tackIndex: number;
  readonly usesSinceCleaned: number;
  readonly suits: readonly Family[];
  readonly judged: JudgedMat;
}

interface Props {
  readonly mats: readonly MatView[];
  readonly care: Readonly<Record<string, readonly CareLine[]>>;
}

/** Every mat by its number: how well it holds and what for, what was done to it; and a new one. */
export function MatList({ mats, care }: Props) {
  const tools = useTools();
  return (
    <ToolShelf
      title="Mats"
      all={mats}
      row={(mat) => <MatRow mat={mat} care={care} tools={tools} />}
      error={tools.error}
      form={<NewMat tools={tools} next={nextNumber(mats)} />}
      note="The tack index falls with loads, age and lint: 100 is a fresh strong mat. From 20 to 30 loads on, roll every sheet down."
    />
  );
}

const ADVICE_WORDS = {
  good: 'good',
  wash: 'wash it',
  roll: 'roll sheets down',
  restick: 're-stick or retire it',
} as const;

type Tools = ReturnType<typeof useTools>;

/** What a mat holds well, what to do with it, and how long it still will. */
function Holds({ mat }: { readonly mat: MatView }) {
  return (
    <p className="text-sm text-muted">
      {mat.suits.length > 0
        ? `holds ${mat.suits.map((family) => factsOf(family).name).join(', ')}`
        : 'holds nothing well any more: wash, re-stick or retire it'}
      {' · '}
      <strong>{ADVICE_WORDS[mat.judged.advice]}</strong>: {say(mat.judged.reason)}; {leftWords(mat.judged)}
    </p>
  );
}

/** Loads that are left as a band, and where that is known from. */
function leftWords({ loadsLeft: { low, high }, changes }: JudgedMat): string {
  if (high === 0) return 'no loads left';
  const learnt =
    changes > 0 ? `learnt from ${changes} ${changes === 1 ? 'mat' : 'mats'} given up here` : 'as is usual';
  return `${low} to ${high} loads left, 8 times in 10 (${learnt})`;
}

function MatRow({ mat, care, tools }: { mat: MatView; care: Props['care']; tools: Tools }) {
  const act = (what: string) => tools.send(`/api/mats/${mat.id}/care`, 'POST', { care: what });
  const change = (body: object) => tools.send(`/api/mats/${mat.id}`, 'PATCH', body);
  const facts = [
    say(`${mat.widthMm} × ${mat.heightMm} mm`),
    `${mat.uses} loads, ${mat.usesSinceCleaned} since washed`,
    mat.usesAtRestick > 0 ? `re-stuck after ${mat.usesAtRestick}` : '',
    mat.feltShare ? 'tack tested by hand' : '',
  ];
  return (
    <li className="py-2.5">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
        <span className="font-semibold">
          No. {mat.number}, {mat.tack}
        </span>
        <span className="grow text-muted">
          {mat.retiredAt ? 'retired' : facts.filter(Boolean).join(' · ')}
        </span>
        <Tack index={mat.tackIndex} />
      </div>
      <Holds mat={mat} />
      <div className="flex flex-wrap items-center gap-2 mt-1.5">
        {mat.retiredAt ? (
          <button type="button" className="button" disabled={tools.isBusy} onClick={() => act('bringBack')}>
            Bring back
          </button>
        ) : (
          <>
            <button type="button" className="button" disabled={tools.isBusy} onClick={() => act('clean')}>
              Washed
            </button>
            <button type="button" className="button" disabled={tools.isBusy} onClick={() => act('restick')}>
              Re-stuck
            </button>
            <button type="button" className="button" disabled={tools.isBusy} onClick={() => act('retire')}>
              Retire
            </button>
            <Tick
              label="deep grooves"
              isOn={mat.hasGrooves}
              onChange={(hasGrooves) => change({ hasGrooves })}
            />
            <Tick
              label="kept for fine work"
              isOn={mat.isForFineWork}
              onChange={(isForFineWork) => change({ isForFineWork })}
            />
          </>
        )}
        {mat.retiredAt ? null : <TackTest mat={mat} tools={tools} />}
        <CareList lines={care[`mat-${mat.id}`] ?? []} />
      </div>
      {mat.hasGrooves && mat.isForFineWork ? (
        <p className="text-sm text-ember">Deep grooves do not go with fine work.</p>
      ) : null}
    </li>
  );
}

/** How it comes off under a hand tells the tack better than loads and age. */
function TackTest({ mat, tools }: { readonly mat: MatView; readonly tools: Tools }) {
  return (
    <details>
      <summary className="button">Test its tack</summary>
      <p className="mt-2">Pull the cover sheet, or a card pressed on, off by a corner. How does it come?</p>
      <div className="flex flex-wrap gap-2 mt-1.5">
        {TACK_FEELS.map((feel) => (
          <button
            key={feel}
            type="button"
            className="button"
            disabled={tools.isBusy}
            onClick={() => tools.send(`/api/mats/${mat.id}/tack`, 'POST', { feel })}
          >
            {TACK_FELT[feel].words}
          </button>
        ))}
      </div>
    </details>
  );
}

/** The tack as a bar and a figure. */
function Tack({ index }: { readonly index: number }) {
  return (
    <span className="flex items-center gap-2">
      <svg width="80" height="12" aria-hidden>
        <rect x="0.5" y="2.5" width="79" height="7" rx="3" fill="none" stroke="var(--color-edge)" />
        <rect x="1" y="3" width={0.78 * index} height="6" rx="2.5" fill="var(--color-feather)" />
      </svg>
      <span className="figure">
        <span className="sr-only">tack </span>
        {index}
      </span>
    </span>
  );
}

interface TickProps {
  readonly label: string;
  readonly isOn: boolean;
  readonly onChange: (isOn: boolean) => void;
}

function Tick({ label, isOn, onChange }: TickProps) {
  return (
    <label className="flex items-center gap-2 min-h-11 px-1">
      <input
        type="checkbox"
        className="size-5 accent-verdigris"
        checked={isOn}
        onChange={(event) => onChange(event.target.checked)}
      />
      {label}
    </label>
  );
}

function NewMat({ tools, next }: { readonly tools: Tools; readonly next: number }) {
  return (
    <details className="mt-3">
      <summary className="button">Add a mat</summary>
      <form
        aria-label="New mat"
        className="grid gap-3 grid-cols-2 sm:grid-cols-3 mt-3"
        onSubmit={(event) => {
          event.preventDefault();
          tools.send('/api/mats', 'POST', readFields(event.currentTarget));
        }}
      >
        <Field label="Number" name="number" type="number" value={next} />
        <label>
          <span className="block text-sm text-muted">Tack</span>
          <select name="tack" className="field" defaultValue="standard">
            {TACK_CLASSES.map((tack) => (
              <option key={tack}>{tack}</option>
            ))}
          </select>
        </label>
        <Field label="Loads already" name="uses" type="number" value={0} />
        <Quantity label="Width" name="widthMm" value={305} />
        <Quantity label="Height" name="heightMm" value={305} />
        <button
          type="submit"
          className="button col-span-full justify-self-start"
          data-kind="main"
          disabled={tools.isBusy}
        >
          Keep this mat
        </button>
      </form>
    </details>
  );
}
