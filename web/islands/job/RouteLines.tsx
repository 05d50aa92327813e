import { memo } from 'react';
import { writePolylineData } from '#core/drawing/writePathData.ts';
import { distanceMm, type PointMm } from '#core/geometry/point.ts';
import { ROLE_STROKES } from '#web/components/RoleLine.tsx';
import type { PlanReply } from '#web/schemas/plan.ts';

interface Props {
  readonly plan: PlanReply;
  readonly sheetHeightMm: number;
}

/** The way of the head: cuts in their role's colour with tabs left thin, travel dotted, a dot where the tool comes down. */
export const RouteLines = memo(function RouteLines({ plan, sheetHeightMm }: Props) {
  let at: PointMm = { x: 0, y: sheetHeightMm };
  const travel: string[] = [];
  const starts: string[] = [];
  for (const { points } of plan.passes.flatMap((pass) => pass.route)) {
    const [first, last] = [points[0], points.at(-1)];
    if (!first || !last) continue;
    if (distanceMm(at, first) > 0.01) {
      travel.push(writePolylineData([at, first]));
      starts.push(`M${first.x} ${first.y}h0`);
    }
    at = last;
  }
  return (
    <g fill="none" strokeLinecap="butt">
      <Stroke data={travel.join('')} colour="var(--color-feather)" width={1.2} dash="2 5" />
      {plan.passes.map((pass) => {
        const { stroke, width } = ROLE_STROKES[pass.role];
        const dataOf = (isTab: boolean) =>
          pass.route
            .filter((one) => one.isTab === isTab)
            .map(({ points }) => writePolylineData(points))
            .join('');
        return (
          <g key={pass.role}>
            <Stroke data={dataOf(false)} colour={stroke} width={width} />
            <Stroke data={dataOf(true)} colour="var(--color-verdigris)" width={1} />
          </g>
        );
      })}
      <path
        d={starts.join('')}
        stroke="var(--color-ochre)"
        strokeWidth="6"
        strokeLinecap="round"
        vectorEffect="non-scaling-stroke"
      />
    </g>
  );
});

interface StrokeProps {
  readonly data: string;
  readonly colour: string;
  readonly width: number;
  readonly dash?: string;
}

function Stroke({ data, colour, width, dash }: StrokeProps) {
  return (
    <path
      d={data}
      stroke={colour}
      strokeWidth={width}
      strokeDasharray={dash}
      vectorEffect="non-scaling-stroke"
    />
  );
}
