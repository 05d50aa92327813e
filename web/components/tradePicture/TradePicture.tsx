import type { ReactNode } from 'react';
import type { TradeWordId } from '#core/words/tradeWords.ts';

const INK = 'var(--color-ink)';
const FACE = '#f3c9b4';
const LINER = '#fbfaf6';
const MAT = '#e3e7e6';
const EMBER = 'var(--color-ember)';
const GREEN = 'var(--color-verdigris)';
const LINE = { stroke: INK, strokeWidth: 1.2 } as const;

/** Face, liner and mat from the side; what happens to them is drawn over it. */
function Layers({
  children,
  isSingle = false,
}: {
  readonly children?: ReactNode;
  readonly isSingle?: boolean;
}) {
  return (
    <>
      <rect x="4" y="14" width="64" height="10" fill={FACE} {...LINE} />
      <rect x="4" y="24" width="64" height="11" fill={isSingle ? FACE : LINER} {...LINE} />
      <rect x="4" y="35" width="64" height="9" fill={MAT} stroke="var(--color-edge)" />
      {children}
    </>
  );
}

function Tip({ to }: { readonly to: number }) {
  return <path d={`M30 3H42L36 ${to}Z`} fill={INK} />;
}

/** A sheet from above. */
function Sheet({ children }: { readonly children: ReactNode }) {
  return (
    <>
      <rect x="4" y="4" width="64" height="40" fill={LINER} stroke="var(--color-edge)" />
      {children}
    </>
  );
}

const RING = <rect x="22" y="12" width="28" height="24" rx="5" fill={FACE} {...LINE} />;
const STRIP = (
  <>
    <rect x="4" y="18" width="20" height="12" fill="var(--color-straw-pale)" stroke="var(--color-straw)" />
    <rect x="24" y="18" width="24" height="12" fill="var(--color-verdigris-pale)" stroke={GREEN} />
    <rect x="48" y="18" width="20" height="12" fill="var(--color-ember-pale)" stroke={EMBER} />
  </>
);

/** What each word looks like, at the size of a thumb. */
const PICTURES: Readonly<Record<TradeWordId, ReactNode>> = {
  liner: (
    <Layers>
      <rect x="4" y="24" width="64" height="11" fill="none" stroke={GREEN} strokeWidth="3" />
    </Layers>
  ),
  face: (
    <Layers>
      <rect x="4" y="14" width="64" height="10" fill="none" stroke={GREEN} strokeWidth="3" />
    </Layers>
  ),
  laminate: (
    <Layers>
      <rect x="4" y="8" width="64" height="6" fill="#e9f1f4" stroke={GREEN} strokeWidth="2.5" />
    </Layers>
  ),
  caliper: (
    <Layers>
      <path d="M60 14V24M56 14H64M56 24H64" stroke={EMBER} strokeWidth="2.5" />
    </Layers>
  ),
  force: (
    <Layers>
      <Tip to={22} />
      <path d="M52 2V11M48 7l4 5l4-5" stroke={EMBER} strokeWidth="2.5" fill="none" />
    </Layers>
  ),
  gf: (
    <>
      <path d="M14 40H58L52 28H20Z" fill={MAT} {...LINE} />
      <path d="M30 4H42L36 26Z" fill={INK} />
      <text x="36" y="38" textAnchor="middle" fontSize="9" fill={INK}>
        106 g
      </text>
    </>
  ),
  level: (
    <>
      <circle cx="36" cy="24" r="17" fill={MAT} {...LINE} />
      <path d="M36 24L46 13" stroke={EMBER} strokeWidth="3" />
      <text x="22" y="38" fontSize="8" fill={INK}>
        1
      </text>
      <text x="46" y="38" fontSize="8" fill={INK}>
        33
      </text>
    </>
  ),
  exposure: (
    <>
      <rect x="24" y="3" width="24" height="24" fill={MAT} {...LINE} />
      <path d="M31 27H41L36 43Z" fill={INK} />
      <path d="M54 27V43M50 27H58M50 43H58" stroke={EMBER} strokeWidth="2.5" />
    </>
  ),
  offset: (
    <>
      <path d="M28 3V45" stroke={INK} strokeDasharray="3 3" />
      <path d="M28 8L46 8L46 40Z" fill={INK} />
      <path d="M28 44H46M28 40V47M46 40V47" stroke={EMBER} strokeWidth="2" />
    </>
  ),
  overcut: (
    <Sheet>
      <path d="M20 36V12H52V36H14" fill="none" {...LINE} strokeWidth="2" />
      <path d="M20 36H12" stroke={EMBER} strokeWidth="3.5" />
    </Sheet>
  ),
  pass: (
    <Sheet>
      <path d="M10 18H60M54 13l7 5l-7 5M10 32H60M54 27l7 5l-7 5" fill="none" {...LINE} strokeWidth="2" />
    </Sheet>
  ),
  kiss: (
    <Layers>
      <Tip to={24} />
    </Layers>
  ),
  through: (
    <Layers isSingle>
      <Tip to={35} />
    </Layers>
  ),
  perforated: (
    <Sheet>
      <rect
        x="20"
        y="11"
        width="32"
        height="26"
        fill={FACE}
        {...LINE}
        strokeWidth="2"
        strokeDasharray="9 3"
      />
    </Sheet>
  ),
  tab: (
    <Sheet>
      <path d="M6 24H30M42 24H66" {...LINE} strokeWidth="3" />
      <path d="M30 18V30M42 18V30" stroke={EMBER} strokeWidth="2" />
    </Sheet>
  ),
  score: (
    <Layers isSingle>
      <Tip to={27} />
    </Layers>
  ),
  crease: (
    <>
      <path d="M4 20H28Q36 36 44 20H68V32H44Q36 46 28 32H4Z" fill={FACE} {...LINE} />
      <circle cx="36" cy="14" r="9" fill={INK} />
    </>
  ),
  window: (
    <>
      {STRIP}
      <path d="M24 36H48M24 33V39M48 33V39" stroke={GREEN} strokeWidth="2.5" />
    </>
  ),
  times: (
    <>
      {Array.from({ length: 20 }, (_, index) => (
        <circle
          key={index}
          cx={12 + (index % 5) * 12}
          cy={8 + Math.floor(index / 5) * 11}
          r="4"
          fill={index === 19 ? 'none' : GREEN}
          stroke={index === 19 ? EMBER : GREEN}
          strokeWidth="1.5"
        />
      ))}
    </>
  ),
  predicted: (
    <circle
      cx="36"
      cy="24"
      r="15"
      fill="none"
      stroke="var(--color-edge)"
      strokeWidth="3"
      strokeDasharray="5 4"
    />
  ),
  tried: <circle cx="36" cy="24" r="15" fill="none" stroke="var(--color-straw)" strokeWidth="3" />,
  proven: (
    <>
      <circle cx="36" cy="24" r="15" fill="none" stroke={GREEN} strokeWidth="3" />
      <path d="M29 24l5 6l10-11" fill="none" stroke={GREEN} strokeWidth="3.5" />
    </>
  ),
  doubted: (
    <>
      <circle cx="36" cy="24" r="15" fill="none" stroke={EMBER} strokeWidth="3" />
      <path d="M36 15V26M36 31V33" stroke={EMBER} strokeWidth="3.5" />
    </>
  ),
  lot: (
    <>
      <rect x="14" y="8" width="44" height="32" fill={LINER} {...LINE} />
      <rect x="20" y="22" width="32" height="12" fill="none" stroke={EMBER} strokeWidth="2" />
      <text x="36" y="31" textAnchor="middle" fontSize="8" fill={INK}>
        26-B
      </text>
    </>
  ),
  tack: (
    <>
      <rect x="6" y="32" width="60" height="9" fill={MAT} {...LINE} />
      <path d="M8 30H40Q56 30 62 12" fill="none" stroke={INK} strokeWidth="3" />
      <path d="M46 28v3M52 24v7M57 18v13" stroke={GREEN} strokeWidth="1.5" />
    </>
  ),
  marks: (
    <Sheet>
      {RING}
      <circle cx="11" cy="10" r="3.5" fill={INK} />
      <circle cx="61" cy="10" r="3.5" fill={INK} />
      <circle cx="11" cy="38" r="3.5" fill={INK} />
    </Sheet>
  ),
  bleed: (
    <Sheet>
      <rect x="17" y="7" width="38" height="34" rx="8" fill={FACE} />
      <rect x="22" y="12" width="28" height="24" rx="5" fill="none" stroke={EMBER} strokeWidth="2" />
    </Sheet>
  ),
  carrier: (
    <Sheet>
      <rect x="12" y="8" width="48" height="32" rx="4" fill="none" {...LINE} strokeWidth="2" />
      <circle cx="36" cy="14" r="3" fill="none" {...LINE} />
      {[22, 36, 50].map((x) => (
        <circle key={x} cx={x} cy="28" r="6" fill={FACE} stroke={GREEN} />
      ))}
    </Sheet>
  ),
  weeding: (
    <Sheet>
      {RING}
      <path d="M68 44L46 44Q60 40 62 26Z" fill={LINER} {...LINE} />
    </Sheet>
  ),
  drift: (
    <>
      <path d="M6 42H68M6 42V6" {...LINE} />
      <path d="M8 32L20 30L32 31L44 24L56 16L66 8" fill="none" stroke={EMBER} strokeWidth="2.5" />
    </>
  ),
};

/** A picture of a word of the trade. */
export function TradePicture({ id }: { readonly id: TradeWordId }) {
  return (
    <svg viewBox="0 0 72 48" className="paper rounded w-18 h-12 shrink-0" aria-hidden>
      {PICTURES[id]}
    </svg>
  );
}
