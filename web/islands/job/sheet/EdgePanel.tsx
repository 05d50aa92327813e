import { adviseBleed, edgeRisk, type RegistrationError } from '#core/sheet/edgeRisk.ts';
import type { DrawnEdge } from '#core/sheet/measureEdge.ts';
import type { JobChange } from '#web/islands/job/useJob.ts';
import { Length } from '#web/islands/shared/Length.tsx';
import type { JobReply } from '#web/schemas/job.ts';
import { say, sayLength } from '#web/islands/shared/units.ts';

interface Props {
  readonly job: JobReply;
  readonly edge: DrawnEdge | null;
  /** How far print and cut lie apart on this machine. */
  readonly error: RegistrationError;
  readonly sheetsRead: number;
  readonly machineId: number;
  readonly onChange: (change: JobChange) => void;
}

/** One sheet in twenty may show it: what people take for a normal day. */
const RISK = 0.05;

/** How print and cut meet at an edge: rim or bleed, what it risks, and a picture at the worst likely shift. */
export function EdgePanel({ job, edge, error, sheetsRead, machineId, onChange }: Props) {
  const { print, layout } = job;
  if (!edge) return null;
  const bleedMm = Math.max(print.bleedMm, edge.drawnBleedMm);
  const risk = edgeRisk({
    error,
    bleedMm,
    borderMm: edge.borderMm,
    spacingMm: layout.spacingMm,
    isSheetColoured: false,
  });
  const advice = adviseBleed(error, RISK);
  const most = edge.narrowestGapMm === null ? Infinity : Math.floor(edge.narrowestGapMm * 5) / 10;
  const wanted = Math.min(advice.bleedMm, most);
  const hasRim = edge.borderMm > 0;
  const hasNeighbour = layout.placements.length > 1;
  const setBleed = (wanted: number) => onChange({ print: { ...print, bleedMm: Math.max(0, wanted) } });
  return (
    <section aria-label="Edges" className="border-t border-hairline mt-4 pt-3">
      <h2>Will the edges show?</h2>
      <div className="grid grid-cols-[1fr_8rem] gap-4 mt-1 items-start">
        <div className="grid gap-2">
          <p>
            {hasRim
              ? `A blank rim of ${sayLength(edge.borderMm)}: ink runs over the cut line on ${inHundred(risk.borderLost)}.`
              : `Ink reaches the cut line: a white edge on ${inHundred(risk.whiteEdge)}${hasNeighbour ? `, ink in the neighbour on ${inHundred(risk.inkInNeighbour)}` : ''}.`}
          </p>
          {hasRim ? null : <Length label="Bleed" mm={print.bleedMm} onChange={setBleed} />}
          {!hasRim && bleedMm < wanted ? (
            <button type="button" className="button" onClick={() => setBleed(wanted)}>
              Take {say(`${wanted} mm`)}
            </button>
          ) : null}
          {!hasRim && edge.narrowestGapMm !== null && (print.bleedMm > most || advice.bleedMm > most) ? (
            <p className="text-sm">
              Two cut lines lie {sayLength(edge.narrowestGapMm)} apart: there each side bleeds{' '}
              {sayLength(most)} at most, so that no ink reaches the neighbour.
            </p>
          ) : null}
        </div>
        <EdgePicture
          inkMm={hasRim ? -edge.borderMm : bleedMm}
          spacingMm={layout.spacingMm}
          shift={risk.worst}
        />
      </div>
      <Measured
        error={error}
        sheetsRead={sheetsRead}
        machineId={machineId}
        worstMm={risk.worst.mm}
        advice={advice}
      />
    </section>
  );
}

interface MeasuredProps extends Pick<Props, 'error' | 'sheetsRead' | 'machineId'> {
  readonly worstMm: number;
  readonly advice: ReturnType<typeof adviseBleed>;
}

/** How far print and cut lie apart on this machine, and what that asks for. */
function Measured({ error, sheetsRead, machineId, worstMm, advice }: MeasuredProps) {
  const { bleedMm, spacingMm, borderMm } = advice;
  return (
    <p className="text-sm text-muted mt-2">
      {error.source === 'habit'
        ? 'Nobody has measured this machine yet. As a habit'
        : `Measured on ${sheetsRead} ${sheetsRead === 1 ? 'sheet' : 'sheets'}:`}{' '}
      19 sheets in 20 lie within {sayLength(worstMm)}, as in the picture;{' '}
      {say(
        `${bleedMm} mm of bleed hides that and wants pieces ${spacingMm} mm apart, or a blank rim of ${borderMm} mm does without.`,
      )}{' '}
      <a href={`/machines/${machineId}#print-to-cut`} className="font-semibold">
        {error.source === 'habit' ? 'Measure it with one sheet' : 'How it was measured'}
      </a>
    </p>
  );
}

function inHundred(chance: number): string {
  const count = Math.round(chance * 100);
  return count === 0 && chance > 0 ? 'fewer than 1 in 100' : `${count} in 100`;
}

interface EdgePictureProps {
  /** How far ink reaches beyond the cut line, below 0 how far it stays inside. */
  readonly inkMm: number;
  readonly spacingMm: number;
  readonly shift: { readonly xMm: number; readonly yMm: number };
}

/** Two neighbours at the worst likely shift: ink as printed, cut lines where the blade goes. */
function EdgePicture({ inkMm, spacingMm, shift }: EdgePictureProps) {
  const half = 7;
  const left = -half - spacingMm / 2;
  const right = half + spacingMm / 2;
  const wide = right + half + 3;
  return (
    <svg
      viewBox={`${-wide} ${-half - 4} ${2 * wide} ${2 * half + 8}`}
      role="img"
      aria-label="Two pieces side by side at the worst likely shift"
      className="paper w-full border border-hairline rounded"
    >
      {[left, right].map((x) => (
        <rect
          key={x}
          x={x - half - inkMm + shift.xMm}
          y={-half - inkMm + shift.yMm}
          width={2 * (half + inkMm)}
          height={2 * (half + inkMm)}
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
