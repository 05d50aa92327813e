import { useQuery } from '@tanstack/react-query';
import type { DialInScrap } from '#core/dialIn/dialIn.ts';
import { PIECE_WORDS, TEST_PIECES, type SpotShape, type TestPieceKind } from '#core/dialIn/testPiece.ts';
import { callApi } from '#web/islands/shared/callApi.ts';
import type { Dial } from '#web/islands/testCuts/useDialIn.ts';
import { say } from '#web/islands/shared/units.ts';

/** What is cut, where it lies on the scrap, and the files for it. */
export function TestPiecePanel({ dial }: { readonly dial: Dial }) {
  const { dialIn } = dial;
  const { data: jobs = [] } = useQuery({
    queryKey: ['jobs'],
    queryFn: () => callApi<readonly JobName[]>('/api/jobs'),
  });
  if (!dialIn) return null;
  const { scrap } = dialIn;
  const file = `/api/dial-ins/${dialIn.id}/piece`;
  return (
    <section aria-label="Test piece" className="sheet p-4 sm:p-5">
      <h2 className="text-muted">Test piece</h2>
      <PieceChoice dial={dial} scrap={scrap} jobs={jobs} />
      <ScrapDrawing scrap={scrap} />
      <SheetChoice dial={dial} jobs={jobs} />
      <p className="text-sm text-muted">
        {say(`Scrap of ${scrap.widthMm} × ${scrap.heightMm} mm`)}; {wordTaken(scrap.taken.length)}.
      </p>
      <div className="flex flex-wrap gap-x-3 gap-y-1 text-sm mt-1">
        <a href={`${file}?format=machine`} download>
          machine file
        </a>
        <a href={`${file}?format=svg`}>drawing</a>
        <a href={`${file}?format=guide`}>print guide</a>
        <a href={`${file}?format=machine&vary=speed`} download>
          speeds
        </a>
        <a href={`${file}?format=machine&vary=passes`} download>
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

interface JobName {
  readonly id: number;
  readonly name: string;
}

interface ChoiceProps {
  readonly dial: Dial;
  readonly scrap: DialInScrap;
  readonly jobs: readonly JobName[];
}

/** A plain piece, or the finest spot of a job: what tears first there. */
function PieceChoice({ dial, scrap, jobs }: ChoiceProps) {
  return (
    <>
      <label className="block text-sm text-muted mt-1" htmlFor="test-piece">
        shape
      </label>
      <select
        id="test-piece"
        className="field"
        value={scrap.piece}
        disabled={dial.isBusy}
        onChange={({ target: { value } }) =>
          dial.change(
            value.startsWith('job')
              ? { spotJobId: Number(value.slice(3)) }
              : { scrap: { piece: value as TestPieceKind } },
          )
        }
      >
        {TEST_PIECES.filter((kind) => kind !== 'spot').map((kind) => (
          <option key={kind} value={kind}>
            {PIECE_WORDS[kind].name}
          </option>
        ))}
        {scrap.spot ? <option value="spot">finest spot of {scrap.spot.name}</option> : null}
        {jobs.length === 0 ? null : (
          <optgroup label="The finest spot of a job">
            {jobs.map(({ id, name }) => (
              <option key={id} value={`job${id}`}>
                {name}
              </option>
            ))}
          </optgroup>
        )}
      </select>
      <p className="text-sm mt-1">It shows {PIECE_WORDS[scrap.piece].shows}.</p>
      {scrap.piece === 'spot' && scrap.spot ? <SpotDrawing spot={scrap.spot} /> : null}
    </>
  );
}

/** The lines of a spot, as large as they are cut where the screen tells true. */
function SpotDrawing({ spot: { name, widthMm, heightMm, lines } }: { readonly spot: SpotShape }) {
  return (
    <svg
      viewBox={`-0.5 -0.5 ${widthMm + 1} ${heightMm + 1}`}
      className="h-28 mt-2"
      role="img"
      aria-label={say(`The finest spot of ${name}, ${widthMm.toFixed(0)} × ${heightMm.toFixed(0)} mm`)}
    >
      {lines.map((points, index) => (
        <polyline
          key={index}
          points={points.map(({ x, y }) => `${x.toFixed(2)},${y.toFixed(2)}`).join(' ')}
          fill="none"
          stroke="var(--color-verdigris)"
          vectorEffect="non-scaling-stroke"
        />
      ))}
    </svg>
  );
}

function wordTaken(count: number): string {
  if (count === 0) return 'nothing is taken yet';
  return count === 1 ? 'one place is taken' : `${count} places are taken`;
}

/** Where it is cut: on a scrap, or in the free corner of the sheet of a job, clear of its lines and marks. */
function SheetChoice({ dial, jobs }: Omit<ChoiceProps, 'scrap'>) {
  if (jobs.length === 0) return null;
  return (
    <label className="block text-sm text-muted mt-1">
      cut it on
      <select
        className="field"
        value=""
        disabled={dial.isBusy}
        onChange={(event) => {
          const jobId = Number(event.target.value);
          dial.change(jobId > 0 ? { jobId } : { scrap: { widthMm: 150, heightMm: 100 }, isScrapNew: true });
        }}
      >
        <option value="" disabled>
          this sheet; choose another
        </option>
        <option value="-1">{say('a fresh scrap, 150 × 100 mm')}</option>
        {jobs.map(({ id, name }) => (
          <option key={id} value={id}>
            the free corner of {name}
          </option>
        ))}
      </select>
    </label>
  );
}

function ScrapDrawing({ scrap }: { readonly scrap: DialInScrap }) {
  const { widthMm, heightMm, taken } = scrap;
  return (
    <svg
      viewBox={`-1 -1 ${widthMm + 2} ${heightMm + 2}`}
      className="w-full max-h-32 mt-2"
      role="img"
      aria-label={`Sheet with ${taken.length} places taken`}
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
