import { useState } from 'react';
import { formatLength } from '#core/units/length.ts';
import type { Machine } from '#core/station/machine.ts';
import { CardReadingForm } from '#web/islands/machinePage/CardReadingForm.tsx';
import { callApi } from '#web/islands/shared/callApi.ts';
import { formatMoment } from '#web/islands/shared/formatTime.ts';
import { Refusal } from '#web/islands/shared/Refusal.tsx';
import { TickBox } from '#web/islands/shared/TickBox.tsx';
import type { RegistrationReply } from '#web/schemas/registration.ts';
import { currentSystem, lengthUnit, sayLength, sayNumber } from '#web/islands/shared/units.ts';

interface Props {
  readonly machine: Machine;
  readonly registration: RegistrationReply;
}

/** How print and cut meet: make a card, read it, see what was found, let files correct it. */
export function RegistrationPanel({ machine, registration: initial }: Props) {
  const [registration, setRegistration] = useState(initial);
  const [error, setError] = useState<unknown>(null);
  const at = `/api/machines/${machine.id}`;
  const change = async (ask: Promise<RegistrationReply>) => {
    setError(null);
    try {
      setRegistration(await ask);
      return true;
    } catch (refusal) {
      setError(refusal);
      return false;
    }
  };
  const makeCard = () =>
    void callApi<{ id: number }>(`${at}/registration-card`, 'POST').then(
      ({ id }) => location.assign(`/jobs/${id}`),
      setError,
    );
  return (
    <section id="print-to-cut" aria-label="Print to cut" className="sheet p-4 sm:px-6 sm:py-5">
      <h2 className="text-lg">Where the cut lands on the print</h2>
      {machine.marks.scheme === 'none' ? (
        <p className="text-muted">
          This machine has no registration marks below, so nothing finds a printed sheet.
        </p>
      ) : (
        <>
          <p className="text-muted">
            One printed sheet tells it to {sayLength(0.1)}: two scales at each corner, one printed, one cut
            beside it. Lines that meet name the shift.
          </p>
          <Belief registration={registration} />
          <div className="grid gap-5 md:grid-cols-[17rem_1fr] mt-3">
            <div>
              <button type="button" className="button w-full" onClick={makeCard}>
                Make a card to print and cut
              </button>
              <CardReadingForm
                onKeep={(reading) => change(callApi(`${at}/registration-sheets`, 'POST', reading))}
              />
            </div>
            <div>
              <ReadSheets
                registration={registration}
                onRemove={(id) => void change(callApi(`${at}/registration-sheets/${id}`, 'DELETE'))}
              />
              <CorrectionTick
                registration={registration}
                onSet={(isOn) => void change(callApi(`${at}/registration-correction`, 'PUT', { isOn }))}
              />
            </div>
          </div>
          <Refusal error={error} />
        </>
      )}
    </section>
  );
}

function CorrectionTick({
  registration: { sheets, isCorrected },
  onSet,
}: Pick<Props, 'registration'> & { readonly onSet: (isOn: boolean) => void }) {
  if (sheets.length === 0 && !isCorrected) return null;
  return (
    <TickBox
      label="Files of this machine correct the shift (not where its own panel does)"
      isOn={isCorrected}
      onSet={onSet}
    />
  );
}

function Belief({ registration: { error, isCorrected } }: Pick<Props, 'registration'>) {
  if (error.source === 'habit') {
    return (
      <p className="note mt-2" data-tone="careful">
        Not measured yet: bleed is reckoned for the habit, 1/16 inch on 19 sheets of 20.
      </p>
    );
  }
  const steady = Math.hypot(error.meanXMm, error.meanYMm);
  return (
    <p className="mt-2" role="status">
      Steady part <strong className="figure">{sayLength(steady, 2)}</strong>
      {steady >= 0.05 ? ` (${sideWords(error.meanXMm, error.meanYMm)})` : ''}
      {isCorrected ? ', after the correction' : ''}; from sheet to sheet{' '}
      <strong className="figure">± {sayLength(error.sdMm, 2)}</strong>.
    </p>
  );
}

function ReadSheets({
  registration: { sheets },
  onRemove,
}: Pick<Props, 'registration'> & { readonly onRemove: (id: number) => void }) {
  if (sheets.length === 0) return <p className="text-muted">No sheet was read yet.</p>;
  return (
    <table className="w-full text-sm">
      <caption className="sr-only">Sheets that were read</caption>
      <thead className="text-muted text-left">
        <tr>
          <th scope="col">read</th>
          <th scope="col">shift, {lengthUnit()}</th>
          <th scope="col">turn</th>
          <th scope="col">scale</th>
          <th scope="col">rest</th>
          <th scope="col">
            <span className="sr-only">take back</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {sheets.slice(0, 8).map(({ id, shift, rotationRad, scale, restMm, at }) => (
          <tr key={id} className="border-t border-hairline">
            <td>{formatMoment(at)}</td>
            <td className="figure">
              {signed(shift.x)} / {signed(shift.y)}
            </td>
            <td className="figure">{sayNumber((rotationRad * 180) / Math.PI, 2)}°</td>
            <td className="figure">{sayNumber(100 * (scale - 1), 2)} %</td>
            <td className="figure">{sayNumber(restMm, 2)}</td>
            <td>
              <button
                type="button"
                className="underline cursor-pointer min-h-11 px-1"
                onClick={() => onRemove(id)}
              >
                take back
              </button>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function signed(mm: number): string {
  return `${mm < 0 ? '−' : '+'}${formatLength(Math.abs(mm), currentSystem(), 2).figure}`;
}

function sideWords(x: number, y: number): string {
  const words = [
    Math.abs(x) >= 0.05 ? `${sayLength(Math.abs(x))} to the ${x > 0 ? 'right' : 'left'}` : '',
    Math.abs(y) >= 0.05 ? `${sayLength(Math.abs(y))} ${y > 0 ? 'down' : 'up'}` : '',
  ];
  return words.filter(Boolean).join(', ');
}
