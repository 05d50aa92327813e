import { correctionsOf, wordCorrections } from '#core/setting/correctForce.ts';
import { type Operation, OPERATION_WORDS } from '#core/stack/operation.ts';
import type { Station } from '#core/station/station.ts';
import { formatLength, type UnitSystem } from '#core/units/length.ts';
import { Figure } from '#web/islands/bench/AnswerFigures.tsx';
import { formatDay } from '#web/islands/shared/formatTime.ts';
import type { SettingSummary } from '#web/schemas/setting.ts';
import { sayNumber } from '#web/islands/shared/units.ts';

interface Props {
  readonly operation: Operation;
  readonly setting: SettingSummary | null;
  readonly station: Station;
  readonly system: UnitSystem;
}

/** What is kept for an operation that test cuts of force do not find: perforated, scored, creased. */
export function KeptAnswer({ operation, setting, station, system }: Props) {
  if (!setting) {
    return <NothingKept operation={operation} station={station} />;
  }
  const { values } = setting.revision;
  const { loaded } = station;
  const added = loaded ? wordCorrections(correctionsOf(loaded.material, loaded.colour, loaded.lot)) : '';
  const length = (mm: number | undefined) => {
    const { figure, unit } = formatLength(mm ?? 0, system, 1);
    return { figure, unit };
  };
  return (
    <>
      <dl className="grid grid-cols-2 md:grid-cols-4 border-y border-hairline mt-3 md:divide-x divide-hairline">
        <Figure
          figure={String(values.force)}
          unit={setting.forceUnit}
          words={['force', added].filter((words) => words !== '').join(' · ')}
        />
        {operation === 'perforated' ? (
          <>
            <Figure
              figure={String(values.tabForce)}
              unit={setting.forceUnit}
              words="along tabs · the kiss force"
            />
            <Figure {...length(values.cutLengthMm)} words="cut length" />
            <Figure {...length(values.tabLengthMm)} words="tab length" />
          </>
        ) : null}
        {operation === 'score' ? (
          <Figure figure={sayNumber((values.depthShare ?? 0) * 100)} unit="%" words="of the layer" />
        ) : null}
        <Figure figure={String(values.speed)} unit={setting.speedUnit} words="speed" />
        <Figure
          figure={String(values.passes)}
          unit={values.passes === 1 ? 'pass' : 'passes'}
          words={operation === 'crease' ? `${values.tool}, offset 0` : setting.exposureWords}
        />
      </dl>
      <p className="mt-3">
        {setting.revision.author} kept it on {formatDay(setting.revision.at)}
        {setting.revision.reason ? `: ${setting.revision.reason}` : ''}{' '}
        <span className="text-muted">· rev {setting.revision.revision}</span>
      </p>
      <a className="button mt-3" href={`/settings/${setting.id}`}>
        Open this setting
      </a>
    </>
  );
}

function NothingKept({ operation, station }: Pick<Props, 'operation' | 'station'>) {
  const { machine, blade, loaded } = station;
  const query = new URLSearchParams({
    conditionId: String(loaded?.condition.id ?? ''),
    machineId: String(machine.id),
    bladeKind: blade?.kind ?? 'no blade',
    operation,
  });
  return (
    <div className="border-t border-hairline mt-3 pt-4">
      <p>
        <strong>Nothing kept for this yet.</strong>{' '}
        {operation === 'perforated'
          ? 'Tabs are cut at the kiss force and cuts at the through force, so keep those two first.'
          : 'Keep the numbers you have, and the next one who asks gets them.'}
      </p>
      <a data-keys="k" className="button mt-3" data-kind="main" href={`/settings/new?${query}`}>
        Keep a {OPERATION_WORDS[operation].toLowerCase()} setting
      </a>
    </div>
  );
}
