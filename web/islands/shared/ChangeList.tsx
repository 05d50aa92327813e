import { formatMoment } from '#web/islands/shared/formatTime.ts';
import type { AuditReply } from '#web/schemas/setting.ts';
import { say } from '#web/islands/shared/units.ts';

/** What was changed about a thing, by whom and when. */
export function ChangeList({ audit }: { readonly audit: readonly AuditReply[] }) {
  return (
    <>
      <h2 className="text-muted">Changes</h2>
      <ul className="text-sm">
        {audit.map((entry) => (
          <li key={entry.id} className="py-1">
            {say(entry.what)}
            <span className="block text-muted">
              {entry.author || 'unsigned'} · {formatMoment(entry.at)}
            </span>
          </li>
        ))}
      </ul>
      {audit.length === 0 ? <p>None yet.</p> : null}
    </>
  );
}
