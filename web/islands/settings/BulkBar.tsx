import { useState } from 'react';
import type { Book } from '#web/islands/settings/useBook.ts';
import type { BulkInput } from '#web/schemas/setting.ts';
import { parseLength } from '#core/units/parseLength.ts';
import { plainNumber } from '#web/islands/shared/plainNumber.ts';
import { currentSystem, lengthUnit } from '#web/islands/shared/units.ts';

const FIELDS = {
  speed: 'speed',
  passes: 'passes',
  exposureMm: 'exposure',
  offsetMm: 'offset',
  overcutMm: 'overcut',
} as const;
type Field = keyof typeof FIELDS;

/** What can be done with the chosen settings, and what was done last, with a way back. */
export function BulkBar({ book }: { readonly book: Book }) {
  const ids = [...book.chosen];
  const query = ids.join(',');
  const act = (action: 'lock' | 'unlock' | 'archive' | 'restore') => book.bulk.mutate({ action, ids });
  return (
    <>
      {ids.length > 0 ? (
        <div
          role="toolbar"
          aria-label="Chosen settings"
          className="flex flex-wrap items-center gap-2 py-2 border-y border-hairline"
        >
          <strong className="mr-1">{ids.length} chosen</strong>
          <a href={`/compare?ids=${query}`} className="button">
            Compare
          </a>
          <a href={`/api/labels?ids=${query}`} className="button" target="_blank" rel="noreferrer">
            Bench labels
          </a>
          <button type="button" className="button" onClick={() => act('lock')}>
            Lock
          </button>
          <button type="button" className="button" onClick={() => act('unlock')}>
            Unlock
          </button>
          <button
            type="button"
            className="button"
            onClick={() => act(book.filter.isArchived ? 'restore' : 'archive')}
          >
            {book.filter.isArchived ? 'Take back out' : 'Put away'}
          </button>
          <SetField ids={ids} onSet={book.bulk.mutate} />
          <button type="button" className="button" data-kind="quiet" onClick={book.chooseNone}>
            Choose none
          </button>
        </div>
      ) : null}
      <Outcome book={book} />
    </>
  );
}

function SetField({ ids, onSet }: { readonly ids: number[]; readonly onSet: (change: BulkInput) => void }) {
  const [field, setField] = useState<Field>('speed');
  const [value, setValue] = useState('');
  const isLength = field.endsWith('Mm');
  const typed = isLength ? parseLength(value, currentSystem()) : plainNumber(value);
  return (
    <form
      className="flex items-center gap-1.5"
      onSubmit={(event) => {
        event.preventDefault();
        if (typed !== null) onSet({ action: 'set', ids, field, value: typed });
      }}
    >
      <select
        aria-label="Field to set"
        className="field w-auto"
        value={field}
        onChange={(event) => setField(event.target.value as Field)}
      >
        {Object.entries(FIELDS).map(([name, words]) => (
          <option key={name} value={name}>
            {name.endsWith('Mm') ? `${words}, ${lengthUnit()}` : words}
          </option>
        ))}
      </select>
      <input
        aria-label="New value"
        inputMode="decimal"
        className="field figure w-24"
        value={value}
        onChange={(event) => setValue(event.target.value)}
      />
      <button type="submit" className="button" disabled={typed === null}>
        Set for all
      </button>
    </form>
  );
}

const WORDS = {
  lock: 'locked',
  unlock: 'unlocked',
  archive: 'put away',
  restore: 'taken back out',
  set: 'changed, each as a new revision',
} as const;
const WAY_BACK = {
  lock: 'unlock',
  unlock: 'lock',
  archive: 'restore',
  restore: 'archive',
  set: null,
} as const;

function Outcome({ book: { bulk } }: { readonly book: Book }) {
  if (!bulk.data || !bulk.variables) return null;
  const { done, refused } = bulk.data;
  const { action } = bulk.variables;
  const back = WAY_BACK[action];
  return (
    <div role="status" className="note mt-2" data-tone={refused.length > 0 ? 'careful' : 'good'}>
      <p>
        {done.length} {WORDS[action]}.{' '}
        {back && done.length > 0 ? (
          <button
            type="button"
            className="underline font-semibold cursor-pointer min-h-8"
            onClick={() => bulk.mutate({ action: back, ids: [...done] })}
          >
            Undo
          </button>
        ) : null}
      </p>
      {refused.length > 0 ? (
        <p>
          {refused.length} left as they were:{' '}
          {[...new Set(refused.map(({ reason }) => reason))].slice(0, 3).join('; ')}
        </p>
      ) : null}
    </div>
  );
}
