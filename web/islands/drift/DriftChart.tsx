import {
  CartesianGrid,
  ComposedChart,
  Line,
  ReferenceArea,
  ReferenceLine,
  ResponsiveContainer,
  Scatter,
  XAxis,
  YAxis,
} from 'recharts';
import { formatDay } from '#web/islands/shared/formatTime.ts';
import type { DriftReply } from '#web/schemas/drift.ts';

const TICK = { fill: 'var(--color-muted)', fontSize: 13 };

/** Single cuts as dots, their weighted mean as a line, and the band in which it stays while nothing changes. */
export function DriftChart({ drift }: { readonly drift: DriftReply }) {
  const data = drift.points.map((point, index) => ({ ...point, index }));
  const began = data.findIndex(({ at }) => at === drift.alarm?.began);
  return (
    <figure
      className="mt-3"
      aria-label={`Force needed against expected, ${data.length} graded cuts${drift.alarm ? ', drifting' : ', quiet'}`}
    >
      <ResponsiveContainer width="100%" height={220} initialDimension={{ width: 560, height: 220 }}>
        <ComposedChart data={data} margin={{ top: 8, right: 12, bottom: 8, left: -8 }}>
          <CartesianGrid stroke="var(--color-hairline)" vertical={false} />
          <XAxis
            dataKey="index"
            tick={TICK}
            tickFormatter={(index: number) => formatDay(data[index]?.at ?? '')}
            minTickGap={50}
          />
          <YAxis domain={[-3, 3]} ticks={[-3, -2, -1, 0, 1, 2, 3]} tick={TICK} allowDataOverflow />
          <ReferenceArea
            y1={-drift.limit}
            y2={drift.limit}
            fill="var(--color-verdigris)"
            fillOpacity={0.12}
            stroke="none"
          />
          <ReferenceLine y={0} stroke="var(--color-edge)" />
          {began >= 0 ? <ReferenceLine x={began} stroke="var(--color-ember)" strokeDasharray="4 4" /> : null}
          <Scatter dataKey="residual" fill="var(--color-feather)" isAnimationActive={false} />
          <Line
            dataKey="mean"
            stroke="var(--color-ink)"
            strokeWidth={2.2}
            dot={false}
            isAnimationActive={false}
          />
        </ComposedChart>
      </ResponsiveContainer>
      <figcaption className="text-sm text-muted">
        Up: more force was needed than expected, in standard deviations. Dots: single cuts · line: their
        weighted mean · band: where it stays while nothing changes
        {began >= 0 ? ' · dashed: the drift begins' : ''}
      </figcaption>
    </figure>
  );
}
