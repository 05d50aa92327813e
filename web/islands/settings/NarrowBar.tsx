import { SETTING_STATES } from '#core/setting/setting.ts';
import { OPERATION_WORDS, OPERATIONS } from '#core/stack/operation.ts';
import type { Book } from '#web/islands/settings/useBook.ts';
import { FilterField } from '#web/islands/shared/FilterField.tsx';

interface Props {
  readonly book: Book;
  readonly machines: readonly { readonly id: number; readonly name: string }[];
}

/** What the book is narrowed to. */
export function NarrowBar({ book: { filter, narrow }, machines }: Props) {
  return (
    <div role="search" aria-label="Narrow the list" className="flex flex-wrap items-center gap-2 mb-2">
      <FilterField
        label="Material, maker, lot, nickname, old note"
        value={filter.text}
        onChange={(text) => narrow({ text })}
      />
      <Choice label="Operation" value={filter.operation} onChange={(operation) => narrow({ operation })}>
        {OPERATIONS.map((one) => (
          <option key={one} value={one}>
            {OPERATION_WORDS[one]}
          </option>
        ))}
      </Choice>
      <Choice label="Machine" value={filter.machineId} onChange={(machineId) => narrow({ machineId })}>
        {machines.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </Choice>
      <Choice label="State" value={filter.state} onChange={(state) => narrow({ state })}>
        {SETTING_STATES.map((one) => (
          <option key={one}>{one}</option>
        ))}
      </Choice>
      <label className="flex items-center gap-2 min-h-11 px-1">
        <input
          type="checkbox"
          className="size-5 accent-verdigris"
          checked={filter.isArchived}
          onChange={(event) => narrow({ isArchived: event.target.checked })}
        />
        put away
      </label>
    </div>
  );
}

interface ChoiceProps {
  readonly label: string;
  readonly value: string;
  readonly onChange: (value: string) => void;
  readonly children: React.ReactNode;
}

function Choice({ label, value, onChange, children }: ChoiceProps) {
  return (
    <select
      aria-label={label}
      className="field w-auto"
      value={value}
      onChange={(event) => onChange(event.target.value)}
    >
      <option value="">{`any ${label.toLowerCase()}`}</option>
      {children}
    </select>
  );
}
