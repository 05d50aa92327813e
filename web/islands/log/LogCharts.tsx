import type { ReactElement, ReactNode } from 'react';
import {
  Bar,
  BarChart,
  CartesianGrid,
  Legend,
  Line,
  LineChart,
  ResponsiveContainer,
  Scatter,
  ScatterChart,
  Tooltip,
  XAxis,
  YAxis,
} from 'recharts';
import { sayForce } from '#core/units/forceScale.ts';
import type { LogCharts as Charts } from '#store/repositories/log/logCharts.ts';
import { formatDay } from '#web/islands/shared/formatTime.ts';
import { sayLength, sayNumber } from '#web/islands/shared/units.ts';

const TICK = { fill: 'var(--color-muted)', fontSize: 13 };
const axisWords = (value: string) => ({
  value,
  position: 'insideBottom' as const,
  offset: -10,
  fill: 'var(--color-muted)',
  fontSize: 13,
});

/** The log as pictures: forces against blade travel, success, where sheets went, what waste cost, registration. */
export function LogCharts({ charts, force }: { readonly charts: Charts; readonly force: ReactNode }) {
  return (
    <div className="grid gap-5 xl:grid-cols-2 items-start">
      {force}
      <SuccessChart charts={charts} />
      <SheetsChart charts={charts} />
      <ShiftChart charts={charts} />
    </div>
  );
}

interface FrameProps {
  readonly title: string;
  readonly words: string;
  readonly isEmpty: boolean;
  readonly children: ReactElement;
}

export function ChartFrame({ title, words, isEmpty, children }: FrameProps) {
  return (
    <section aria-label={title} className="sheet p-4 sm:px-6 sm:py-5">
      <h2 className="text-lg">{title}</h2>
      {isEmpty ? (
        <p className="text-muted">Nothing to draw yet: {words}</p>
      ) : (
        <figure>
          <ResponsiveContainer width="100%" height={260} initialDimension={{ width: 560, height: 260 }}>
            {children}
          </ResponsiveContainer>
          <figcaption className="text-sm text-muted">{words}</figcaption>
        </figure>
      )}
    </section>
  );
}

/** Forces of one machine and operation; a drawn chart for each would hide the trend in the crowd. */
export function ForceChart({ forces, unit }: { readonly forces: Charts['forces']; readonly unit: string }) {
  const of = (source: string) => forces.filter((one) => one.source === source);
  return (
    <ChartFrame
      title="Force asked against blade travel"
      words="dots: test cuts · diamonds: runs. A cloud that rises to the right is a blade that wears."
      isEmpty={forces.length === 0}
    >
      <ScatterChart margin={{ top: 8, right: 12, bottom: 18, left: 0 }}>
        <CartesianGrid stroke="var(--color-hairline)" />
        <XAxis type="number" dataKey="bladeMetres" tick={TICK} label={axisWords('blade travel')} />
        <YAxis
          type="number"
          dataKey="force"
          tick={TICK}
          tickFormatter={(force: number) => sayForce(force, unit)}
          width={76}
        />
        <Tooltip isAnimationActive={false} />
        <Scatter
          name="test cuts"
          data={[...of('test cut')]}
          fill="var(--color-feather)"
          isAnimationActive={false}
        />
        <Scatter
          name="runs"
          data={[...of('run')]}
          shape="diamond"
          fill="var(--color-ink)"
          isAnimationActive={false}
        />
      </ScatterChart>
    </ChartFrame>
  );
}

function SuccessChart({ charts: { success } }: { readonly charts: Charts }) {
  return (
    <ChartFrame
      title="How runs went, by material"
      words="runs that were noted: clean, with some pieces spoiled, failed."
      isEmpty={success.length === 0}
    >
      <BarChart data={[...success]} layout="vertical" margin={{ top: 4, right: 12, bottom: 4, left: 4 }}>
        <XAxis type="number" allowDecimals={false} tick={TICK} />
        <YAxis type="category" dataKey="material" width={170} tick={TICK} />
        <Tooltip isAnimationActive={false} />
        <Legend />
        <Bar
          dataKey="clean"
          name="clean"
          stackId="runs"
          fill="var(--color-verdigris)"
          isAnimationActive={false}
        />
        <Bar
          dataKey="someSpoiled"
          name="some spoiled"
          stackId="runs"
          fill="var(--color-straw)"
          isAnimationActive={false}
        />
        <Bar
          dataKey="failed"
          name="failed"
          stackId="runs"
          fill="var(--color-ember)"
          isAnimationActive={false}
        />
      </BarChart>
    </ChartFrame>
  );
}

function SheetsChart({ charts: { months, currency } }: { readonly charts: Charts }) {
  const waste = months.reduce((sum, month) => sum + month.waste, 0);
  return (
    <ChartFrame
      title="Where the sheets went"
      words={`loads for tests against sheets for jobs, by month. Tests and spoiled pieces cost ${sayNumber(waste, 2)} ${currency} in all, where prices are known.`}
      isEmpty={months.length === 0}
    >
      <BarChart data={[...months]} margin={{ top: 8, right: 12, bottom: 4, left: -12 }}>
        <CartesianGrid stroke="var(--color-hairline)" vertical={false} />
        <XAxis dataKey="month" tick={TICK} />
        <YAxis allowDecimals={false} tick={TICK} />
        <Tooltip isAnimationActive={false} />
        <Legend />
        <Bar dataKey="tests" name="loads for tests" fill="var(--color-feather)" isAnimationActive={false} />
        <Bar
          dataKey="production"
          name="sheets for jobs"
          fill="var(--color-verdigris)"
          isAnimationActive={false}
        />
      </BarChart>
    </ChartFrame>
  );
}

function ShiftChart({ charts: { shifts } }: { readonly charts: Charts }) {
  return (
    <ChartFrame
      title="Shift of print and cut over time"
      words="the mean length of the shift on every sheet that was read. Read one with a card, or note it with a run."
      isEmpty={shifts.length === 0}
    >
      <LineChart data={[...shifts]} margin={{ top: 8, right: 12, bottom: 4, left: -12 }}>
        <CartesianGrid stroke="var(--color-hairline)" vertical={false} />
        <XAxis dataKey="at" tick={TICK} tickFormatter={formatDay} />
        <YAxis tick={TICK} tickFormatter={(mm: number) => sayLength(mm, 1)} width={70} />
        <Tooltip isAnimationActive={false} labelFormatter={(at) => formatDay(String(at))} />
        <Line dataKey="mm" name="shift" stroke="var(--color-ink)" strokeWidth={2} isAnimationActive={false} />
      </LineChart>
    </ChartFrame>
  );
}
