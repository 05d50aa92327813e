import { adviseBleed, edgeRisk, USUAL_ERROR } from '#core/sheet/edgeRisk.ts';
import type { JobChange } from '#web/islands/job/useJob.ts';
import { Millimetres } from '#web/islands/shared/Millimetres.tsx';
import type { JobReply } from '#web/schemas/job.ts';

interface Props {
  readonly job: JobReply;
  readonly onChange: (change: JobChange) => void;
}

/** One sheet in twenty may show it: what people take for a normal day. */
const RISK = 0.05;

/** How print and cut meet at an edge: bleed, the chance of a white edge, and a picture at the worst likely shift. */
export function EdgePanel({ job, onChange }: Props) {
  const { print, layout } = job;
  const risk = edgeRisk({
    error: USUAL_ERROR,
    bleedMm: print.bleedMm,
    borderMm: 0,
    spacingMm: layout.spacingMm,
    isSheetColoured: false,
  });
  const advice = adviseBleed(USUAL_ERROR, RISK);
  const setBleed = (bleedMm: number) => onChange({ print: { ...print, bleedMm: Math.max(0, bleedMm) } });
  return (
    <details className="border-t border-hairline mt-4 pt-3">
      <summary className="font-semibold cursor-pointer min-h-11 flex items-center">
        Bleed {print.bleedMm} mm: white edge on {inHundred(risk.whiteEdge)}, ink in the neighbour on{' '}
        {inHundred(risk.inkInNeighbour)}
      </summary>
      <div className="grid grid-cols-[1fr_7rem] gap-4 mt-2 items-start">
        <div>
          <Millimetres label="Bleed" value={print.bleedMm} onChange={setBleed} />
          <p className="text-sm text-muted mt-2">
            Nobody has measured this machine yet. As a habit 19 sheets in 20 lie within{' '}
            {risk.worst.mm.toFixed(1)} mm; {advice.bleedMm} mm of bleed hides that and wants pieces{' '}
            {advice.spacingMm} mm apart. A blank border of {advice.borderMm} mm does without bleed.
          </p>
          {print.bleedMm < advice.bleedMm ? (
            <button type="button" className="button mt-2" onClick={() => setBleed(advice.bleedMm)}>
              Take {advice.bleedMm} mm
            </button>
          ) : null}
        </div>
        <EdgePicture bleedMm={print.bleedMm} spacingMm={layout.spacingMm} shift={risk.worst} />
      </div>
    </details>
  );
}

function inHundred(chance: number): string {
  const count = Math.round(chance * 100);
  return count === 0 && chance > 0 ? 'fewer than 1 in 100' : `${count} in 100`;
}

interface EdgePictureProps {
  readonly bleedMm: number;
  readonly spacingMm: number;
  readonly shift: { readonly xMm: number; readonly yMm: number };
}

/** Two neighbours at the worst likely shift: ink as printed, cut lines where the blade goes. */
function EdgePicture({ bleedMm, spacingMm, shift }: EdgePictureProps) {
  const half = 7;
  const left = -half - spacingMm / 2;
  const right = half + spacingMm / 2;
  const wide = right + half + 3;
  return (
    <svg
      viewBox={`${-wide} ${-half - 4} ${2 * wide} ${2 * half + 8}`}
      role="img"
      aria-label="Two pieces side by side at the worst likely shift"
      className="w-full border border-hairline rounded bg-sheet"
    >
      {[left, right].map((x) => (
        <rect
          key={x}
          x={x - half - bleedMm + shift.xMm}
          y={-half - bleedMm + shift.yMm}
          width={2 * (half + bleedMm)}
          height={2 * (half + bleedMm)}
          rx="2"
          fill="var(--color-feather)"
          fillOpacity="0.75"
        />
      ))}
      {[left, right].map((x) => (
        <rect
          key={x}
          x={x - half}
          y={-half}
          width={2 * half}
          height={2 * half}
          rx="2"
          fill="none"
          stroke="var(--color-ink)"
          strokeWidth="1.6"
          vectorEffect="non-scaling-stroke"
        />
      ))}
    </svg>
  );
}
