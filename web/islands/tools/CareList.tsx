import { formatMoment } from '#web/islands/shared/formatTime.ts';
import { say } from '#web/islands/shared/units.ts';

/** One thing that was done to a tool. */
export interface CareLine {
  readonly what: string;
  readonly author: string;
  readonly at: string;
}

/** What was done to a blade or a mat, folded away. Nothing when nothing was. */
export function CareList({ lines }: { readonly lines: readonly CareLine[] }) {
  if (lines.length === 0) return null;
  return (
    <details className="basis-full sm:basis-auto">
      <summary className="min-h-11 flex items-center px-2 cursor-pointer text-muted">
        {lines.length} {lines.length === 1 ? 'entry' : 'entries'}
      </summary>
      <ul className="text-sm">
        {lines.map((line) => (
          <li key={`${line.at}${line.what}`}>
            {formatMoment(line.at)} · {say(line.what)} <span className="text-muted">{line.author}</span>
          </li>
        ))}
      </ul>
    </details>
  );
}
