import { sayForce } from '#core/units/forceScale.ts';
import { say } from '#web/islands/shared/units.ts';

interface Props {
  readonly curve: readonly { readonly value: number; readonly chances: readonly number[] }[];
  /** Where one stands now. */
  readonly at: number;
  readonly steps: readonly string[];
  readonly unit: string;
}

const HEIGHT = 74;

/** The chance of too weak, right and too strong along the values one may choose. */
export function ChanceCurve({ curve, at, steps, unit }: Props) {
  const first = curve[0]?.value ?? 0;
  const last = curve.at(-1)?.value ?? 1;
  const x = (value: number) => (100 * (value - first)) / Math.max(last - first, 1e-9);
  const right = curve.map(({ value, chances }) => `${x(value)},${100 - 100 * (chances[2] ?? 0)}`).join(' ');
  const inside = Math.min(100, Math.max(0, x(at)));
  return (
    <figure className="mt-3">
      <svg
        viewBox="0 0 100 100"
        preserveAspectRatio="none"
        width="100%"
        height={HEIGHT}
        role="img"
        aria-label={say(
          `Chance of "${steps[2] ?? ''}" from ${sayForce(first, unit)} to ${sayForce(last, unit)}`,
        )}
      >
        <polygon
          points={`0,100 ${right} 100,100`}
          fill="color-mix(in srgb, var(--color-verdigris) 24%, var(--color-sheet))"
          stroke="var(--color-verdigris)"
          vectorEffect="non-scaling-stroke"
        />
        <line
          x1={inside}
          x2={inside}
          y1="0"
          y2="100"
          stroke="var(--color-ink)"
          strokeWidth="2"
          vectorEffect="non-scaling-stroke"
        />
      </svg>
      <figcaption className="flex justify-between text-sm text-muted figure">
        <span>
          {say(sayForce(first, unit))}: {likeliest(curve[0], steps)}
        </span>
        <span>height: how often {steps[2]}</span>
        <span>
          {say(sayForce(last, unit))}: {likeliest(curve.at(-1), steps)}
        </span>
      </figcaption>
    </figure>
  );
}

/** What a piece would most likely do. */
function likeliest(point: Props['curve'][number] | undefined, steps: Props['steps']): string {
  const chances = point?.chances ?? [];
  const best = chances.reduce((most, chance, step) => (chance > (chances[most] ?? 0) ? step : most), 0);
  return `mostly ${steps[best] ?? ''}`;
}
