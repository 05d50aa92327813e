import { say } from '#web/islands/shared/units.ts';

/** A blade's wear as a quill that shortens: whole when new, a stub at the end of its usual life. */
export function BladeQuill({ travel, life }: { readonly travel: number; readonly life: number }) {
  const left = Math.max(0, Math.min(1, 1 - travel / life));
  const tip = 14 + 92 * left;
  return (
    <span className="flex items-center gap-2">
      <svg
        height="14"
        viewBox="0 0 112 14"
        aria-hidden
        className="w-28 min-w-8 shrink"
        preserveAspectRatio="none"
      >
        <path d="M2 7H110" stroke="var(--color-hairline)" strokeWidth="2" strokeDasharray="2 3" />
        <path
          d={`M2 7C8 1 ${tip - 20 * left} 2 ${tip} 7C${tip - 20 * left} 12 8 13 2 7Z`}
          fill="var(--color-feather)"
          stroke="var(--color-ink)"
        />
        <path d={`M2 7H${tip}`} stroke="var(--color-ink)" />
      </svg>
      <span className="figure text-[13px] whitespace-nowrap">
        {say(`${travel.toFixed(0)} of ~${life} m`)}
      </span>
    </span>
  );
}
