import { useState } from 'react';
import type { Job } from '#core/job/job.ts';
import { SHEET_SIZES, type Sheet } from '#core/sheet/sheetSize.ts';
import type { Machine } from '#core/station/machine.ts';
import type { ShownDrawing } from '#web/endpoints/describeDrawing.ts';
import type { JobChange } from '#web/islands/job/useJob.ts';

interface Props {
  readonly job: Job;
  readonly drawing: ShownDrawing;
  readonly machine: Machine;
  readonly onChange: (change: JobChange) => void;
}

/** The sheet and where the drawing lies on it. */
export function SheetPanel({ job, drawing, machine, onChange }: Props) {
  const { sheet, placement } = job;
  const { box } = drawing;
  const width = box.maxX - box.minX;
  const height = box.maxY - box.minY;
  const isWide = sheet.widthMm > machine.bedWidthMm;
  return (
    <>
      <h2>Which sheet?</h2>
      <SizeSelect sheet={sheet} onChange={onChange} />
      <div className="grid grid-cols-2 gap-3 mt-3">
        <Millimetres
          label="Width"
          value={sheet.widthMm}
          onChange={(widthMm) => onChange({ sheet: { ...sheet, name: 'own size', widthMm } })}
        />
        <Millimetres
          label="Height"
          value={sheet.heightMm}
          onChange={(heightMm) => onChange({ sheet: { ...sheet, name: 'own size', heightMm } })}
        />
        <Millimetres
          label="Drawing from the left"
          value={placement.xMm}
          onChange={(xMm) => onChange({ placement: { ...placement, xMm } })}
        />
        <Millimetres
          label="Drawing from the top"
          value={placement.yMm}
          onChange={(yMm) => onChange({ placement: { ...placement, yMm } })}
        />
      </div>
      <p className="mt-3 text-muted">
        The lines measure {width.toFixed(1)} × {height.toFixed(1)} mm. {machine.name} leaves {sheet.marginMm}{' '}
        mm along every edge.
      </p>
      {isWide ? (
        <p className="note mt-2" data-tone="problem">
          The sheet is wider than the {machine.bedWidthMm} mm that {machine.name} takes.
        </p>
      ) : null}
      <Over job={job} width={width} height={height} />
    </>
  );
}

function SizeSelect({ sheet, onChange }: { readonly sheet: Sheet; readonly onChange: Props['onChange'] }) {
  const choose = (name: string) => {
    const size = SHEET_SIZES.find((one) => one.name === name);
    if (size) onChange({ sheet: { ...size, marginMm: sheet.marginMm } });
  };
  return (
    <>
      <label className="block mt-2 text-sm text-muted" htmlFor="sheet-size">
        Size
      </label>
      <select
        id="sheet-size"
        className="field"
        value={sheet.name}
        onChange={(event) => choose(event.target.value)}
      >
        {SHEET_SIZES.map((size) => (
          <option key={size.name} value={size.name}>
            {size.name.includes('mm')
              ? size.name
              : `${size.name}, ${Math.round(size.widthMm)} × ${Math.round(size.heightMm)} mm`}
          </option>
        ))}
        {SHEET_SIZES.some((size) => size.name === sheet.name) ? null : (
          <option value={sheet.name}>{sheet.name}</option>
        )}
      </select>
    </>
  );
}

function Over({
  job: { sheet, placement },
  width,
  height,
}: {
  readonly job: Job;
  readonly width: number;
  readonly height: number;
}) {
  const edges = [
    ['left', sheet.marginMm - placement.xMm],
    ['top', sheet.marginMm - placement.yMm],
    ['right', placement.xMm + width - (sheet.widthMm - sheet.marginMm)],
    ['bottom', placement.yMm + height - (sheet.heightMm - sheet.marginMm)],
  ] as const;
  const over = edges.filter(([, by]) => by > 0.001);
  if (over.length === 0) {
    return (
      <p className="note mt-2" data-tone="good">
        Everything lies inside.
      </p>
    );
  }
  return (
    <p className="note mt-2" data-tone="problem" role="status">
      The drawing reaches over: {over.map(([edge, by]) => `${by.toFixed(1)} mm at the ${edge}`).join(', ')}.
    </p>
  );
}

interface MillimetresProps {
  readonly label: string;
  readonly value: number;
  readonly onChange: (value: number) => void;
}

/** A length that is taken when the field is left or Enter is pressed. */
function Millimetres({ label, value, onChange }: MillimetresProps) {
  const [text, setText] = useState<string | null>(null);
  const shown = text ?? String(Number(value.toFixed(2)));
  const take = () => {
    const typed = Number(shown);
    setText(null);
    if (shown.trim() !== '' && Number.isFinite(typed) && typed !== Number(value.toFixed(2))) onChange(typed);
  };
  return (
    <label className="text-sm text-muted">
      {label}, mm
      <input
        className="field figure text-base text-ink"
        inputMode="decimal"
        value={shown}
        onChange={(event) => setText(event.target.value.replace(',', '.'))}
        onBlur={take}
        onKeyDown={(event) => event.key === 'Enter' && take()}
      />
    </label>
  );
}
