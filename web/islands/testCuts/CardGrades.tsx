import { sayForce } from '#core/units/forceScale.ts';
import { useState } from 'react';
import type { PendingCard } from '#core/dialIn/dialIn.ts';
import { gradeZones, zoneCells } from '#core/dialIn/gradeZones.ts';
import { GRADE_WORDS, type DepthGrade } from '#core/stack/depthGrade.ts';
import type { DepthOperation } from '#core/stack/operation.ts';
import type { PanelCut } from '#core/passes/panelCuts.ts';
import { judgeGrade } from '#core/stack/judgeGrade.ts';
import type { Dial } from '#web/islands/testCuts/useDialIn.ts';

interface Props {
  readonly dial: Dial;
  readonly card: PendingCard;
  readonly operation: DepthOperation;
  readonly unit: string;
  /** What is dialled at the panel before the card is cut; none where the file carries the force. */
  readonly dials: readonly PanelCut[];
}

/** Grading a card by its two boundaries, or cell by cell where more can be seen. */
export function CardGrades({ dial, card, operation, unit, dials }: Props) {
  const { forces, load } = card;
  const { enough, tooMuch, enoughFrom, tooMuchFrom, isMarked, setEnough, setTooMuch } = useMarks(
    forces.length,
  );
  const zones = gradeZones(operation, dial.isLayered);
  const graded = new Map(dial.cuts.filter((cut) => cut.load === load).map((cut) => [cut.cell, cut]));
  const ranges = zoneCells(zones, forces.length, enoughFrom, tooMuchFrom);
  const open = forces.flatMap((_, cell) => (graded.has(cell) ? [] : [cell]));
  const record = () =>
    dial.gradeCells(
      open.map((cell) => {
        const [grade, upTo] = ranges[cell] as (typeof ranges)[number];
        return grade === upTo ? { cell, grade, flaws: [] } : { cell, grade, upTo, flaws: [] };
      }),
    );
  return (
    <section aria-label="Card" ref={bringIntoView} className="border-y border-hairline mt-3 py-3">
      <CardHeading
        card={card}
        dials={dials}
        path={`/api/dial-ins/${dial.dialIn?.id ?? 0}/piece?card=waiting`}
      />
      <CardCells
        dial={dial}
        forces={forces}
        graded={graded}
        sideAt={(cell) => {
          const cut = graded.get(cell);
          const known = cut && judgeGrade(cut.grade, operation);
          return known ?? (isMarked ? sideOf(cell, enoughFrom, tooMuchFrom) : null);
        }}
      />
      <Boundary
        label={zones.enoughWords}
        value={enoughFrom}
        count={forces.length}
        words={enough === null ? NOT_SET : boundaryWords(forces, enoughFrom, unit)}
        onChange={setEnough}
      />
      <Boundary
        label={zones.tooMuchWords}
        value={tooMuchFrom}
        count={forces.length}
        words={tooMuch === null ? NOT_SET : boundaryWords(forces, tooMuchFrom, unit)}
        onChange={setTooMuch}
      />
      <CardButtons
        dial={dial}
        open={open.length}
        all={forces.length}
        isMarked={isMarked || open.length === 0}
        onRecord={record}
      />
    </section>
  );
}

/** The two marks of a card of `count` cells. Nothing is graded before somebody looked: both are set by hand. */
function useMarks(count: number) {
  const [enough, setEnough] = useState<number | null>(null);
  const [tooMuch, setTooMuch] = useState<number | null>(null);
  const enoughFrom = enough ?? Math.ceil(count / 3);
  return {
    enough,
    tooMuch,
    enoughFrom,
    tooMuchFrom: tooMuch ?? Math.max(enoughFrom, Math.ceil((2 * count) / 3)),
    isMarked: enough !== null && tooMuch !== null,
    setEnough: (value: number) => {
      setEnough(value);
      if (tooMuch !== null) setTooMuch(Math.max(value, tooMuch));
    },
    setTooMuch: (value: number) => {
      setTooMuch(value);
      if (enough !== null) setEnough(Math.min(value, enough));
    },
  };
}

/** The card stands above the button that lays it: on a phone it would appear out of sight. */
function bringIntoView(card: HTMLElement | null): void {
  card?.scrollIntoView({ block: 'nearest' });
}

interface ButtonProps {
  readonly dial: Dial;
  readonly open: number;
  readonly all: number;
  readonly isMarked: boolean;
  readonly onRecord: () => void;
}

function CardButtons({ dial, open, all, isMarked, onRecord }: ButtonProps) {
  return (
    <>
      <div className="flex flex-wrap gap-3 mt-3">
        <button
          type="button"
          className="button"
          data-kind="main"
          disabled={dial.isBusy || !isMarked}
          onClick={onRecord}
        >
          Record {open === all ? 'all' : 'the other'} {open} cells
        </button>
        <button
          type="button"
          className="button"
          data-kind="quiet"
          disabled={dial.isBusy}
          onClick={dial.putCardAway}
        >
          Put the card away ungraded
        </button>
      </div>
      <p className="text-sm text-muted mt-2">
        {isMarked ? '' : 'Move both marks, or tap them where they stand, before you record. '}
        Tap a cell to grade it exactly; what you do not grade exactly is recorded as its zone and no more.
      </p>
    </>
  );
}

interface HeadingProps extends Pick<Props, 'card' | 'dials'> {
  readonly path: string;
}

function CardHeading({ card, path, dials }: HeadingProps) {
  // With fewer numbered cuts than forces one file would cut several cells alike.
  const isOneFile = dials.length === 0 || dials.length >= new Set(card.forces).size;
  return (
    <>
      <div className="flex flex-wrap items-baseline justify-between gap-2">
        <h2 className="text-base font-semibold">
          {card.purpose === 'ladder' ? 'Ladder card' : 'Confirming card'}, {card.forces.length} forces in one
          load
        </h2>
        <p className="text-sm">
          {isOneFile ? (
            <>
              <a href={`${path}&format=machine`} download>
                machine file
              </a>{' '}
              ·{' '}
            </>
          ) : null}
          <a href={`${path}&format=svg`}>drawing</a> · <a href={`${path}&format=guide`}>print guide</a>
        </p>
      </div>
      <p className="text-sm text-muted">Cut it, look from left to right, then move the two marks.</p>
      {dials.length > 1 ? <NumberedCuts dials={dials} /> : null}
      {isOneFile ? null : <CellFiles forces={card.forces} path={path} />}
    </>
  );
}

/** Where the panel has a numbered cut for each force: what each is dialled to before the file, which chooses among them. */
function NumberedCuts({ dials }: Pick<Props, 'dials'>) {
  const speed = dials[0]?.speed ?? null;
  return (
    <>
      <p className="mt-1">
        Dial these at the panel first
        {speed === null ? (
          ''
        ) : (
          <>
            , each with speed <strong className="figure">{speed}</strong>
          </>
        )}
        . The file chooses them by number.
      </p>
      <ol className="flex flex-wrap gap-x-5 gap-y-1" aria-label="Numbered cuts of the panel">
        {dials.map(({ number, force }) => (
          <li key={number}>
            cut {number}: force <strong className="figure text-lg">{force}</strong>
          </li>
        ))}
      </ol>
    </>
  );
}

/** Where the panel owns the force: a file for each cell, with what to dial in before it. */
function CellFiles({ forces, path }: { readonly forces: readonly number[]; readonly path: string }) {
  return (
    <ol className="flex flex-wrap gap-x-4 gap-y-1 mt-1">
      {forces.map((force, cell) => (
        <li key={force}>
          <a href={`${path}&format=machine&cell=${cell + 1}`} download>
            file {cell + 1}
          </a>
          : dial <strong className="figure text-lg">{force}</strong>
        </li>
      ))}
    </ol>
  );
}

interface CellsProps {
  readonly dial: Dial;
  readonly forces: readonly number[];
  readonly graded: ReadonlyMap<number | null | undefined, { readonly grade: DepthGrade }>;
  readonly sideAt: (cell: number) => Side | null;
}

function CardCells({ dial, forces, graded, sideAt }: CellsProps) {
  return (
    <ol
      className="grid gap-1 mt-2"
      style={{ gridTemplateColumns: `repeat(${forces.length}, minmax(0, 1fr))` }}
    >
      {forces.map((force, cell) => {
        const cut = graded.get(cell);
        const side = sideAt(cell);
        return (
          <li key={force}>
            <button
              type="button"
              aria-pressed={dial.gradedCell === cell}
              disabled={cut !== undefined || dial.isBusy}
              onClick={() => dial.chooseCell(dial.gradedCell === cell ? null : cell)}
              title={`grade cell ${cell + 1} exactly`}
              className="w-full min-h-16 border border-edge cursor-pointer px-1 py-1.5 text-center leading-tight aria-pressed:outline-3 aria-pressed:outline-ink"
              style={side ? { background: ZONE_GROUND[side] } : undefined}
            >
              <span className="figure font-bold block text-lg">{force}</span>
              <span className="text-xs block">
                {cut ? GRADE_WORDS[cut.grade].word : side ? ZONE_WORDS[side] : 'not graded'}
              </span>
            </button>
          </li>
        );
      })}
    </ol>
  );
}

type Side = 'under' | 'right' | 'over';

const ZONE_WORDS: Readonly<Record<Side, string>> = { under: 'under', right: 'right', over: 'over' };
const ZONE_GROUND: Readonly<Record<Side, string>> = {
  under:
    'repeating-linear-gradient(45deg, transparent 0 6px, color-mix(in srgb, var(--color-straw) 26%, transparent) 6px 8px), var(--color-sheet)',
  right: 'color-mix(in srgb, var(--color-verdigris) 20%, var(--color-sheet))',
  over: 'repeating-linear-gradient(45deg, transparent 0 6px, color-mix(in srgb, var(--color-ember) 24%, transparent) 6px 8px), repeating-linear-gradient(-45deg, transparent 0 6px, color-mix(in srgb, var(--color-ember) 24%, transparent) 6px 8px), var(--color-sheet)',
};

/** What a mark says before it is set. */
const NOT_SET = 'not set';

function sideOf(cell: number, enoughFrom: number, tooMuchFrom: number): Side {
  if (cell >= tooMuchFrom) return 'over';
  return cell >= enoughFrom ? 'right' : 'under';
}

function boundaryWords(forces: readonly number[], from: number, unit: string): string {
  const force = forces[from];
  return force === undefined ? 'nowhere on this card' : sayForce(force, unit);
}

interface BoundaryProps {
  readonly label: string;
  readonly words: string;
  readonly value: number;
  readonly count: number;
  readonly onChange: (value: number) => void;
}

/** One boundary as a mark to drag, or to move with the arrow keys. */
function Boundary({ label, words, value, count, onChange }: BoundaryProps) {
  return (
    <label className="block mt-2">
      <span className="flex justify-between gap-3">
        <span className="font-semibold">{label}</span>
        <span className="figure">{words}</span>
      </span>
      <input
        type="range"
        min={0}
        max={count}
        step={1}
        value={value}
        aria-valuetext={words}
        onChange={(event) => onChange(Number(event.target.value))}
        onPointerUp={() => onChange(value)}
        onKeyDown={(event) => {
          event.stopPropagation();
          if (event.key === 'Enter' || event.key === ' ') onChange(value);
        }}
        className="w-full h-11 accent-ink cursor-grab"
      />
    </label>
  );
}
