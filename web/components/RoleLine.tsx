import type { Role } from '#core/drawing/lineRoles.ts';

/** Our line styles per role, as SVG paint. Kiss gets its circles apart, since a stroke cannot carry them. */
export const ROLE_STROKES: Readonly<
  Record<Role, { readonly stroke: string; readonly width: number; readonly fill: string }>
> = {
  kiss: { stroke: 'var(--color-verdigris)', width: 1.4, fill: 'none' },
  through: { stroke: 'var(--color-ink)', width: 2.4, fill: 'none' },
  art: { stroke: 'none', width: 0, fill: 'var(--color-art)' },
};

export const ROLE_WORDS: Readonly<Record<Role, string>> = { kiss: 'Kiss', through: 'Through', art: 'Art' };

/** A short sample of a role's line. */
export function RoleSample({ role }: { readonly role: Role }) {
  const { stroke, width } = ROLE_STROKES[role];
  return (
    <svg width="32" height="12" viewBox="0 0 32 12" aria-hidden className="shrink-0">
      {role === 'art' ? (
        <rect
          x="2"
          y="2"
          width="28"
          height="8"
          rx="2"
          fill="var(--color-art)"
          stroke="var(--color-feather)"
        />
      ) : (
        <line x1="1" y1="6" x2="31" y2="6" stroke={stroke} strokeWidth={width} />
      )}
      {role === 'kiss' &&
        [9, 23].map((x) => (
          <circle key={x} cx={x} cy="6" r="3" fill="white" stroke={stroke} strokeWidth="1.4" />
        ))}
    </svg>
  );
}
