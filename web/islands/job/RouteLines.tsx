import { memo } from 'react';
import { writePolylineData } from '#core/drawing/writePathData.ts';
import type { PointMm } from '#core/geometry/point.ts';
import { ROLE_STROKES } from '#web/components/RoleLine.tsx';
import type { PlanReply } from '#web/schemas/job.ts';

/** The way of the head: cuts in their role's colour, travel dotted between them, a dot where each stroke starts. */
export const RouteLines = memo(function RouteLines({ plan }: { readonly plan: PlanReply }) {
  const strokes = plan.passes.flatMap((pass) =>
    pass.route.map((points) => ({ operation: pass.operation, points })),
  );
  const travel: PointMm[][] = [];
  let at: PointMm = { x: 0, y: 0 };
  for (const { points } of strokes) {
    const first = points[0];
    const last = points.at(-1);
    if (!first || !last) continue;
    travel.push([at, first]);
    at = last;
  }
  return (
    <g fill="none" strokeLinecap="round">
      <path
        d={travel.map(writePolylineData).join('')}
        stroke="var(--color-feather)"
        strokeWidth="1.2"
        strokeDasharray="2 5"
        vectorEffect="non-scaling-stroke"
      />
      {strokes.map(({ operation, points }, index) => (
        <path
          key={index}
          d={writePolylineData(points)}
          stroke={ROLE_STROKES[operation].stroke}
          strokeWidth={ROLE_STROKES[operation].width}
          vectorEffect="non-scaling-stroke"
        />
      ))}
      {strokes.map(({ points }, index) => {
        const first = points[0];
        return first ? (
          <path
            key={index}
            d={`M${first.x} ${first.y}h0`}
            stroke="var(--color-ochre)"
            strokeWidth="6"
            vectorEffect="non-scaling-stroke"
          />
        ) : null;
      })}
    </g>
  );
});
