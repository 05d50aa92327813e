import { useState } from 'react';
import { transferValues } from '#core/setting/transferValues.ts';
import { wordForce } from '#core/units/forceScale.ts';
import type { SettingDesk } from '#web/islands/setting/useSetting.ts';
import type { SettingPageData } from '#web/schemas/settingPage.ts';
import { sayNumber, sayPlain } from '#web/islands/shared/units.ts';

interface Props {
  readonly page: SettingPageData;
  readonly desk: SettingDesk;
}

/** Where a setting can go: to another machine through grams, onto a label, out of sight. */
export function MovePanel({ page, desk }: Props) {
  const { summary } = page;
  if (!summary) return null;
  return (
    <section aria-label="Use it elsewhere" className="sheet p-4 sm:p-5">
      <h2 className="text-muted">Use it elsewhere</h2>
      <CopyForm page={page} desk={desk} />
      <p className="flex flex-wrap gap-2 mt-3 border-t border-hairline pt-3">
        <a className="button" href={`/api/labels?ids=${summary.id}`} target="_blank" rel="noreferrer">
          Bench label
        </a>
        <a className="button" href={`/compare?ids=${summary.id}`}>
          Compare
        </a>
        <button
          type="button"
          className="button"
          onClick={() => void desk.act('archive', { isArchived: !summary.isArchived })}
        >
          {summary.isArchived ? 'Take back out' : 'Put away'}
        </button>
      </p>
      {summary.isArchived ? (
        <p className="note mt-2">Put away: it is not used anywhere until you take it back out.</p>
      ) : null}
    </section>
  );
}

function CopyForm({ page, desk }: Props) {
  const others = page.machines.filter(({ id }) => id !== page.machine.id);
  const [machineId, setMachineId] = useState(others[0]?.id ?? 0);
  const target = others.find(({ id }) => id === machineId);
  if (!target) return <p>There is no other machine to copy it to.</p>;
  const { values, forceGf, isCalibrated, lowForce, highForce } = transferValues(
    desk.base.values,
    page.machine,
    target,
  );
  return (
    <form
      className="grid gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        void desk.act('copy', { machineId }, ({ id }) => location.assign(`/settings/${id}`));
      }}
    >
      <label>
        <span className="block text-sm text-muted">Copy to another machine</span>
        <select
          className="field"
          value={machineId}
          onChange={(event) => setMachineId(Number(event.target.value))}
        >
          {others.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
      </label>
      <p>
        {sayNumber(forceGf)} gf here cuts like{' '}
        <strong className="figure">{wordForce(values.force, target.forceScale)}</strong> there, probably
        between {sayPlain(lowForce)} and {sayPlain(highForce)}; speed {sayPlain(values.speed)}{' '}
        {target.speedScale.unit}.
      </p>
      <p className="text-sm text-muted">
        {isCalibrated
          ? 'Both scales are known in grams.'
          : 'A scale was never measured, so this is unsure: a balance under the tip would settle it.'}{' '}
        It stays a prediction until it is cut there.
      </p>
      <button type="submit" className="button justify-self-start">
        Copy to {target.name}
      </button>
    </form>
  );
}
