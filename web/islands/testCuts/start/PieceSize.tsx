import { QuantityInput, unitOf } from '#web/islands/shared/QuantityInput.tsx';
import { countTabs } from '#core/perforation/tabModel.ts';
import type { JudgedReply } from '#web/schemas/judgedPieces.ts';

type Given = JudgedReply['proposal'];

export const USUAL_SIZE = { widthMm: 50, heightMm: 50 };
type PieceSizeMm = typeof USUAL_SIZE;

/** A piece as its file is asked for, and as it is told with its judgement: few tabs hold less than many. */
export function describePiece(
  given: Given,
  size: PieceSizeMm,
): { readonly asked: Readonly<Record<string, number>>; readonly made: Given } {
  if (!('tabLengthMm' in given)) return { asked: { force: given.force, passes: given.passes }, made: given };
  const { tabLengthMm, cutLengthMm } = given;
  const { widthMm, heightMm } = size;
  const tabs = countTabs(2 * (widthMm + heightMm), tabLengthMm, cutLengthMm);
  return {
    asked: { tabLengthMm, cutLengthMm, widthMm, heightMm },
    made: { tabLengthMm, cutLengthMm, tabs, areaMm2: widthMm * heightMm },
  };
}

interface SizeProps {
  readonly quantity: JudgedReply['quantity'];
  readonly size: PieceSizeMm;
  readonly onChange: (size: PieceSizeMm) => void;
  readonly children: React.ReactNode;
}

/** One real piece, as large as the pieces of the job. */
export function PieceSize({ quantity, size, onChange, children }: SizeProps) {
  return (
    <div className="flex flex-wrap items-center gap-x-4 gap-y-1 mt-2">
      {quantity === 'tabs' ? (
        <span className="flex items-center gap-2">
          a piece of
          {(['widthMm', 'heightMm'] as const).map((side) => (
            <QuantityInput
              key={side}
              kind="length"
              className="field figure w-20"
              aria-label={`${side === 'widthMm' ? 'Width' : 'Height'} of the piece, ${unitOf('length')}`}
              kept={size[side]}
              onKept={(mm) => onChange({ ...size, [side]: mm })}
            />
          ))}
          {unitOf('length')}
        </span>
      ) : (
        <span>one crease</span>
      )}
      {children}
    </div>
  );
}

interface FilesProps {
  readonly machineId: number;
  readonly quantity: JudgedReply['quantity'];
  readonly asked: Readonly<Record<string, number>>;
}

/** For a machine that is not reached from here. */
export function PieceFiles({ machineId, quantity, asked }: FilesProps) {
  const query = new URLSearchParams(Object.entries(asked).map(([name, value]) => [name, String(value)]));
  const path = `/api/stations/${machineId}/judged/${quantity}/piece?${query.toString()}`;
  return (
    <>
      <a href={`${path}&format=machine`} download>
        machine file
      </a>
      <a href={`${path}&format=svg`}>drawing</a>
    </>
  );
}
