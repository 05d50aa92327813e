import { PIECE_WORDS, TEST_PIECES, type TestPieceKind } from '#core/dialIn/testPiece.ts';
import type { Dial } from '#web/islands/testCuts/useDialIn.ts';

/** What is cut, where it lies on the scrap, and the files for it. */
export function TestPiecePanel({ dial }: { readonly dial: Dial }) {
  const { dialIn } = dial;
  if (!dialIn) return null;
  const { scrap } = dialIn;
  const file = `/api/dial-ins/${dialIn.id}/piece`;
  return (
    <section aria-label="Test piece" className="sheet p-4 sm:p-5">
      <h2 className="text-muted">Test piece</h2>
      <label className="block text-sm text-muted mt-1" htmlFor="test-piece">
        shape
      </label>
      <select
        id="test-piece"
        className="field"
        value={scrap.piece}
        disabled={dial.isBusy}
        onChange={(event) => dial.change({ scrap: { piece: event.target.value as TestPieceKind } })}
      >
        {TEST_PIECES.map((kind) => (
          <option key={kind} value={kind}>
            {PIECE_WORDS[kind].name}
          </option>
        ))}
      </select>
      <p className="text-sm mt-1">It shows {PIECE_WORDS[scrap.piece].shows}.</p>
      <ScrapDrawing scrap={scrap} />
      <p className="text-sm text-muted">
        Scrap of {scrap.widthMm} × {scrap.heightMm} mm;{' '}
        {scrap.taken.length === 0 ? 'nothing is taken yet' : `${scrap.taken.length} cards on it`}.
      </p>
      <div className="flex flex-wrap gap-x-3 gap-y-1 text-sm mt-1">
        <a href={`${file}?format=hpgl`} download>
          machine file
        </a>
        <a href={`${file}?format=svg`}>drawing</a>
        <a href={`${file}?format=guide`}>print guide</a>
        <a href={`${file}?format=hpgl&vary=speed`} download>
          speeds
        </a>
        <a href={`${file}?format=hpgl&vary=passes`} download>
          passes
        </a>
        <button
          type="button"
          className="underline cursor-pointer"
          disabled={dial.isBusy}
          onClick={() => dial.change({ isScrapNew: true })}
        >
          take a fresh scrap
        </button>
      </div>
    </section>
  );
}

function ScrapDrawing({ scrap }: { readonly scrap: NonNullable<Dial['dialIn']>['scrap'] }) {
  const { widthMm, heightMm, taken } = scrap;
  return (
    <svg
      viewBox={`-1 -1 ${widthMm + 2} ${heightMm + 2}`}
      className="w-full max-h-32 mt-2"
      role="img"
      aria-label={`Scrap with ${taken.length} cards on it`}
    >
      <rect
        width={widthMm}
        height={heightMm}
        fill="var(--color-ground)"
        stroke="var(--color-edge)"
        vectorEffect="non-scaling-stroke"
      />
      {taken.map(({ minX, minY, maxX, maxY }) => (
        <rect
          key={`${minX}/${minY}`}
          x={minX}
          y={minY}
          width={maxX - minX}
          height={maxY - minY}
          fill="var(--color-hairline)"
          stroke="var(--color-muted)"
          vectorEffect="non-scaling-stroke"
        />
      ))}
    </svg>
  );
}
