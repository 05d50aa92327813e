import { GRADE_WORDS, type DepthGrade } from '#core/stack/depthGrade.ts';
import { say } from '#web/islands/shared/units.ts';

interface Props {
  readonly grade: DepthGrade;
  readonly isLayered: boolean;
  readonly faceColour: string;
}

const SIZE = 60;
const SQUARE = 'M14 14H46V46H14Z';
const LINER = 'color-mix(in srgb, var(--color-straw) 30%, var(--color-sheet))';
const MAT = 'var(--color-muted)';

/** A test piece as eyes see it: from above, and once its inner square was lifted. */
export function PieceLook({ grade, isLayered, faceColour }: Props) {
  return (
    <div className="flex gap-2" role="img" aria-label={GRADE_WORDS[grade].look}>
      <Picture words="from above" faceColour={faceColour}>
        <CutLine grade={grade} />
      </Picture>
      <Picture words="weeded" faceColour={faceColour}>
        <Lifted grade={grade} isLayered={isLayered} faceColour={faceColour} />
      </Picture>
    </div>
  );
}

function Picture({
  words,
  faceColour,
  children,
}: {
  readonly words: string;
  readonly faceColour: string;
  readonly children: React.ReactNode;
}) {
  return (
    <figure className="text-center">
      <svg viewBox={`0 0 ${SIZE} ${SIZE}`} className="w-16 block border border-edge" aria-hidden>
        <rect width={SIZE} height={SIZE} fill={faceColour} />
        {children}
      </svg>
      <figcaption className="text-xs text-muted">{say(words)}</figcaption>
    </figure>
  );
}

/** What the blade leaves on the face. */
const LINES: Readonly<
  Record<DepthGrade, { readonly width: number; readonly dash?: string; readonly ink: number }>
> = {
  0: { width: 1, ink: 0.12 },
  1: { width: 0.8, ink: 0.45, dash: '9 1.5' },
  2: { width: 1, ink: 0.8, dash: '28 4' },
  3: { width: 1.1, ink: 0.9 },
  4: { width: 1.2, ink: 0.9 },
  5: { width: 1.6, ink: 1 },
  6: { width: 2, ink: 1 },
  7: { width: 2.6, ink: 1 },
  8: { width: 2.8, ink: 1 },
};

function CutLine({ grade }: { readonly grade: DepthGrade }) {
  const { width, dash, ink } = LINES[grade];
  return (
    <path
      d={SQUARE}
      fill="none"
      stroke="var(--color-ink)"
      strokeWidth={width}
      strokeDasharray={dash}
      strokeDashoffset={-2}
      opacity={ink}
    />
  );
}

/** What lies bare where the square was lifted, or the square that would not come. */
function Lifted({ grade, isLayered, faceColour }: Props) {
  if (grade < 2) return <CutLine grade={grade} />;
  const below = isLayered && grade < 7 ? LINER : MAT;
  return (
    <>
      <path d={SQUARE} fill={below} stroke="var(--color-ink)" strokeWidth="0.6" />
      {grade === 2 ? (
        <path d="M14 14H23L14 23ZM46 14V21L39 14ZM46 46H38L46 38ZM14 46V37L23 46Z" fill={faceColour} />
      ) : null}
      <Mark grade={grade} />
    </>
  );
}

/** How the layer below is marked. */
function Mark({ grade }: { readonly grade: DepthGrade }) {
  const inner = 'M15.5 15.5H44.5V44.5H15.5Z';
  if (grade === 4)
    return <path d={inner} fill="none" stroke="var(--color-ink)" strokeWidth="0.5" opacity="0.55" />;
  if (grade === 5)
    return <path d={inner} fill="none" stroke="var(--color-ink)" strokeWidth="1.6" opacity="0.75" />;
  if (grade === 6) {
    return <path d={inner} fill="none" stroke="var(--color-ink)" strokeWidth="2.2" strokeDasharray="9 3" />;
  }
  if (grade === 8) return <path d={inner} fill="none" stroke="var(--color-sheet)" strokeWidth="1.2" />;
  return null;
}
