import { Plus, Trash2 } from 'lucide-react';
import type { Machine } from '#core/station/machine.ts';
import { forceUnit } from '#core/units/forceScale.ts';
import { CalibrationPlot } from '#web/islands/machinePage/CalibrationPlot.tsx';
import { useCalibration, type Attempt } from '#web/islands/machinePage/useCalibration.ts';
import { formatMoment } from '#web/islands/shared/formatTime.ts';
import { Refusal } from '#web/islands/shared/Refusal.tsx';
import type { CalibrationView } from '#web/schemas/machinePage.ts';
import { say, sayNumber } from '#web/islands/shared/units.ts';

interface Props {
  readonly machine: Machine;
  readonly calibration: CalibrationView | null;
}

/** Measuring a force scale with a kitchen balance: readings, the curve through them as they are typed, keeping it. */
export function CalibrationPanel({ machine, calibration }: Props) {
  const desk = useCalibration(machine, calibration?.readings ?? []);
  const unit = forceUnit(machine.forceScale);
  return (
    <section aria-label="Scale in grams" className="sheet p-4 sm:px-6 sm:py-5">
      <h2 className="text-lg">The force scale in grams</h2>
      <p className="text-muted">
        Put a kitchen balance under the tip, blade off, holder in. Lower it at some values far apart, twice
        each if you can, and write down what the balance shows. From then on settings carry over between
        machines through grams.
      </p>
      <div className="grid gap-5 md:grid-cols-[16rem_1fr] mt-3">
        <Readings desk={desk} unit={unit} />
        <div>
          <CalibrationPlot attempt={desk.attempt} scale={machine.forceScale} />
          <Verdict attempt={desk.attempt} unit={unit} />
          <Refusal error={desk.error} />
          <div className="flex flex-wrap gap-2 mt-3">
            <button
              type="button"
              className="button"
              data-kind="main"
              disabled={desk.attempt.kind !== 'fitted'}
              onClick={() => void desk.keep()}
            >
              Keep this scale
            </button>
            {calibration ? (
              <button type="button" className="button" onClick={() => void desk.remove(calibration.id)}>
                Take the kept one back
              </button>
            ) : null}
          </div>
          {calibration ? (
            <p className="text-sm text-muted mt-2">
              In force: measured by {calibration.author || 'somebody'} on {formatMoment(calibration.at)}.
            </p>
          ) : (
            <p className="text-sm text-muted mt-2">
              Not measured yet: grams are what the scale is said to mean.
            </p>
          )}
        </div>
      </div>
    </section>
  );
}

interface ReadingsProps {
  readonly desk: ReturnType<typeof useCalibration>;
  readonly unit: string;
}

function Readings({ desk, unit }: ReadingsProps) {
  return (
    <div>
      <div className="grid grid-cols-[5rem_6rem_auto] gap-x-2 text-sm text-muted">
        <span>{unit === 'gf' ? 'set to, gf' : 'level'}</span>
        <span>balance, g</span>
      </div>
      <ol className="grid gap-1.5">
        {desk.typed.map((reading, index) => (
          <li key={index} className="grid grid-cols-[5rem_6rem_auto] gap-x-2">
            <input
              className="field figure"
              inputMode="decimal"
              aria-label={`Reading ${index + 1}: set to`}
              value={reading.force}
              onChange={(event) => desk.change(index, { force: event.target.value })}
            />
            <input
              className="field figure"
              inputMode="decimal"
              aria-label={`Reading ${index + 1}: grams`}
              value={reading.grams}
              onChange={(event) => desk.change(index, { grams: event.target.value })}
            />
            <button
              type="button"
              className="button px-2.5 justify-self-start"
              data-kind="quiet"
              aria-label={`Remove reading ${index + 1}`}
              onClick={() => desk.removeRow(index)}
            >
              <Trash2 size={17} aria-hidden />
            </button>
          </li>
        ))}
      </ol>
      <button type="button" className="button mt-2" onClick={desk.add}>
        <Plus size={16} aria-hidden /> Add a reading
      </button>
    </div>
  );
}

function Verdict({ attempt, unit }: { readonly attempt: Attempt; readonly unit: string }) {
  if (attempt.kind === 'none') return <p className="text-muted">The curve comes with the third reading.</p>;
  if (attempt.kind === 'refused') {
    return (
      <p role="status" className="note" data-tone="careful">
        Not yet: {say(attempt.reason)}.
      </p>
    );
  }
  const { points, noiseG } = attempt.fitted;
  const middle = points[Math.floor(points.length / 2)];
  if (!middle) return null;
  const spread = (middle.highGf - middle.lowGf) / 2;
  return (
    <p role="status">
      Readings scatter by {sayNumber(noiseG, 1)} g. At {unit === 'gf' ? '' : 'level '}
      {sayNumber(middle.force)} the tip presses with <strong>{sayNumber(middle.gf)} gf</strong>, give or take{' '}
      {sayNumber(spread)}.
    </p>
  );
}
