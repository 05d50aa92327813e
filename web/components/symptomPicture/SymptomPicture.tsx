import type { ReactNode } from 'react';
import type { Symptom } from '#core/faults/symptoms.ts';

const INK = 'var(--color-ink)';
const EMBER = 'var(--color-ember)';
const FACE = 'var(--color-feather)';
const LINE = { stroke: INK, strokeWidth: 2 } as const;

/** A sheet from above with one square piece, under whatever went wrong. */
function Sheet({ children }: { readonly children: ReactNode }) {
  return (
    <>
      <rect x="2" y="2" width="68" height="44" rx="2" fill="var(--color-sheet)" stroke="var(--color-edge)" />
      {children}
    </>
  );
}

/** What each symptom looks like at arm's length; trouble is in the warm colour and in shape. */
const PICTURES: Readonly<Record<Symptom, ReactNode>> = {
  cornersHang: (
    <Sheet>
      <path d="M24 12H48L50 34H22Z" fill={FACE} fillOpacity="0.5" {...LINE} />
      <path d="M20 38l5-5M52 38l-5-5" stroke={EMBER} strokeWidth="4" />
    </Sheet>
  ),
  notThrough: (
    <Sheet>
      <rect x="22" y="12" width="28" height="24" fill="none" {...LINE} strokeDasharray="1.5 4" />
      <path d="M30 24h12" stroke={EMBER} strokeWidth="3" />
    </Sheet>
  ),
  linerCut: (
    <>
      <rect x="4" y="8" width="64" height="12" fill={FACE} fillOpacity="0.6" stroke={INK} />
      <rect x="4" y="20" width="64" height="16" fill="var(--color-sheet)" stroke={INK} />
      <path d="M32 8L36 40L40 8Z" fill="var(--color-ground)" stroke={EMBER} strokeWidth="2" />
    </>
  ),
  fuzzy: (
    <Sheet>
      <path d="M4 28H68" fill="none" {...LINE} />
      <path
        d="M8 28l2-8M14 28l-1-6M20 28l2-9M27 28l-2-6M33 28l2-8M40 28l-1-7M46 28l3-8M53 28l-2-6M60 28l2-9"
        stroke={EMBER}
        strokeWidth="1.8"
      />
    </Sheet>
  ),
  jagged: (
    <Sheet>
      <path
        d="M10 36L22 14L26 24L34 10L38 22L48 12L50 26L62 36"
        fill="none"
        stroke={EMBER}
        strokeWidth="2.4"
      />
    </Sheet>
  ),
  bunches: (
    <Sheet>
      <path d="M4 30H26q3-14 6 0t6 0t6 0H68" fill="none" {...LINE} />
      <path d="M38 30l6 12M44 30l8 9" stroke={EMBER} strokeWidth="2.4" />
    </Sheet>
  ),
  fellOut: (
    <Sheet>
      <rect x="20" y="10" width="24" height="22" fill="var(--color-ground)" {...LINE} strokeDasharray="6 3" />
      <rect
        x="38"
        y="20"
        width="24"
        height="22"
        fill={FACE}
        stroke={EMBER}
        strokeWidth="2"
        transform="rotate(18 50 31)"
      />
    </Sheet>
  ),
  wontPop: (
    <Sheet>
      <rect
        x="22"
        y="10"
        width="28"
        height="26"
        fill={FACE}
        fillOpacity="0.5"
        {...LINE}
        strokeDasharray="7 3"
      />
      <path d="M36 44V27M36 27l-5 6M36 27l5 6" stroke={EMBER} strokeWidth="2.6" fill="none" />
    </Sheet>
  ),
  sheetMoved: (
    <>
      <rect x="4" y="4" width="64" height="40" fill="none" stroke="var(--color-edge)" strokeDasharray="3 3" />
      <rect
        x="8"
        y="8"
        width="52"
        height="32"
        fill="var(--color-sheet)"
        stroke={INK}
        strokeWidth="2"
        transform="rotate(9 34 24)"
      />
      <path d="M54 12l10 6M64 18l-7 0M64 18l-2-6" stroke={EMBER} strokeWidth="2.4" fill="none" />
    </>
  ),
  whiteEdge: (
    <Sheet>
      <rect x="20" y="10" width="32" height="28" fill="var(--color-sheet)" {...LINE} />
      <rect x="26" y="10" width="26" height="28" fill={FACE} />
      <path d="M23 12v24" stroke={EMBER} strokeWidth="3" />
    </Sheet>
  ),
  marksNotRead: (
    <Sheet>
      <path d="M10 20V8H24M62 20V8H48" fill="none" stroke={INK} strokeWidth="3" />
      <path d="M30 20l12 14M42 20L30 34" stroke={EMBER} strokeWidth="3" />
    </Sheet>
  ),
  oneColour: (
    <Sheet>
      <rect x="8" y="12" width="16" height="24" fill="var(--color-sheet)" {...LINE} />
      <rect x="28" y="12" width="16" height="24" fill={FACE} {...LINE} />
      <rect x="48" y="12" width="16" height="24" fill={INK} stroke={EMBER} strokeWidth="3" />
    </Sheet>
  ),
  linerTears: (
    <>
      <path d="M4 40H68" stroke="var(--color-edge)" strokeWidth="4" />
      <path d="M6 38H40q14 0 20-22" fill="none" {...LINE} />
      <path d="M40 38l4-7l3 5l5-8l2 6" fill="none" stroke={EMBER} strokeWidth="2.2" />
    </>
  ),
};

/** A little picture of what is seen. */
export function SymptomPicture({ symptom }: { readonly symptom: Symptom }) {
  return (
    <svg viewBox="0 0 72 48" className="h-12 w-auto shrink-0" aria-hidden>
      {PICTURES[symptom]}
    </svg>
  );
}
