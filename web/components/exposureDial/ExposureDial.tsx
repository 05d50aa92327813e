import { describeExposure, depthStepMm, type DepthScale } from '#core/units/depthScale.ts';

interface Props {
  readonly exposureMm: number;
  readonly scale: DepthScale;
}

const SIZE = 56;
const MIDDLE = SIZE / 2;
const RADIUS = 19;

/** What the hand does on this holder: the knob turned from flush, or the dial at its figure. Nothing where it is measured. */
export function ExposureDial({ exposureMm, scale }: Props) {
  if (scale.kind === 'turns')
    return <Knob turns={exposureMm / scale.mmPerTurn} words={describeExposure(exposureMm, scale)} />;
  if (scale.kind === 'dial') {
    const steps = Math.max(1, Math.floor(scale.maxMm / depthStepMm(scale) + 1e-9));
    return (
      <Dial
        at={Math.round(exposureMm / scale.mmPerStep)}
        steps={steps}
        words={describeExposure(exposureMm, scale)}
      />
    );
  }
  return null;
}

/** A knob seen from above: flush is up; the arc goes as far as the hand turns, whole turns as a figure inside. */
function Knob({ turns, words }: { readonly turns: number; readonly words: string }) {
  const whole = Math.floor(turns + 1e-9);
  const rest = turns - whole;
  const end = pointAt(rest * 360);
  return (
    <svg
      width={SIZE}
      height={SIZE}
      viewBox={`0 0 ${SIZE} ${SIZE}`}
      role="img"
      aria-label={words}
      className="shrink-0"
    >
      <circle cx={MIDDLE} cy={MIDDLE} r={RADIUS} fill="var(--color-ground)" stroke="var(--color-edge)" />
      <line x1={MIDDLE} x2={MIDDLE} y1="3" y2="11" stroke="var(--color-ink)" strokeWidth="2" />
      {rest > 0.01 ? (
        <path
          d={`M${MIDDLE} ${MIDDLE - RADIUS}A${RADIUS} ${RADIUS} 0 ${rest > 0.5 ? 1 : 0} 1 ${end.x} ${end.y}`}
          fill="none"
          stroke="var(--color-verdigris)"
          strokeWidth="4"
        />
      ) : null}
      <line
        x1={MIDDLE}
        y1={MIDDLE}
        x2={end.x}
        y2={end.y}
        stroke="var(--color-verdigris)"
        strokeWidth="2.5"
        strokeLinecap="round"
      />
      {whole > 0 ? (
        <text
          x={MIDDLE}
          y={MIDDLE + 17}
          textAnchor="middle"
          className="figure text-[11px] font-bold"
          fill="var(--color-ink)"
        >
          +{whole}
        </text>
      ) : null}
    </svg>
  );
}

/** A numbered dial: every position a tick, the one to set a filled mark with its figure. */
function Dial({ at, steps, words }: { readonly at: number; readonly steps: number; readonly words: string }) {
  const angleOf = (step: number) => -135 + (270 * step) / steps;
  const mark = pointAt(angleOf(at));
  return (
    <svg
      width={SIZE}
      height={SIZE}
      viewBox={`0 0 ${SIZE} ${SIZE}`}
      role="img"
      aria-label={words}
      className="shrink-0"
    >
      {Array.from({ length: steps + 1 }, (_, step) => {
        const outer = pointAt(angleOf(step), RADIUS + 4);
        const inner = pointAt(angleOf(step), RADIUS - 1);
        return (
          <line key={step} x1={inner.x} y1={inner.y} x2={outer.x} y2={outer.y} stroke="var(--color-edge)" />
        );
      })}
      <circle cx={mark.x} cy={mark.y} r="4.5" fill="var(--color-verdigris)" />
      <text
        x={MIDDLE}
        y={MIDDLE + 6}
        textAnchor="middle"
        className="figure text-[17px] font-bold"
        fill="var(--color-ink)"
      >
        {at}
      </text>
    </svg>
  );
}

/** A point on the knob, clockwise from the top. */
function pointAt(degrees: number, radius = RADIUS): { readonly x: number; readonly y: number } {
  const angle = ((degrees - 90) * Math.PI) / 180;
  const round = (value: number) => Number(value.toFixed(2));
  return { x: round(MIDDLE + radius * Math.cos(angle)), y: round(MIDDLE + radius * Math.sin(angle)) };
}
