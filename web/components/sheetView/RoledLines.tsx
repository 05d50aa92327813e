import { memo } from 'react';
import type { Role } from '#core/drawing/lineRoles.ts';
import type { ShownLine } from '#web/endpoints/describeDrawing.ts';
import { ROLE_STROKES } from '#web/components/RoleLine.tsx';

interface Props {
  readonly lines: readonly ShownLine[];
  readonly roles: Readonly<Record<string, Role>>;
  /** Radius of the circles on kiss lines, in mm. */
  readonly dotMm: number;
  readonly isFaint?: boolean;
}

/** Lines in the style of their role: art below, then kiss, then through. */
export const RoledLines = memo(function RoledLines({ lines, roles, dotMm, isFaint = false }: Props) {
  const of = (role: Role) => lines.filter((line) => roles[line.groupKey] === role);
  return (
    <g opacity={isFaint ? 0.35 : 1} strokeLinejoin="round">
      {(['art', 'kiss', 'through'] as const).map((role) => {
        const { stroke, width, fill } = ROLE_STROKES[role];
        return (
          <g key={role} stroke={stroke} strokeWidth={width} fill={fill}>
            {of(role).map((line) => (
              <path key={line.id} d={line.data} vectorEffect="non-scaling-stroke" />
            ))}
          </g>
        );
      })}
      <g stroke={ROLE_STROKES.kiss.stroke} fill="var(--color-sheet)">
        {of('kiss').flatMap((line) =>
          line.dots.map((dot, index) => (
            <circle
              key={`${line.id}/${index}`}
              cx={dot.x}
              cy={dot.y}
              r={dotMm}
              strokeWidth="1.2"
              vectorEffect="non-scaling-stroke"
            />
          )),
        )}
      </g>
    </g>
  );
});
