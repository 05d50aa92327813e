/** Says what the fills and marks of the strip mean. */
export function StripLegend() {
  return (
    <ul className="flex flex-wrap gap-x-5 gap-y-1 text-sm text-muted" aria-label="What the strip shows">
      <li className="flex items-center gap-2">
        <svg width="34" height="14" aria-hidden>
          <rect width="20" height="14" fill="var(--color-straw-pale)" stroke="var(--color-straw)" />
          <path d="M0 14 14 0M6 14 20 0" stroke="var(--color-straw)" strokeWidth="1.5" />
          <circle cx="28" cy="7" r="4" fill="none" stroke="var(--color-straw)" strokeWidth="2" />
        </svg>
        under
      </li>
      <li className="flex items-center gap-2">
        <svg width="36" height="14" aria-hidden>
          <rect width="20" height="14" fill="var(--color-verdigris)" />
          <circle cx="29" cy="7" r="5" fill="var(--color-verdigris)" />
        </svg>
        right
      </li>
      <li className="flex items-center gap-2">
        <svg width="34" height="14" aria-hidden>
          <rect width="20" height="14" fill="var(--color-ember-pale)" stroke="var(--color-ember)" />
          <path d="M0 14 14 0M6 14 20 0M0 0 14 14M6 0 20 14" stroke="var(--color-ember)" />
          <path d="M25 3l8 8M25 11l8-8" stroke="var(--color-ember)" strokeWidth="2.2" />
        </svg>
        over
      </li>
      <li>soft edges: what is not known yet</li>
    </ul>
  );
}
