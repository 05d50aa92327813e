import { Users } from 'lucide-react';
import type { Together } from '#web/islands/together/useTopic.ts';

/** Who else looks at what a page shows, and who changed it last. Nothing while one is alone. */
export function HereToo({ names, changedBy }: Pick<Together, 'names' | 'changedBy'>) {
  return (
    <p role="status" className="text-sm text-muted inline-flex items-center gap-1.5 empty:hidden">
      {names.length > 0 ? (
        <>
          <Users size={16} aria-hidden />
          {listNames(names)} {names.length === 1 ? 'is' : 'are'} here too
          {changedBy === null ? '' : `; ${changedBy} changed it last`}
        </>
      ) : changedBy === null ? null : (
        `${changedBy} changed it last`
      )}
    </p>
  );
}

function listNames(names: readonly string[]): string {
  if (names.length < 3) return names.join(' and ');
  return `${names.slice(0, 2).join(', ')} and ${names.length - 2} more`;
}
