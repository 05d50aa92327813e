import { useId } from 'react';
import { GRADE_WORDS, type DepthGrade } from '#core/stack/depthGrade.ts';
import type { DepthOperation } from '#core/stack/operation.ts';
import { judgeGrade } from '#core/stack/judgeGrade.ts';
import type { ForceOutlook } from '#core/threshold/findWindow.ts';
import { forceUnit, gfOf, sayForce, type ForceScale } from '#core/units/forceScale.ts';
import { axisTicks, shareOnAxis } from '#web/components/windowStrip/axisTicks.ts';
import { StripBand } from '#web/components/windowStrip/StripBand.tsx';

export interface StripCut {
  readonly id: number;
  readonly force: number;
  readonly forceGf: number;
  readonly grade: DepthGrade;
}

interface Props {
  readonly operation: DepthOperation;
  readonly scale: ForceScale;
  readonly axis: { readonly fromGf: number; readonly toGf: number };
  readonly outlooks: readonly ForceOutlook[];
  readonly cuts: readonly StripCut[];
  /** The force the feather points at, on the machine's scale. */
  readonly force: number;
  readonly forceWords: string;
  /** Drawn narrow, beside others: fewer figures on the axis. */
  readonly isNarrow?: boolean;
}

const BAND_TOP = 30;
const BAND_HEIGHT = 30;
const HEIGHT = 126;
/** A tick nearer to the feather than this would be hidden by it. */
const TICK_CLEARANCE = 0.045;
/** Share of a narrow axis that a figure needs for itself. */
const NARROW_GAP = 0.11;

/**
 * The window strip: force from left to right, what is under, right and over with edges as soft as our knowledge, test
 * cuts as marks on it, and a feather at the force in question. Places are shares of the width, so that type keeps its
 * size on any screen.
 */
export function WindowStrip({
  operation,
  scale,
  axis,
  outlooks,
  cuts,
  force,
  forceWords,
  isNarrow = false,
}: Props) {
  const id = useId();
  const place = (forceGf: number) => `${(4 + 92 * shareOnAxis(forceGf, axis)).toFixed(2)}%`;
  const featherShare = shareOnAxis(gfOf(force, scale), axis);
  const clearance = isNarrow ? 2 * TICK_CLEARANCE : TICK_CLEARANCE;
  const ticks = axisTicks(scale, axis, isNarrow ? NARROW_GAP : undefined).filter(
    (tick) => Math.abs(tick.share - featherShare) > clearance,
  );
  return (
    <svg width="100%" height={HEIGHT} role="img" aria-labelledby={id} className="block overflow-visible">
      <title id={id}>{describe(operation, scale, cuts, force, forceWords)}</title>
      <svg x="4%" y={BAND_TOP} width="92%" height={BAND_HEIGHT} overflow="visible">
        <StripBand axis={axis} outlooks={outlooks} height={BAND_HEIGHT} />
      </svg>
      {ticks.map(({ share, label }) => (
        <g key={label}>
          <line
            x1={`${4 + 92 * share}%`}
            x2={`${4 + 92 * share}%`}
            y1={BAND_TOP + BAND_HEIGHT}
            y2={BAND_TOP + BAND_HEIGHT + 6}
            stroke="var(--color-edge)"
          />
          <text
            x={`${4 + 92 * share}%`}
            y={BAND_TOP + BAND_HEIGHT + 21}
            textAnchor="middle"
            className="figure text-[13px]"
            fill="var(--color-muted)"
          >
            {label}
          </text>
        </g>
      ))}
      {cuts.map((cut) => (
        <CutMark key={cut.id} x={place(cut.forceGf)} side={judgeGrade(cut.grade, operation)} />
      ))}
      <Feather x={`${4 + 92 * featherShare}%`} words={forceWords} share={featherShare} />
    </svg>
  );
}

function CutMark({ x, side }: { readonly x: string; readonly side: 'under' | 'right' | 'over' }) {
  return (
    <svg x={x} y="15" overflow="visible">
      {side === 'under' && (
        <circle r="5" fill="var(--color-sheet)" stroke="var(--color-straw)" strokeWidth="2.4" />
      )}
      {side === 'right' && <circle r="6" fill="var(--color-verdigris)" />}
      {side === 'over' && <path d="M-5-5 5 5M-5 5 5-5" stroke="var(--color-ember)" strokeWidth="2.6" />}
      <line y1="8" y2="14" stroke="var(--color-edge)" />
    </svg>
  );
}

function Feather({
  x,
  words,
  share,
}: {
  readonly x: string;
  readonly words: string;
  readonly share: number;
}) {
  const isLeft = share > 0.7;
  return (
    <svg x={x} y={BAND_TOP + BAND_HEIGHT - 3} overflow="visible">
      <line y1={-BAND_HEIGHT + 1} y2="4" stroke="var(--color-sheet)" strokeWidth="4" />
      <line y1={-BAND_HEIGHT + 1} y2="6" stroke="var(--color-ink)" strokeWidth="2" />
      <path
        d="M0 2C-9 18-9 38 6 54C14 38 10 16 0 2Z"
        fill="var(--color-feather)"
        stroke="var(--color-ink)"
        strokeWidth="1.3"
      />
      <path
        d="M0 2C-1 22 2 44 8 63M-1 22l-5 4M1 32l-6 6M1 28l6 4M3 38l6 5"
        stroke="var(--color-ink)"
        fill="none"
      />
      <text
        x={isLeft ? -18 : 22}
        y="52"
        textAnchor={isLeft ? 'end' : 'start'}
        fill="var(--color-ink)"
        className="text-[14px] font-semibold"
      >
        {words}
      </text>
    </svg>
  );
}

function describe(
  operation: DepthOperation,
  scale: ForceScale,
  cuts: readonly StripCut[],
  force: number,
  words: string,
): string {
  const unit = forceUnit(scale);
  const tried = cuts.map((cut) => `${sayForce(cut.force, unit)} ${GRADE_WORDS[cut.grade].word}`).join(', ');
  return `Force window for ${operation}. ${sayForce(force, unit)}: ${words}. Test cuts: ${tried || 'none yet'}.`;
}
