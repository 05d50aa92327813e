import type { Role } from '#core/drawing/roles/lineRoles.ts';
import { type Operation, OPERATION_WORDS } from '#core/stack/operation.ts';

/** What a line can be for, and what the book keeps settings for. */
export type DrawnRole = Role | Operation;

/** Our line styles per role, as SVG paint. Kiss gets its circles apart, since a stroke cannot carry them. */
export const ROLE_STROKES: Readonly<
  Record<
    DrawnRole,
    { readonly stroke: string; readonly width: number; readonly fill: string; readonly dash?: string }
  >
> = {
  kiss: { stroke: 'var(--color-verdigris)', width: 1.4, fill: 'none' },
  through: { stroke: 'var(--color-ink)', width: 2.4, fill: 'none' },
  slit: { stroke: 'var(--color-ink)', width: 2.4, fill: 'none', dash: '10 4 2 4' },
  perforated: { stroke: 'var(--color-plum)', width: 2.2, fill: 'none', dash: '9 3' },
  score: { stroke: 'var(--color-slate)', width: 2, fill: 'none', dash: '0.1 4' },
  crease: { stroke: 'var(--color-ochre)', width: 1.3, fill: 'none' },
  art: { stroke: 'none', width: 0, fill: 'var(--color-art)' },
  ignore: { stroke: 'var(--color-edge)', width: 1, fill: 'none', dash: '1 5' },
};

export const ROLE_WORDS: Readonly<Record<DrawnRole, string>> = {
  ...OPERATION_WORDS,
  slit: 'Slit',
  art: 'Art',
  ignore: 'Ignore',
};

/** A short sample of a role's line. */
export function RoleSample({ role }: { readonly role: DrawnRole }) {
  const { stroke, width, dash } = ROLE_STROKES[role];
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
        (role === 'crease' ? [4, 8] : [6]).map((y) => (
          <line
            key={y}
            x1="1"
            y1={y}
            x2="31"
            y2={y}
            stroke={stroke}
            strokeWidth={width}
            strokeLinecap={role === 'score' ? 'round' : 'butt'}
            {...(dash ? { strokeDasharray: dash } : {})}
          />
        ))
      )}
      {role === 'kiss' &&
        [9, 23].map((x) => (
          <circle key={x} cx={x} cy="6" r="3" fill="white" stroke={stroke} strokeWidth="1.4" />
        ))}
    </svg>
  );
}
