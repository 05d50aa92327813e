import { useState } from 'react';
import { type Operation, OPERATION_WORDS } from '#core/stack/operation.ts';
import { FormField } from '#web/islands/shared/FormField.tsx';

interface Props {
  readonly materials: readonly { readonly conditionId: number; readonly name: string }[];
  readonly machines: readonly {
    readonly id: number;
    readonly name: string;
    readonly operations: readonly Operation[];
  }[];
  readonly bladeKinds: readonly string[];
  readonly machineId: number | null;
  readonly bladeKind: string | null;
  readonly conditionId: number | null;
}

/** What a new setting is for: sheet, machine, blade and operation. A kept one opens instead of a second one. */
export function NewSettingForm(props: Props) {
  const { materials, machines, bladeKinds } = props;
  const [machineId, setMachineId] = useState(props.machineId ?? machines[0]?.id ?? 0);
  const operations = machines.find(({ id }) => id === machineId)?.operations ?? [];
  return (
    <form
      action="/settings/new"
      method="get"
      aria-label="New setting"
      className="sheet p-4 sm:px-6 sm:py-5 max-w-3xl"
    >
      <h1>New setting</h1>
      <p className="text-muted">
        For numbers you already have. An unknown sheet is found faster with <a href="/test-cuts">test cuts</a>
        .
      </p>
      <div className="grid gap-3 sm:grid-cols-2 mt-3">
        <SheetField materials={materials} start={props.conditionId ?? materials[0]?.conditionId ?? 0} />
        <FormField id="machineId" label="Machine">
          <select
            id="machineId"
            name="machineId"
            className="field"
            value={machineId}
            onChange={(event) => setMachineId(Number(event.target.value))}
          >
            {machines.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </select>
        </FormField>
        <BladeField kinds={bladeKinds} start={props.bladeKind ?? bladeKinds[0] ?? ''} />
        <FormField id="operation" label="Operation">
          <select id="operation" name="operation" className="field">
            {operations.map((operation) => (
              <option key={operation} value={operation}>
                {OPERATION_WORDS[operation]}
              </option>
            ))}
          </select>
        </FormField>
      </div>
      <div className="flex gap-3 mt-5">
        <button type="submit" className="button" data-kind="main">
          Go on to the values
        </button>
        <a href="/settings" className="button">
          Back
        </a>
      </div>
    </form>
  );
}

function SheetField({ materials, start }: Pick<Props, 'materials'> & { readonly start: number }) {
  return (
    <div className="sm:col-span-2">
      <FormField id="conditionId" label="Sheet">
        <select id="conditionId" name="conditionId" className="field" defaultValue={start}>
          {materials.map(({ conditionId, name }) => (
            <option key={conditionId} value={conditionId}>
              {name}
            </option>
          ))}
        </select>
      </FormField>
    </div>
  );
}

function BladeField({ kinds, start }: { readonly kinds: readonly string[]; readonly start: string }) {
  return (
    <FormField id="bladeKind" label="Kind of blade or tool">
      <input
        id="bladeKind"
        name="bladeKind"
        className="field"
        list="blade-kinds"
        required
        maxLength={40}
        defaultValue={start}
      />
      <datalist id="blade-kinds">
        {kinds.map((kind) => (
          <option key={kind} value={kind} />
        ))}
      </datalist>
    </FormField>
  );
}
