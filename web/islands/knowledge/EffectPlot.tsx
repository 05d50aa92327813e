import { forceFactorOf } from '#core/knowledge/describeEffects.ts';
import type { KnowledgeReply } from '#web/schemas/knowledge.ts';
import { say, sayNumber } from '#web/islands/shared/units.ts';

type Effect = KnowledgeReply['effects'][number];

const REACH = 0.6;
/** Half of the middle 90 % of a normal, in standard deviations. */
const NINETY = 1.645;
const x = (value: number) => `${(50 + (50 * Math.max(-REACH, Math.min(REACH, value))) / REACH).toFixed(2)}%`;

/** Each effect as a sentence over its plot: the pale bar is the usual belief, the dark one what the book has taught. */
export function EffectPlot({ effects }: { readonly effects: readonly Effect[] }) {
  return (
    <>
      <p className="flex justify-between text-sm text-muted mt-1">
        <span>less force</span>
        <span>no change</span>
        <span>more force</span>
      </p>
      <ul className="grid gap-2 mt-1">
        {effects.map((effect) => (
          <li key={effect.name}>
            <p className="text-[15px]">{say(effect.words)}</p>
            <svg width="100%" height="18" role="img" aria-label={describe(effect)}>
              <line x1="0" x2="100%" y1="9" y2="9" stroke="var(--color-hairline)" />
              <line x1="50%" x2="50%" y1="1" y2="17" stroke="var(--color-edge)" />
              <Bar
                from={lnForce(effect, effect.priorMean, -effect.priorSd)}
                to={lnForce(effect, effect.priorMean, effect.priorSd)}
                colour="var(--color-hairline)"
                height={12}
              />
              <Bar
                from={lnForce(effect, effect.mean, -effect.sd)}
                to={lnForce(effect, effect.mean, effect.sd)}
                colour="var(--color-verdigris)"
                height={5}
              />
              <circle cx={x(lnForce(effect, effect.mean, 0))} cy="9" r="4" fill="var(--color-ink)" />
            </svg>
          </li>
        ))}
      </ul>
    </>
  );
}

/** The effect on the force wanted, in ln, at so many 90 % half-widths from its middle. */
function lnForce({ name }: Effect, middle: number, spread: number): number {
  return Math.log(forceFactorOf(name, middle + NINETY * spread));
}

interface BarProps {
  readonly from: number;
  readonly to: number;
  readonly colour: string;
  readonly height: number;
}

function Bar({ from, to, colour, height }: BarProps) {
  const left = Math.max(-REACH, Math.min(from, to));
  const right = Math.min(REACH, Math.max(from, to));
  return (
    <rect
      x={x(left)}
      y={9 - height / 2}
      width={`${((50 * Math.max(0, right - left)) / REACH).toFixed(2)}%`}
      height={height}
      fill={colour}
    />
  );
}

function describe({ label, mean, sd, priorMean, priorSd }: Effect): string {
  const words = (middle: number, spread: number) =>
    `${sayNumber(middle, 2)} ± ${sayNumber(1.64 * spread, 2)}`;
  return `${say(label)}: ${words(mean, sd)} in ln force, believed before ${words(priorMean, priorSd)}`;
}
