import { useState } from 'react';
import { SOURCE_WORDS } from '#core/setting/setting.ts';
import {
  factsOfField,
  fieldsOf,
  type SettingField,
  type SettingValues,
  STRATEGY_WORDS,
  TAB_WAY_WORDS,
} from '#core/setting/settingFields.ts';
import { describeExposure } from '#core/units/depthScale.ts';
import { QuantityInput } from '#web/islands/shared/QuantityInput.tsx';
import { describeValue, unitOf } from '#web/islands/setting/describeValue.ts';
import type { SettingDesk } from '#web/islands/setting/useSetting.ts';
import { Refusal } from '#web/islands/shared/Refusal.tsx';
import type { SettingPageData } from '#web/schemas/settingPage.ts';

interface Props {
  readonly page: SettingPageData;
  readonly desk: SettingDesk;
}

/** Every value of the setting with its unit, its limits and where it came from; kept as a new revision. */
export function ValueForm({ page, desk }: Props) {
  const [reason, setReason] = useState('');
  const isLocked = Boolean(page.summary?.lockedBy);
  return (
    <form
      aria-label="Values"
      onSubmit={(event) => {
        event.preventDefault();
        void desk.keep(reason);
      }}
    >
      <fieldset
        disabled={isLocked}
        className="grid grid-cols-2 sm:grid-cols-3 xl:grid-cols-4 gap-x-4 gap-y-3 mt-4 border-t border-hairline pt-3"
      >
        <legend className="sr-only">Values</legend>
        {fieldsOf(page.key.operation).map((field) => (
          <ValueField key={field} field={field} page={page} desk={desk} />
        ))}
      </fieldset>
      <Merged page={page} desk={desk} />
      <Refusal error={desk.error} />
      {isLocked ? (
        <p className="note mt-3">{page.summary?.lockedBy} locked this setting: unlock it to change it.</p>
      ) : (
        <div className="flex flex-wrap items-end gap-3 mt-4">
          <label className="grow basis-64">
            <span className="block text-sm text-muted">Why, in a few words</span>
            <input
              className="field"
              maxLength={300}
              value={reason}
              onChange={(event) => setReason(event.target.value)}
            />
          </label>
          <button
            type="submit"
            data-keys="k"
            className="button"
            data-kind="main"
            disabled={desk.isBusy || !desk.isChanged}
          >
            {desk.base.revision === 0 ? 'Keep the first revision' : `Keep revision ${desk.base.revision + 1}`}
          </button>
        </div>
      )}
    </form>
  );
}

function ValueField({ field, page, desk }: Props & { readonly field: SettingField }) {
  const { label } = factsOfField(field);
  const id = `value-${field}`;
  return (
    <div>
      <label htmlFor={id} className="block text-sm text-muted">
        {label}
      </label>
      <span className="flex items-center gap-1.5">
        <ValueInput id={id} field={field} page={page} desk={desk} />
        <span className="figure text-muted text-sm">{unitOf(field, page.machine)}</span>
      </span>
      <p className="text-sm text-muted mt-0.5">{noteOf(field, page, desk.draft)}</p>
    </div>
  );
}

/** One of a few words, by a pick-list. */
function Choice<Word extends string>(props: {
  readonly id: string;
  readonly value: Word;
  readonly words: Readonly<Record<Word, string>>;
  readonly onChoose: (word: Word) => void;
}) {
  const { id, value, words, onChoose } = props;
  return (
    <select
      id={id}
      className="field"
      value={value}
      onChange={(event) => onChoose(event.target.value as Word)}
    >
      {(Object.keys(words) as Word[]).map((word) => (
        <option key={word} value={word}>
          {words[word]}
        </option>
      ))}
    </select>
  );
}

function ValueInput({
  id,
  field,
  page,
  desk,
}: Props & { readonly id: string; readonly field: SettingField }) {
  const value = desk.draft[field];
  if (field === 'tabForce' && tabWayOf(page, desk.draft) !== 'ownForce') {
    return (
      <output id={id} className="field figure font-bold bg-ground flex items-center">
        {tabWayOf(page, desk.draft) === 'lifted' ? 'none' : (page.kissForce ?? 'no kiss yet')}
      </output>
    );
  }
  if (field === 'tabWay') {
    const way = tabWayOf(page, desk.draft);
    return <Choice id={id} value={way} words={TAB_WAY_WORDS} onChoose={(one) => desk.set(field, one)} />;
  }
  if (field === 'strategy') {
    const way = desk.draft.strategy ?? 'oneHeavy';
    return <Choice id={id} value={way} words={STRATEGY_WORDS} onChoose={(one) => desk.set(field, one)} />;
  }
  if (field === 'tool') {
    return (
      <input
        id={id}
        className="field"
        maxLength={60}
        value={String(value ?? '')}
        onChange={(event) => desk.set(field, event.target.value)}
      />
    );
  }
  const isFixed = field === 'offsetMm' && page.key.operation === 'crease';
  if (factsOfField(field).unit === 'mm') {
    return (
      <QuantityInput
        id={id}
        kind="length"
        required
        readOnly={isFixed}
        className="field figure font-bold read-only:bg-ground"
        kept={typeof value === 'number' ? value : Number.NaN}
        onKept={(mm) => desk.set(field, mm)}
      />
    );
  }
  return (
    <input
      id={id}
      type="number"
      step="any"
      required
      readOnly={isFixed}
      className="field figure font-bold read-only:bg-ground"
      value={typeof value === 'number' && Number.isFinite(value) ? value : ''}
      onChange={(event) => desk.set(field, event.target.valueAsNumber)}
    />
  );
}

/** How tabs are made: as chosen, else at the kiss force, where there is one. */
function tabWayOf(page: SettingPageData, { tabWay }: SettingValues): NonNullable<SettingValues['tabWay']> {
  return tabWay ?? (page.kissForce === null ? 'lifted' : 'kissForce');
}

/** What the machine can do, or where a value came from. */
function noteOf(field: SettingField, page: SettingPageData, draft: SettingValues): string {
  const { machine, key, startSources, start } = page;
  const source = startSources[field];
  const from = source && draft[field] === start[field] ? `from ${SOURCE_WORDS[source]}` : '';
  if (field === 'force')
    return `${machine.forceScale.min} to ${machine.forceScale.max}${from ? ` · ${from}` : ''}`;
  if (field === 'tabForce') {
    const way = tabWayOf(page, draft);
    if (way === 'kissForce') return 'the kiss force, kept in step';
    return way === 'lifted' ? 'the tip is lifted over them' : 'less than the force between them';
  }
  if (field === 'tabWay') return 'half lifted tip, carton: a force of their own';
  if (field === 'speed')
    return `${machine.speedScale.min} to ${machine.speedScale.max}${from ? ` · ${from}` : ''}`;
  if (field === 'exposureMm' && draft.exposureMm > 0)
    return describeExposure(draft.exposureMm, machine.depthScale);
  if (field === 'offsetMm' && key.operation === 'crease') return 'a crease tool has no offset';
  return from;
}

/** What somebody else kept meanwhile, and what both changed. */
function Merged({ page, desk }: Props) {
  const { merged, set } = desk;
  if (!merged) return null;
  return (
    <div role="status" className="note mt-3" data-tone="careful">
      <p>
        {merged.by} kept revision {desk.base.revision} meanwhile. Their changes are in the fields now, yours
        beside them where they changed nothing.
      </p>
      {merged.conflicts.map(({ field, after, mine }) => (
        <p key={field} className="flex flex-wrap items-center gap-2 mt-1">
          Both changed {factsOfField(field).label}:
          <button type="button" className="button" onClick={() => set(field, after)}>
            theirs, {describeValue(field, after, page.machine)}
          </button>
          <button type="button" className="button" onClick={() => set(field, mine)}>
            mine, {describeValue(field, mine, page.machine)}
          </button>
        </p>
      ))}
    </div>
  );
}
