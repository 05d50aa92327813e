import { LayoutGrid, Square } from 'lucide-react';
import { affineOf, TURN_WORDS, TURNS, turnBox, type Layout, type Turns } from '#core/sheet/layout.ts';
import type { CutRole } from '#core/drawing/roles/lineRoles.ts';
import { wantedCopies } from '#core/sheet/arrangePieces.ts';
import { ArrangementChoice } from '#web/islands/job/sheet/ArrangementChoice.tsx';
import { CarrierForm } from '#web/islands/job/sheet/CarrierForm.tsx';
import type { BoxMm } from '#core/geometry/box.ts';
import type { Design } from '#web/islands/job/useDesign.ts';
import type { JobChange } from '#web/islands/job/useJob.ts';
import type { Nest } from '#web/islands/job/sheet/useNest.ts';
import { RadioRow } from '#web/islands/shared/RadioRow.tsx';
import { NumberBox } from '#web/islands/shared/NumberBox.tsx';
import { Length } from '#web/islands/shared/Length.tsx';
import type { JobReply } from '#web/schemas/job.ts';
import { say } from '#web/islands/shared/units.ts';

interface Props {
  readonly job: JobReply;
  readonly design: Design;
  readonly nest: Nest;
  /** How a card is freed where nobody chose. */
  readonly freeingRole: CutRole;
  readonly isBusy: boolean;
  readonly onChange: (change: JobChange) => void;
}

/** How pieces lie on the sheet: as drawn or each by itself, how many, how near, which way. */
export function LayoutForm({ job, design, nest, freeingRole, isBusy, onChange }: Props) {
  const { layout } = job;
  const pieces = design.layout?.pieces.length ?? 0;
  const placed = layout.placements.length;
  const isAlone = (job.moreDrawings ?? []).length === 0;
  const set = (change: Partial<Layout>) => onChange({ layout: { ...layout, ...change } });
  return (
    <fieldset className="border-t border-hairline mt-4 pt-3">
      <legend className="sr-only">Layout</legend>
      <h2>How does it lie?</h2>
      {isAlone ? <WholeOrEach layout={layout} isBusy={isBusy} onSet={set} /> : null}
      <ArrangementChoice layout={layout} design={design} isBusy={isBusy} onSet={set} />
      <div className="grid grid-cols-2 gap-3 mt-3">
        <NumberBox
          label="Copies (0 fills the sheet)"
          value={layout.copies}
          onChange={(copies) => set({ copies: Math.max(0, Math.round(copies)) })}
        />
        <Length label="Apart" mm={layout.spacingMm} onChange={(spacingMm) => set({ spacingMm })} />
      </div>
      {layout.isWhole ? null : <Quantities layout={layout} design={design} onSet={set} />}
      <label className="block text-sm text-muted mt-2" htmlFor="turns">
        Pieces may lie
      </label>
      <select
        id="turns"
        className="field"
        value={layout.turns}
        onChange={(event) => set({ turns: event.target.value as Turns })}
      >
        {TURNS.map((turns) => (
          <option key={turns} value={turns}>
            {TURN_WORDS[turns]}
          </option>
        ))}
      </select>
      <CarrierForm layout={layout} freeingRole={freeingRole} isBusy={isBusy} onSet={set} />
      <LayOutButton
        job={job}
        design={design}
        nest={nest}
        canStart={!isBusy && !design.isBehind && pieces > 0}
      />
      {layout.isWhole && placed === 1 && design.layout ? (
        <Corner layout={layout} box={design.layout.pieces[0]?.box ?? null} onSet={set} />
      ) : null}
    </fieldset>
  );
}

interface WholeProps {
  readonly layout: Layout;
  readonly isBusy: boolean;
  readonly onSet: (change: Partial<Layout>) => void;
}

const WHOLE_OR_EACH = [
  { value: 'whole', words: 'As drawn, in one' },
  { value: 'each', words: 'Each piece by itself' },
] as const;

function WholeOrEach({ layout, isBusy, onSet }: WholeProps) {
  const choose = (isWhole: boolean) =>
    onSet({ isWhole, placements: isWhole === layout.isWhole ? layout.placements : [] });
  return (
    <div className="mt-2">
      <RadioRow
        label="What is laid out"
        options={WHOLE_OR_EACH}
        value={layout.isWhole ? 'whole' : 'each'}
        isBusy={isBusy}
        onChoose={(value) => choose(value === 'whole')}
      />
    </div>
  );
}

function LayOutButton({
  job,
  design,
  nest,
  canStart,
}: Pick<Props, 'job' | 'design' | 'nest'> & { readonly canStart: boolean }) {
  const { layout } = job;
  const placed = countPieces(design, layout);
  const cards = layout.placements.length - placed;
  const missing = listMissing(job, design);
  return (
    <>
      {nest.isRunning ? (
        <button type="button" className="button w-full mt-3" data-kind="main" onClick={nest.take}>
          <Square size={16} aria-hidden /> Take this{nest.better ? `: ${describe(nest.better)}` : ''}
        </button>
      ) : (
        <button type="button" className="button w-full mt-3" disabled={!canStart} onClick={nest.start}>
          <LayoutGrid size={18} aria-hidden /> Lay out
        </button>
      )}
      <p className="text-sm text-muted mt-1" role="status">
        {nest.isRunning
          ? 'Trying other ways; what is better is shown at once.'
          : placed === 0
            ? 'Nothing lies on the sheet yet.'
            : `${placed} ${placed === 1 ? 'piece' : 'pieces'} on ${cardsOf(cards)}${sheetsOf(layout)}.`}
      </p>
      {layout.carrier && layout.carrier.count > 0 && cards > layout.carrier.count && !nest.isRunning ? (
        <p className="note mt-1" data-tone="careful" role="status">
          They take {cards} cards, not {layout.carrier.count}. Make the pieces smaller, or fewer of them.
        </p>
      ) : null}
      {missing.length > 0 && placed > 0 && !nest.isRunning ? (
        <p className="note mt-1" data-tone="careful" role="status">
          Not on a sheet: {missing.join(', ')}. Make them smaller, or take a larger sheet or card.
        </p>
      ) : null}
    </>
  );
}

/** Pieces that come off the sheet, cards not counted. */
function countPieces({ layout: shown }: Design, { placements }: Layout): number {
  const cards = new Set(
    (shown?.pieces ?? []).filter(({ drawing }) => drawing === null).map(({ index }) => index),
  );
  return placements.filter(({ piece }) => !cards.has(piece)).length;
}

/** What is wanted and lies on no sheet, in words. */
function listMissing(
  { layout, name, drawingName = name, moreDrawings = [] }: JobReply,
  { layout: shown, isBehind }: Design,
): readonly string[] {
  if (!shown || isBehind || layout.arrangement === undefined) return [];
  return shown.pieces.flatMap(({ index, drawing }) => {
    if (drawing === null) return [];
    const wanted = wantedCopies({ index, drawing }, layout);
    const laid = layout.placements.filter(({ piece }) => piece === index).length;
    if (wanted === Infinity ? laid > 0 : laid >= wanted) return [];
    const own = moreDrawings.find(({ number }) => number === drawing)?.name ?? drawingName;
    return [wanted === Infinity ? own : `${wanted - laid} of ${wanted} ${own}`];
  });
}

function describe({ placements, sheets, use, unplaced }: NonNullable<Nest['better']>): string {
  const words = `${placements.length} on ${sheets} ${sheets === 1 ? 'sheet' : 'sheets'}, ${Math.round(use * 100)} % used`;
  return unplaced.length > 0 ? `${words}; ${unplaced.length} too large` : words;
}

function cardsOf(cards: number): string {
  return cards === 0 ? '' : cards === 1 ? 'one card, ' : `${cards} cards, `;
}

function sheetsOf({ placements }: Layout): string {
  const count = placements.reduce((most, { sheet }) => Math.max(most, sheet + 1), 0);
  return count === 1 ? 'one sheet' : `${count} sheets`;
}

/** So many pieces can be counted one by one; more are laid out alike. */
const MOST_COUNTED = 12;

/** How many of each piece, where they are few: what is not said goes by the copies of all. */
function Quantities({
  layout,
  design,
  onSet,
}: Pick<Props, 'design'> & { readonly layout: Layout; readonly onSet: (change: Partial<Layout>) => void }) {
  const pieces = design.layout?.pieces ?? [];
  if (pieces.length < 2 || pieces.length > MOST_COUNTED) return null;
  return (
    <details className="mt-2">
      <summary className="cursor-pointer min-h-11 flex items-center text-sm underline">
        Other copies of single pieces
      </summary>
      <ul className="grid grid-cols-2 gap-3">
        {pieces.map(({ index, box }) => (
          <li key={index}>
            <NumberBox
              label={say(
                `Piece ${index + 1}, ${Math.round(box.maxX - box.minX)} × ${Math.round(box.maxY - box.minY)} mm`,
              )}
              value={layout.quantities[index] ?? layout.copies}
              onChange={(count) =>
                onSet({ quantities: { ...layout.quantities, [index]: Math.max(0, Math.round(count)) } })
              }
            />
          </li>
        ))}
      </ul>
    </details>
  );
}

interface CornerProps {
  readonly layout: Layout;
  readonly box: BoxMm | null;
  readonly onSet: (change: Partial<Layout>) => void;
}

/** Where the upper left corner of the one piece lies. */
function Corner({ layout, box, onSet }: CornerProps) {
  const place = layout.placements[0];
  if (!box || !place) return null;
  const turned = turnBox(box, affineOf(box, place));
  const move = (by: { readonly x?: number; readonly y?: number }) =>
    onSet({ placements: [{ ...place, xMm: place.xMm + (by.x ?? 0), yMm: place.yMm + (by.y ?? 0) }] });
  return (
    <div className="grid grid-cols-2 gap-3 mt-2">
      <Length label="Drawing from the left" mm={turned.minX} onChange={(x) => move({ x: x - turned.minX })} />
      <Length label="Drawing from the top" mm={turned.minY} onChange={(y) => move({ y: y - turned.minY })} />
    </div>
  );
}
