import { useState } from 'react';
import type { LogCharts as Charts } from '#store/repositories/log/logCharts.ts';
import { ForceChart, LogCharts } from '#web/islands/log/LogCharts.tsx';

interface Props {
  readonly charts: Charts;
  /** The unit of force of each machine, by name. */
  readonly units: Readonly<Record<string, string>>;
}

/** The charts, with the machine and operation whose forces are shown. */
export function LogChartsView({ charts, units }: Props) {
  const streams = [...new Set(charts.forces.map(({ machine, operation }) => `${machine} · ${operation}`))];
  const [stream, setStream] = useState(streams[0] ?? '');
  const [machine = ''] = stream.split(' · ');
  const forces = charts.forces.filter((one) => `${one.machine} · ${one.operation}` === stream);
  return (
    <LogCharts
      charts={charts}
      force={
        <div className="grid gap-2">
          <label className="text-sm text-muted">
            Machine and cut
            <select
              className="field text-base text-ink"
              value={stream}
              onChange={(event) => setStream(event.target.value)}
            >
              {streams.map((one) => (
                <option key={one}>{one}</option>
              ))}
            </select>
          </label>
          <ForceChart forces={forces} unit={units[machine] ?? ''} />
        </div>
      }
    />
  );
}
