import { useEffect, useMemo, useState } from 'react';
import { BACKINGS, type Backing } from '#core/drawing/border/border.ts';
import { NECK_MM } from '#core/drawing/border/measureBorder.ts';
import { isCutRole } from '#core/drawing/roles/lineRoles.ts';
import type { ShownDrawing } from '#core/job/describeLayout.ts';
import { borderOf, setBorder, withoutBorder, type OwnBorder } from '#core/job/jobBorder.ts';

import type { Looked } from '#web/islands/job/drawings/useLooked.ts';
import type { JobChange } from '#web/islands/job/useJob.ts';
import type { Design } from '#web/islands/job/useDesign.ts';
import { RadioRow } from '#web/islands/shared/RadioRow.tsx';
import { TickBox } from '#web/islands/shared/TickBox.tsx';
import { Length } from '#web/islands/shared/Length.tsx';
import { sayLength } from '#web/islands/shared/units.ts';

interface Props {
  readonly looked: Looked;
  readonly drawing: ShownDrawing;
  readonly design: Design;
  readonly isBusy: boolean;
}

/** Borders that people settle on. Common practice, no source (T21). */
const USUAL: OwnBorder = { byMm: 1.6, closesMm: 0, backing: 'outline', colour: null };
const WIDEST_MM = 8;
const STEP_MM = 0.1;

const BACKING_WORDS: Readonly<Record<Backing, string>> = {
  outline: 'the outline',
  hull: 'a tight shape without bays',
  rectangle: 'a rounded rectangle',
  oval: 'an oval',
  round: 'a circle',
};

const SIDES = [
  { value: 'none', words: 'None' },
  { value: 'out', words: 'Outside' },
  { value: 'in', words: 'Inside' },
] as const;

/** The border of a printed drawing's pieces: how wide, what it follows, which gaps it closes, what colour it has. */
export function OwnBorderForm({ looked, drawing, design, isBusy }: Props) {
  const { job, change } = looked;
  const { kept, border, setDraft } = useDraft(job);
  const lines = drawing.lines.filter(({ role }) => isCutRole(role));
  const isPossible =
    border !== null || (lines.length > 0 && new Set(lines.map(({ role }) => role)).size === 1);
  const isPrinted =
    drawing.art !== null || drawing.images.length > 0 || drawing.lines.some(({ role }) => role === 'art');
  useAsking(looked, design, border);
  if (!isPossible || !isPrinted) return null;
  const set = (next: Partial<OwnBorder>) => {
    const wanted = { ...USUAL, ...border, ...next };
    const first = lines[0];
    const ids = lines.map(({ sourceId }) => sourceId);
    setDraft(wanted);
    change(setBorder(job, kept ? null : { ids, role: first?.role ?? 'kiss' }, wanted));
  };
  const setApart = (keepsApart: boolean) => change(withParts(looked, { ...USUAL, ...border, keepsApart }));
  const side = border === null ? 'none' : border.byMm < 0 ? 'in' : 'out';
  const choose = (value: Side) => {
    if (value === 'none') {
      setDraft(null);
      return change({ edits: withoutBorder(job.edits) });
    }
    const width = Math.abs(border?.byMm ?? USUAL.byMm) || USUAL.byMm;
    set({ byMm: value === 'in' ? -Math.min(width, 0.4) : width });
  };
  return (
    <section aria-label="Border" className="border-t border-hairline mt-3 pt-3 grid gap-3">
      <h2>Border</h2>
      <RadioRow
        label="Where the border lies"
        options={SIDES}
        value={side}
        isBusy={isBusy}
        onChoose={choose}
      />
      {border ? (
        <Figures
          border={border}
          isBusy={isBusy}
          onSet={set}
          onDraft={(next) => setDraft({ ...border, ...next })}
        />
      ) : null}
      {border && design.border ? (
        <Outcome design={design} border={border} onSet={set} onApart={setApart} />
      ) : null}
    </section>
  );
}

/** Parts that are stickers by themselves are pieces by themselves, and the other way round. */
function withParts({ job, number }: Looked, border: OwnBorder): JobChange {
  const { layout } = job;
  const isWhole = border.keepsApart !== true;
  const byDrawing = { ...layout.byDrawing, [number]: { ...layout.byDrawing?.[number], isWhole } };
  return {
    ...setBorder(job, null, border),
    layout: {
      ...layout,
      ...(number === 0 ? { isWhole } : {}),
      byDrawing,
      // Where none says how they lie, other pieces lie nowhere yet.
      placements: layout.arrangement ? layout.placements : [],
    },
  };
}

/** The border that is kept, and what a hand is at: that is kept when it lets go. */
function useDraft({ edits }: Looked['job']) {
  const kept = useMemo(() => borderOf(edits), [edits]);
  const [draft, setDraft] = useState<OwnBorder | null>(null);
  useEffect(() => {
    // What is kept by now is no draft any more.
    setDraft((now) => (now && isSame(now, kept) ? null : now));
  }, [kept]);
  return { kept, border: draft ?? kept, setDraft };
}

function isSame(a: OwnBorder, b: OwnBorder | null): boolean {
  return (
    b !== null &&
    a.byMm === b.byMm &&
    a.closesMm === b.closesMm &&
    a.backing === b.backing &&
    a.colour === b.colour &&
    (a.keepsApart ?? false) === (b.keepsApart ?? false)
  );
}

/** Asks what the border would come to, whenever it is another. */
function useAsking({ job, number }: Looked, design: Design, border: OwnBorder | null): void {
  const { askBorder } = design;
  useEffect(() => {
    const { name, format, roles, lineRoles, areRolesGuessed, edits } = job;
    askBorder({ number, name, format, roles, lineRoles, areRolesGuessed, edits }, border);
    // What is asked follows from the mends and roles alone.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [job.edits, job.roles, number, askBorder, design.isBehind, border]);
}

type Side = (typeof SIDES)[number]['value'];

interface FiguresProps {
  readonly border: OwnBorder;
  readonly isBusy: boolean;
  readonly onSet: (next: Partial<OwnBorder>) => void;
  readonly onDraft: (next: Partial<OwnBorder>) => void;
}

function Figures({ border, isBusy, onSet, onDraft }: FiguresProps) {
  const { byMm, closesMm, backing, colour } = border;
  const sign = byMm < 0 ? -1 : 1;
  return (
    <>
      <div className="grid grid-cols-[minmax(0,1fr)_7rem] gap-3 items-end">
        <input
          type="range"
          aria-label="Border, how wide"
          min={0}
          max={WIDEST_MM}
          step={STEP_MM}
          value={Math.abs(byMm)}
          className="w-full min-h-11 accent-verdigris"
          onChange={(event) => onDraft({ byMm: sign * Number(event.target.value) })}
          onPointerUp={() => onSet({})}
          onKeyUp={() => onSet({})}
        />
        <Length label="Wide" mm={Math.abs(byMm)} onChange={(mm) => onSet({ byMm: sign * Math.abs(mm) })} />
      </div>
      <div className="grid grid-cols-2 gap-3">
        <Length
          label="Close gaps up to"
          mm={closesMm}
          onChange={(mm) => onSet({ closesMm: Math.max(0, mm) })}
        />
        <label className="text-sm text-muted">
          It follows
          <select
            className="field text-base text-ink"
            value={backing}
            disabled={isBusy}
            onChange={(event) => onSet({ backing: event.target.value as Backing })}
          >
            {BACKINGS.map((one) => (
              <option key={one} value={one}>
                {BACKING_WORDS[one]}
              </option>
            ))}
          </select>
        </label>
      </div>
      <ColourBehind colour={colour} onSet={onSet} onDraft={onDraft} />
    </>
  );
}

type ColourProps = Pick<FiguresProps, 'onSet' | 'onDraft'> & Pick<OwnBorder, 'colour'>;

function ColourBehind({ colour, onSet, onDraft }: ColourProps) {
  return (
    <div className="flex items-center gap-3 min-h-11">
      <label className="flex items-center gap-3 cursor-pointer">
        <input
          type="checkbox"
          className="size-5 accent-verdigris"
          checked={colour !== null}
          onChange={(event) => onSet({ colour: event.target.checked ? '#ffffff' : null })}
        />
        Print a colour behind
      </label>
      {colour === null ? (
        <span className="text-sm text-muted">blank: the sheet shows</span>
      ) : (
        <input
          type="color"
          aria-label="Colour behind"
          className="h-11 w-16 cursor-pointer"
          value={colour}
          onChange={(event) => onDraft({ colour: event.target.value })}
          onBlur={() => onSet({})}
        />
      )}
    </div>
  );
}

interface OutcomeProps {
  readonly design: Design;
  readonly border: OwnBorder;
  readonly onSet: (next: Partial<OwnBorder>) => void;
  readonly onApart: (keepsApart: boolean) => void;
}

/** How many pieces it makes, how thin they get, and what makes them one. */
function Outcome({ design: { border: measured }, border, onSet, onApart }: OutcomeProps) {
  if (!measured) return null;
  const { outlines, parts, thinnestMm, leastBorderMm, leastCloseMm } = measured;
  const isApart = border.keepsApart === true;
  const isThin = thinnestMm !== null && thinnestMm < NECK_MM;
  return (
    <div className="grid gap-2" role="status">
      <p>
        {outlines === 1 ? 'One piece' : `${outlines} pieces`}
        {thinnestMm === null ? '.' : `, ${sayLength(thinnestMm, 2)} at the narrowest.`}
        {isThin ? ' That tears when it is lifted.' : ''}
      </p>
      {outlines > 1 && !isApart && border.byMm >= 0 && border.backing === 'outline' ? (
        <div className="flex flex-wrap gap-2">
          {leastBorderMm !== null ? (
            <button
              type="button"
              className="button"
              onClick={() => onSet({ byMm: leastBorderMm, closesMm: 0 })}
            >
              One piece: border {sayLength(leastBorderMm, 2)}
            </button>
          ) : null}
          {leastCloseMm !== null && leastCloseMm > 0 ? (
            <button type="button" className="button" onClick={() => onSet({ closesMm: leastCloseMm })}>
              One piece: close gaps of {sayLength(leastCloseMm, 2)}
            </button>
          ) : null}
        </div>
      ) : null}
      {parts > 1 || isApart ? (
        <TickBox label="Each part is a sticker by itself" isOn={isApart} onSet={onApart} />
      ) : null}
    </div>
  );
}
