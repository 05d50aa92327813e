import { Minus, Plus } from 'lucide-react';
import { useState } from 'react';
import type { CutAdvice } from '#core/dialIn/adviseNextCut.ts';
import { isHarm } from '#core/practice/hiddenSheet.ts';
import type { CutPiece, OpenForce } from '#core/practice/practiceForce.ts';
import { GRADE_WORDS } from '#core/stack/depthGrade.ts';
import { factsOf } from '#core/stack/families/families.ts';
import { MACHINE_KIND_NAMES } from '#core/station/machine.ts';
import { forceUnit, gfToForce, snapForce, wordForce, type ForceScale } from '#core/units/forceScale.ts';
import { GradePicture } from '#web/components/gradePicture/GradePicture.tsx';
import { say, sayCaliper, sayNumber } from '#web/islands/shared/units.ts';

/** What the pack and the bench tell; no more than anybody would know. */
export function Told({ open: { sheet, exercise, scale } }: { readonly open: OpenForce }) {
  const layers = sheet.told.stack.map(({ role, caliperUm }) => `${role} ${sayCaliper(caliperUm)}`).join(', ');
  const facts = [
    ['Sheet', `${factsOf(sheet.told.family).name}: ${layers}`],
    ['Pigment', sheet.told.darkness > 0.5 ? 'dark' : sheet.told.darkness > 0 ? 'coloured' : 'pale'],
    ['Machine', `${MACHINE_KIND_NAMES[exercise.machine]}, ${scaleWords(scale)}`],
    ['Blade', say(`${sheet.conditions.bladeMetres.toFixed(0)} m cut`)],
    [
      'Right is',
      exercise.operation === 'kiss' ? 'face free, liner whole' : 'the sheet falls free, the mat is whole',
    ],
  ] as const;
  return (
    <dl className="grid grid-cols-[6rem_1fr] gap-x-3 gap-y-0.5 mt-3 border-y border-hairline py-2">
      {facts.map(([name, words]) => (
        <div key={name} className="contents">
          <dt className="text-muted">{name}</dt>
          <dd>{words}</dd>
        </div>
      ))}
    </dl>
  );
}

function scaleWords(scale: ForceScale): string {
  return scale.kind === 'level'
    ? `levels ${scale.min} to ${scale.max}, written down as ${sayNumber(scale.gfPerUnit)} gf each`
    : `${scale.min} to ${scale.max} gf`;
}

interface DialProps {
  readonly scale: ForceScale;
  readonly force: number;
  readonly onChange: (force: number) => void;
  readonly onCut: () => void;
}

/** The force as it is dialled: typed, or one step at a time; Enter cuts. */
export function ForceDial({ scale, force, onChange, onCut }: DialProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const take = (text: string) => {
    setTyped(null);
    const value = Number(text.replace(',', '.'));
    if (Number.isFinite(value) && text.trim() !== '') onChange(snapForce(value, scale));
  };
  const step = (by: number) => onChange(snapForce(force + by * scale.step, scale));
  return (
    <div>
      <label className="block text-sm text-muted" htmlFor="practice-force">
        Force, {forceUnit(scale)}
      </label>
      <span className="flex gap-1.5">
        <button
          type="button"
          className="button px-3"
          data-keys="ArrowLeft"
          aria-label="One step less"
          onClick={() => step(-1)}
        >
          <Minus size={16} aria-hidden />
        </button>
        <input
          id="practice-force"
          className="field figure w-28 text-xl font-bold text-center"
          inputMode="decimal"
          value={typed ?? String(force)}
          onChange={(event) => setTyped(event.target.value)}
          onBlur={(event) => take(event.target.value)}
          onKeyDown={(event) => {
            if (event.key !== 'Enter') return;
            if (typed === null) onCut();
            else take(typed);
          }}
        />
        <button
          type="button"
          className="button px-3"
          data-keys="ArrowRight"
          aria-label="One step more"
          onClick={() => step(1)}
        >
          <Plus size={16} aria-hidden />
        </button>
      </span>
    </div>
  );
}

interface AdviceProps {
  readonly advice: CutAdvice | null;
  readonly scale: ForceScale;
  readonly onTake: (force: number) => void;
}

/** What the tool would do next. */
export function Advice({ advice, scale, onTake }: AdviceProps) {
  if (!advice)
    return (
      <p className="note mt-3" role="status">
        Thinking …
      </p>
    );
  const force = gfToForce(advice.next.forceGf, scale);
  const words = {
    cut: `Cut next at ${wordForce(force, scale)}.`,
    repeat: `That was a surprise: cut once more at ${wordForce(force, scale)}.`,
    confirm: `Probably ${wordForce(force, scale)}: cut one piece there to be sure.`,
    keep: `Keep ${wordForce(force, scale)}.`,
    noWindow: 'No force is right here. Another pass or a fresh blade would help more than another cut.',
  }[advice.kind];
  return (
    <p className="note mt-3 flex flex-wrap items-center gap-3" role="status">
      {words}
      {advice.kind === 'noWindow' ? null : (
        <button type="button" className="button px-3" data-keys="t" onClick={() => onTake(force)}>
          Set it
        </button>
      )}
    </p>
  );
}

interface PiecesProps {
  readonly open: OpenForce;
  readonly pieces: readonly CutPiece[];
  /** Whether what is seen is put into words too. */
  readonly isNamed: boolean;
}

/** What came out, the newest first: a section of each cut. Reading it is the learner's. */
export function Pieces({ open: { scale, sheet, wanted }, pieces, isNamed }: PiecesProps) {
  const isLayered = sheet.grades.length === 9;
  return (
    <section aria-label="Pieces cut" className="sheet p-4 sm:p-5">
      <h2 className="text-muted">Pieces cut</h2>
      {pieces.length === 0 ? <p>None yet. Set a force and cut one.</p> : null}
      <ol className="grid gap-2 mt-2" aria-live="polite">
        {pieces
          .map((piece, index) => ({ ...piece, number: index + 1 }))
          .reverse()
          .map(({ number, force, passes, grade }) => (
            <li key={number} className="flex items-center gap-3 border-b border-hairline pb-2">
              <span className="figure text-muted w-6">{number}</span>
              <span className={number === pieces.length ? 'scale-125 origin-left mr-4' : ''}>
                <GradePicture grade={grade} isLayered={isLayered} />
              </span>
              <span>
                <span className="figure font-semibold">{wordForce(force, scale)}</span>
                {passes > 1 ? <span className="text-muted"> · {passes} passes</span> : null}
                <span className={isNamed ? 'block text-sm text-muted' : 'sr-only'}>
                  {GRADE_WORDS[grade].look}
                </span>
                {isNamed && isHarm(grade, wanted) ? (
                  <span className="block text-sm text-ember font-semibold">harm done</span>
                ) : null}
              </span>
            </li>
          ))}
      </ol>
    </section>
  );
}
