/** How what was reached is drawn: by weight and dash as well as colour. */
export const OUTCOME_LOOKS = {
  under: { stroke: 'var(--color-straw)', width: 2.4, dash: '5 4', words: 'not deep enough' },
  right: { stroke: 'var(--color-verdigris)', width: 2.2, dash: undefined, words: 'as wanted' },
  over: { stroke: 'var(--color-ember)', width: 3.6, dash: '1.5 3', words: 'too deep' },
} as const;

/** Cut, as the machine says; nobody has looked how deep. */
export const UNSEEN_LOOK = {
  stroke: 'var(--color-ink)',
  width: 1.6,
  words: 'cut, nobody has looked yet',
} as const;

export function OutcomeLegend({ hasUnseen }: { readonly hasUnseen: boolean }) {
  return (
    <ul className="flex flex-wrap gap-5 text-sm text-muted mt-2" aria-label="What the lines show">
      {Object.values(OUTCOME_LOOKS).map(({ stroke, width, dash, words }) => (
        <li key={words} className="flex items-center gap-2">
          <svg width="34" height="8" aria-hidden>
            <line x1="1" x2="33" y1="4" y2="4" stroke={stroke} strokeWidth={width} strokeDasharray={dash} />
          </svg>
          {words}
        </li>
      ))}
      {hasUnseen ? (
        <li className="flex items-center gap-2">
          <svg width="34" height="8" aria-hidden>
            <line x1="1" x2="33" y1="4" y2="4" stroke={UNSEEN_LOOK.stroke} strokeWidth={UNSEEN_LOOK.width} />
          </svg>
          {UNSEEN_LOOK.words}
        </li>
      ) : null}
      <li className="flex items-center gap-2">
        <svg width="34" height="8" aria-hidden>
          <line x1="1" x2="33" y1="4" y2="4" stroke="var(--color-edge)" strokeWidth="1.5" />
        </svg>
        still to cut
      </li>
    </ul>
  );
}
