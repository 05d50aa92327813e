import type { RunVerdict } from '#core/setting/setting.ts';
import { GRADE_WORDS } from '#core/stack/depthGrade.ts';
import type { DepthOperation } from '#core/stack/operation.ts';
import type { Machine } from '#core/station/machine.ts';
import { wordForce } from '#core/units/forceScale.ts';
import type { BenchAnswer } from '#web/schemas/setting.ts';
import { formatDay } from '#web/islands/shared/formatTime.ts';

interface Props {
  readonly bench: BenchAnswer;
  readonly machine: Machine;
  readonly operation: DepthOperation;
}

const VERDICT_WORDS: Readonly<Record<RunVerdict, string>> = {
  clean: 'clean',
  someSpoiled: 'with some spoiled',
  failed: 'failed',
};

/** What the answer rests on: the revision kept, the test cuts behind it, the runs since. */
export function Evidence({ bench, machine, operation }: Props) {
  const { revision, verdicts, lastNote, cuts, settingId, lesson } = bench;
  const own = cuts.filter((cut) => cut.operation === operation).slice(-4);
  const tried = own.map((cut) => `${cut.force} ${GRADE_WORDS[cut.grade].word}`).join(', ');
  return (
    <dl className="mt-4 border-t border-hairline pt-2.5 grid gap-x-5 gap-y-1.5 sm:grid-cols-[7rem_1fr]">
      <dt className="text-muted">{revision ? formatDay(revision.at) : 'Kept'}</dt>
      <dd>
        {revision ? (
          <>
            {revision.author} kept {wordForce(revision.values.force, machine.forceScale)}
            {revision.reason ? `: ${revision.reason}` : ''}{' '}
            <span className="text-muted">· rev {revision.revision}</span>{' '}
            <a href={`/settings/${settingId}`} className="text-verdigris">
              history
            </a>
          </>
        ) : (
          'nothing yet for this sheet on this machine'
        )}
      </dd>
      <dt className="text-muted">Test cuts</dt>
      <dd>
        {tried || 'none yet for this cut'}
        {cuts.length > own.length ? (
          <span className="text-muted"> · {cuts.length} on this sheet in all</span>
        ) : null}
      </dd>
      {lesson ? (
        <>
          <dt className="text-muted">Runs taught</dt>
          <dd>{lesson}</dd>
        </>
      ) : null}
      {revision ? (
        <>
          <dt className="text-muted">Runs since</dt>
          <dd>
            {summariseRuns(verdicts)}
            {lastNote ? <span> · “{lastNote}”</span> : null}{' '}
            <a href="/log" className="text-verdigris">
              log
            </a>
          </dd>
        </>
      ) : null}
    </dl>
  );
}

function summariseRuns(verdicts: readonly RunVerdict[]): string {
  if (verdicts.length === 0) return 'none noted yet';
  const counted = (Object.keys(VERDICT_WORDS) as RunVerdict[])
    .map((verdict) => ({ verdict, count: verdicts.filter((one) => one === verdict).length }))
    .filter(({ count }) => count > 0);
  return counted.map(({ verdict, count }) => `${count} ${VERDICT_WORDS[verdict]}`).join(', ');
}
