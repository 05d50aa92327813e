import { useId } from 'react';
import type { ForceOutlook } from '#core/threshold/findWindow.ts';
import { shareOnAxis } from '#web/components/windowStrip/axisTicks.ts';

interface Props {
  readonly axis: { readonly fromGf: number; readonly toGf: number };
  readonly outlooks: readonly ForceOutlook[];
  readonly height: number;
}

const SIDES = ['under', 'right', 'over'] as const;
const MOST_STOPS = 48;

/** The band itself: three fills, each as strong as the chance of its side at that force. */
export function StripBand({ axis, outlooks, height }: Props) {
  const id = useId().replace(/[^a-z0-9]/gi, '');
  const stride = Math.max(1, Math.floor(outlooks.length / MOST_STOPS));
  const stops = outlooks.filter((_, index) => index % stride === 0 || index === outlooks.length - 1);
  return (
    <>
      <defs>
        <pattern
          id={`${id}under`}
          width="9"
          height="9"
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(45)"
        >
          <rect width="9" height="9" fill="var(--color-straw-pale)" />
          <line y2="9" stroke="var(--color-straw)" strokeWidth="2" />
        </pattern>
        <pattern
          id={`${id}over`}
          width="7"
          height="7"
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(45)"
        >
          <rect width="7" height="7" fill="var(--color-ember-pale)" />
          <path d="M0 0V7M0 0H7" stroke="var(--color-ember)" strokeWidth="1.6" />
        </pattern>
        {SIDES.map((side) => (
          <linearGradient key={side} id={`${id}${side}g`}>
            {stops.map((outlook) => (
              <stop
                key={outlook.forceGf}
                offset={shareOnAxis(outlook.forceGf, axis).toFixed(4)}
                stopColor="white"
                stopOpacity={outlook[side].toFixed(3)}
              />
            ))}
          </linearGradient>
        ))}
        {SIDES.map((side) => (
          <mask key={side} id={`${id}${side}m`}>
            <rect width="100%" height={height} fill={`url(#${id}${side}g)`} />
          </mask>
        ))}
      </defs>
      <rect width="100%" height={height} fill="var(--color-sheet)" />
      <rect width="100%" height={height} fill={`url(#${id}under)`} mask={`url(#${id}underm)`} />
      <rect width="100%" height={height} fill={`url(#${id}over)`} mask={`url(#${id}overm)`} />
      <rect width="100%" height={height} fill="var(--color-verdigris)" mask={`url(#${id}rightm)`} />
      <rect width="100%" height={height} fill="none" stroke="var(--color-edge)" />
    </>
  );
}
