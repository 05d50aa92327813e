import { factsOf } from '#core/stack/families/families.ts';
import { factsOfField, FIELDS, type SettingField } from '#core/setting/settingFields.ts';
import { forceUnit, gfOf, sayForce } from '#core/units/forceScale.ts';
import type { UnitSystem } from '#core/units/length.ts';
import { RoleSample, ROLE_WORDS } from '#web/components/RoleLine.tsx';
import { Section } from '#web/components/section/Section.tsx';
import { StripLegend } from '#web/components/windowStrip/StripLegend.tsx';
import { WindowStrip } from '#web/components/windowStrip/WindowStrip.tsx';
import { describeValue } from '#web/islands/setting/describeValue.ts';
import { StateBadge } from '#web/islands/shared/StateBadge.tsx';
import type { ComparedSetting } from '#web/schemas/comparison.ts';
import { sayNumber } from '#web/islands/shared/units.ts';

interface Props {
  readonly columns: readonly ComparedSetting[];
  readonly system: UnitSystem;
}

/** Settings side by side: sections, windows on one axis of grams, values with what differs marked, price and fate. */
export function CompareView({ columns, system }: Props) {
  if (columns.length === 0) {
    return (
      <section className="sheet p-8 max-w-2xl mx-auto mt-10">
        <h1>Nothing to compare yet</h1>
        <p className="mt-3">Tick two or more cut settings, then press Compare.</p>
        <p className="mt-5">
          <a className="button" data-kind="main" href="/settings">
            Open the cut settings
          </a>
        </p>
      </section>
    );
  }
  return (
    <section aria-label="Comparison" className="sheet p-4 sm:px-6 sm:py-5">
      <div className="flex flex-wrap items-center justify-between gap-3">
        <h1>Side by side</h1>
        <a className="button" href="/settings">
          Choose others
        </a>
      </div>
      <div className="overflow-x-auto" role="region" aria-label="Settings side by side" tabIndex={0}>
        <table className="w-full text-left border-collapse mt-2 min-w-[44rem]">
          <Heads columns={columns} />
          <tbody>
            <Pictures columns={columns} system={system} />
            <Windows columns={columns} />
            {fieldsOfAny(columns).map((field) => (
              <ValueRow key={field} field={field} columns={columns} />
            ))}
            <FactRows columns={columns} />
          </tbody>
        </table>
      </div>
      <p className="text-sm text-muted mt-3">◆ marks what is not the same for all.</p>
      <StripLegend />
    </section>
  );
}

function Heads({ columns }: Pick<Props, 'columns'>) {
  return (
    <thead>
      <tr className="border-b border-edge align-top">
        <td />
        {columns.map(({ setting }) => (
          <th key={setting.id} scope="col" className="py-2 pr-4 font-normal">
            <span className="flex items-center gap-2 text-sm">
              <RoleSample role={setting.operation} /> {ROLE_WORDS[setting.operation]}
            </span>
            <a href={`/settings/${setting.id}`} className="font-semibold">
              {setting.material}
            </a>
            <span className="block text-sm text-muted">
              {setting.maker} · {setting.machine} · {setting.bladeKind}
            </span>
          </th>
        ))}
      </tr>
    </thead>
  );
}

function Pictures({ columns, system }: Props) {
  return (
    <tr className="align-top border-b border-hairline">
      <th scope="row" className="py-2 pr-4 font-normal text-muted">
        section
      </th>
      {columns.map(({ setting, stack, faceColour, angleDeg, bench, machine }) => (
        <td key={setting.id} className="py-2 pr-4 max-w-72">
          <Section
            stack={stack}
            faceColour={faceColour}
            system={system}
            on={machine.kind}
            cut={bench?.answer ? { tip: bench.answer.tip, angleDeg } : null}
          />
        </td>
      ))}
    </tr>
  );
}

/** All windows on one axis of grams, so that their places can be compared by eye. */
function Windows({ columns }: Pick<Props, 'columns'>) {
  const axes = columns.flatMap(({ bench }) => bench?.answer?.axis ?? []);
  if (axes.length === 0) return null;
  const axis = {
    fromGf: Math.min(...axes.map(({ fromGf }) => fromGf)),
    toGf: Math.max(...axes.map(({ toGf }) => toGf)),
  };
  return (
    <tr className="align-top border-b border-hairline">
      <th scope="row" className="py-2 pr-4 font-normal text-muted">
        window
      </th>
      {columns.map(({ setting, bench, machine }) => (
        <td key={setting.id} className="py-2 pr-4">
          {bench?.answer && (setting.operation === 'kiss' || setting.operation === 'through') ? (
            <WindowStrip
              operation={setting.operation}
              scale={machine.forceScale}
              axis={axis}
              outlooks={bench.answer.window.outlooks}
              cuts={bench.cuts}
              force={bench.answer.values.force}
              forceWords={sayForce(bench.answer.values.force, forceUnit(machine.forceScale))}
              isNarrow
            />
          ) : (
            <span className="text-muted">no test cuts for this</span>
          )}
        </td>
      ))}
    </tr>
  );
}

function fieldsOfAny(columns: Props['columns']): readonly SettingField[] {
  return FIELDS.filter((field) =>
    columns.some(({ setting }) => factsOfField(field).operations.includes(setting.operation)),
  );
}

function ValueRow({ field, columns }: Pick<Props, 'columns'> & { readonly field: SettingField }) {
  const words = columns.map(({ setting, machine }) => {
    if (!factsOfField(field).operations.includes(setting.operation)) return '–';
    const value = setting.revision.values[field];
    const grams =
      field === 'force' && machine.forceScale.kind === 'level'
        ? ` (${sayNumber(gfOf(setting.revision.values.force, machine.forceScale))} gf)`
        : '';
    return `${describeValue(field, value, machine)}${grams}`;
  });
  return <CompareRow label={factsOfField(field).label} words={words} columns={columns} isFigure />;
}

function FactRows({ columns }: Pick<Props, 'columns'>) {
  return (
    <>
      <CompareRow
        label="family"
        words={columns.map(({ family }) => factsOf(family).name)}
        columns={columns}
      />
      <CompareRow label="price" words={columns.map(({ price }) => price || 'not said')} columns={columns} />
      <CompareRow
        label="runs clean"
        words={columns.map(({ setting }) => `${setting.cleanRuns} of ${setting.runs}`)}
        columns={columns}
      />
      <tr className="border-b border-hairline">
        <th scope="row" className="py-2 pr-4 font-normal text-muted">
          state
        </th>
        {columns.map(({ setting }) => (
          <td key={setting.id} className="py-2 pr-4">
            <StateBadge state={setting.state} />
            <span className="block text-sm text-muted">{setting.stateReason}</span>
          </td>
        ))}
      </tr>
    </>
  );
}

interface RowProps extends Pick<Props, 'columns'> {
  readonly label: string;
  readonly words: readonly string[];
  readonly isFigure?: boolean;
}

function CompareRow({ label, words, columns, isFigure = false }: RowProps) {
  const differs = new Set(words).size > 1;
  return (
    <tr className={`border-b border-hairline ${differs ? 'bg-straw-pale' : ''}`}>
      <th scope="row" className="py-2 pr-4 pl-1 font-normal text-muted whitespace-nowrap">
        {label}
        {differs ? <span aria-label="differs"> ◆</span> : null}
      </th>
      {words.map((word, index) => (
        <td
          key={columns[index]?.setting.id}
          className={`py-2 pr-4 ${isFigure ? 'figure font-semibold' : ''}`}
        >
          {word}
        </td>
      ))}
    </tr>
  );
}
