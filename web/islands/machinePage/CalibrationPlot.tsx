import {
  Area,
  CartesianGrid,
  ComposedChart,
  Line,
  ResponsiveContainer,
  Scatter,
  XAxis,
  YAxis,
} from 'recharts';
import { forceUnit, type ForceScale } from '#core/units/forceScale.ts';
import type { Attempt } from '#web/islands/machinePage/useCalibration.ts';

interface Props {
  readonly attempt: Attempt;
  readonly scale: ForceScale;
}

/** The fitted scale with its band, the readings on it, and, thin, what the scale is said to mean. */
export function CalibrationPlot({ attempt, scale }: Props) {
  const { min, max, gfAtZero, gfPerUnit } = scale;
  const nominal = [min, max].map((force) => ({ force, nominal: gfAtZero + gfPerUnit * force }));
  const points = attempt.kind === 'fitted' ? attempt.fitted.points : [];
  const curve = points.map(({ force, gf, lowGf, highGf }) => ({ force, gf, band: [lowGf, highGf] }));
  const readings = attempt.kind === 'fitted' ? attempt.readings : [];
  const unit = forceUnit(scale);
  return (
    <figure aria-label={`Grams at each ${unit === 'gf' ? 'force' : 'level'}`}>
      <ResponsiveContainer width="100%" height={250} initialDimension={{ width: 480, height: 250 }}>
        <ComposedChart data={curve} margin={{ top: 8, right: 12, bottom: 18, left: 6 }}>
          <CartesianGrid stroke="var(--color-hairline)" />
          <XAxis
            type="number"
            dataKey="force"
            domain={[min, max]}
            tick={{ fill: 'var(--color-muted)', fontSize: 13 }}
            label={{ value: unit, position: 'insideBottom', offset: -12, fill: 'var(--color-muted)' }}
          />
          <YAxis
            type="number"
            tick={{ fill: 'var(--color-muted)', fontSize: 13 }}
            label={{ value: 'gf', angle: -90, position: 'insideLeft', fill: 'var(--color-muted)' }}
          />
          <Area
            dataKey="band"
            stroke="none"
            fill="var(--color-verdigris)"
            fillOpacity={0.18}
            isAnimationActive={false}
          />
          <Line
            dataKey="gf"
            stroke="var(--color-verdigris)"
            strokeWidth={2.5}
            dot={false}
            isAnimationActive={false}
          />
          <Line
            data={nominal}
            dataKey="nominal"
            stroke="var(--color-edge)"
            strokeDasharray="5 4"
            dot={false}
            isAnimationActive={false}
          />
          <Scatter data={[...readings]} dataKey="grams" fill="var(--color-ink)" isAnimationActive={false} />
        </ComposedChart>
      </ResponsiveContainer>
      <figcaption className="text-sm text-muted">
        dots: readings · line: the scale as measured, band: 9 in 10 · dashed: what the scale is said to mean
      </figcaption>
    </figure>
  );
}
