import { itemAt } from '#core/collections/itemAt.ts';
import { CLEAN_RUNS_TO_PROVE } from '#core/setting/judgeSetting.ts';
import { diffValues } from '#core/setting/diffValues.ts';
import { factsOfField } from '#core/setting/settingFields.ts';
import { describeValue } from '#web/islands/setting/describeValue.ts';
import type { SettingDesk } from '#web/islands/setting/useSetting.ts';
import { formatMoment } from '#web/islands/shared/formatTime.ts';
import type { SettingPageData } from '#web/schemas/settingPage.ts';
import { say } from '#web/islands/shared/units.ts';

interface Props {
  readonly page: SettingPageData;
  readonly desk: SettingDesk;
}

/** Every revision with what it changed and why; an earlier one can be kept again. */
export function HistoryPanel({ page, desk }: Props) {
  const { revisions, audit } = page;
  const others = audit.filter(({ action }) => action !== 'change' && action !== 'add');
  return (
    <section aria-label="History" className="sheet p-4 sm:px-6 sm:py-5">
      <h2 className="text-muted">History</h2>
      <StateRules />
      {revisions.length === 0 ? <p>No revision yet. What you keep first becomes revision 1.</p> : null}
      <ol className="divide-y divide-hairline">
        {revisions.map((revision, index) => (
          <RevisionRow key={revision.revision} index={index} page={page} desk={desk} />
        ))}
      </ol>
      {others.length > 0 ? (
        <ul className="text-sm text-muted border-t border-hairline pt-2">
          {others.map((entry) => (
            <li key={entry.id}>
              {formatMoment(entry.at)} · {entry.author || 'unsigned'}: {say(entry.what)}
            </li>
          ))}
        </ul>
      ) : null}
    </section>
  );
}

function RevisionRow({ index, page, desk }: Props & { readonly index: number }) {
  const { revisions, evidence, machine, summary } = page;
  const revision = itemAt(revisions, index);
  const before = revisions[index + 1];
  const rests = evidence.find((one) => one.revision === revision.revision);
  const changes = before ? diffValues(before.values, revision.values) : [];
  return (
    <li className="py-2.5 grid gap-x-4 sm:grid-cols-[9rem_1fr_auto]">
      <p>
        <strong>Revision {revision.revision}</strong>
        <span className="block text-sm text-muted">
          {revision.author || 'unsigned'} · {formatMoment(revision.at)}
        </span>
      </p>
      <div>
        <p>
          {revision.reason || 'no reason given'}
          {revision.lot ? <span className="text-muted"> · lot {revision.lot}</span> : null}
        </p>
        <ul className="text-sm">
          {changes.map(({ field, before: from, after }) => (
            <li key={field}>
              {factsOfField(field).label}: <s>{describeValue(field, from, machine)}</s>{' '}
              <span aria-label="became">→</span> <strong>{describeValue(field, after, machine)}</strong>
            </li>
          ))}
          {before ? null : (
            <li className="text-muted">
              first kept: {describeValue('force', revision.values.force, machine)},{' '}
              {describeValue('speed', revision.values.speed, machine)}
            </li>
          )}
          {rests ? (
            <li className="text-muted">
              rests on {rests.summary.trialCount} trials: right {Math.round(rests.summary.right * 100)} times
              in 100, by fit {rests.knowledgeId ?? 0} of the book
            </li>
          ) : null}
        </ul>
      </div>
      {index > 0 && summary?.lockedBy === '' ? (
        <button
          type="button"
          className="button self-start"
          onClick={() =>
            void desk.act('restore', { revision: revision.revision, basedOn: desk.base.revision })
          }
        >
          Restore
        </button>
      ) : null}
    </li>
  );
}

function StateRules() {
  return (
    <details>
      <summary className="min-h-11 flex items-center cursor-pointer text-muted underline decoration-hairline">
        How a setting comes to its state
      </summary>
      <ul className="list-disc pl-5 text-sm mb-2">
        <li>
          <strong>predicted</strong>: never kept, or copied, read from a file or guessed, and not cut here yet
        </li>
        <li>
          <strong>tried</strong>: kept from a cut, or by hand
        </li>
        <li>
          <strong>proven</strong>: {CLEAN_RUNS_TO_PROVE} clean runs at this revision since the last failure
        </li>
        <li>
          <strong>doubted</strong>: the last run failed, another lot lies on the machine than it worked on, or
          another kind of blade is in it
        </li>
      </ul>
    </details>
  );
}
