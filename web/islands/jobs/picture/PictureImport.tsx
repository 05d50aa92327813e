import { useState, type MouseEvent } from 'react';
import { nameOf } from '#web/islands/jobs/artwork/prepareArtwork.ts';
import { drawPicture } from '#web/islands/jobs/picture/pictureFile.ts';
import { writePathData } from '#core/drawing/writePathData.ts';
import { MakeOrPutAway } from '#web/islands/jobs/MakeOrPutAway.tsx';
import { callApi } from '#web/islands/shared/callApi.ts';
import { Refusal } from '#web/islands/shared/Refusal.tsx';
import { PictureOptions } from '#web/islands/jobs/picture/PictureOptions.tsx';
import { PictureSize } from '#web/islands/jobs/picture/PictureSize.tsx';
import { usePicture, type PictureState } from '#web/islands/jobs/picture/usePicture.ts';
import { sayLength } from '#web/islands/shared/units.ts';

interface Props {
  readonly file: File;
  readonly machineId: number;
  /** What the machine takes, mm. */
  readonly room: { readonly widthMm: number; readonly heightMm: number };
  readonly onCancel: () => void;
}

/** A picture becomes a job: what of it is the piece, how large it is, and the line that is cut around it. */
export function PictureImport({ file, machineId, room, onCancel }: Props) {
  const picture = usePicture(file);
  const { opened, traced, error } = picture;
  const making = useMakeJob(file.name, machineId, picture);
  const isEmpty = traced !== null && traced.contours.length === 0;
  return (
    <section aria-label="Picture" className="sheet p-4 sm:px-6 sm:py-5">
      <h1>Cut around a picture</h1>
      <p className="text-muted">{file.name}</p>
      <Refusal error={error ?? making.error} />
      {opened ? (
        <div className="grid gap-5 mt-3 lg:grid-cols-[minmax(0,1fr)_22.5rem]">
          <Preview picture={picture} />
          <div className="grid gap-4 content-start">
            <PictureOptions picture={picture} />
            <PictureSize picture={picture} room={room} />
            {isEmpty ? (
              <p className="note" data-tone="careful">
                Nothing differs from the ground: tap the ground in the picture, or move the slider to the
                left.
              </p>
            ) : null}
            <MakeOrPutAway
              isBusy={making.isBusy}
              isOff={traced === null || isEmpty}
              onMake={making.make}
              onPutAway={onCancel}
            />
          </div>
        </div>
      ) : error === null ? (
        <div className="mt-3 flex flex-wrap items-center gap-3">
          <p role="status">Opening the picture …</p>
          <button type="button" className="button" onClick={onCancel}>
            Stop
          </button>
        </div>
      ) : (
        <button type="button" className="button mt-3" onClick={onCancel}>
          Choose another file
        </button>
      )}
    </section>
  );
}

function useMakeJob(fileName: string, machineId: number, { opened, traced, widthMm }: PictureState) {
  const [isBusy, setBusy] = useState(false);
  const [error, setError] = useState<unknown>(null);
  const make = () => {
    if (!opened || !traced) return;
    setBusy(true);
    setError(null);
    const source = drawPicture(opened, widthMm, traced.contours);
    const name = nameOf({ name: fileName }, 'picture');
    callApi<{ id: number }>('/api/jobs', 'POST', { name, format: 'svg', source, machineId }).then(
      ({ id }) => location.assign(`/jobs/${id}`),
      (refusal: unknown) => {
        setError(refusal);
        setBusy(false);
      },
    );
  };
  return { isBusy, error, make };
}

/** What shows through where a picture is clear. */
const CHECKS =
  'conic-gradient(var(--color-hairline) 25%, var(--color-sheet) 0 50%, var(--color-hairline) 0 75%, var(--color-sheet) 0) 0 0 / 16px 16px';

/** The picture with its outline over it; a tap on the ground tells its colour. */
function Preview({ picture }: { readonly picture: PictureState }) {
  const { opened, traced, trace, widthMm, setTrace, colourAt } = picture;
  if (!opened) return null;
  const heightMm = (widthMm * opened.heightPx) / opened.widthPx;
  const pick = (event: MouseEvent<SVGSVGElement>) => {
    if (trace.by !== 'ground') return;
    const box = event.currentTarget.getBoundingClientRect();
    const ground = colourAt((event.clientX - box.left) / box.width, (event.clientY - box.top) / box.height);
    if (ground) setTrace({ ground });
  };
  return (
    <figure>
      <svg
        viewBox={`0 0 ${widthMm} ${heightMm}`}
        className={`paper w-full max-h-[32rem] border border-edge ${trace.by === 'ground' ? 'cursor-crosshair' : ''}`}
        style={{ aspectRatio: `${widthMm} / ${heightMm}`, background: CHECKS }}
        role="img"
        aria-label={`The picture with ${traced?.contours.length ?? 0} outlines`}
        onClick={pick}
      >
        <image href={opened.image} width={widthMm} height={heightMm} preserveAspectRatio="none" />
        {traced ? <Outlines data={traced.contours.map(writePathData).join('')} /> : null}
      </svg>
      <figcaption className="text-sm text-muted mt-1" role="status">
        {traced ? wordTraced(traced) : 'Looking for the outline …'}
      </figcaption>
    </figure>
  );
}

/** Lines that are seen on any colour: dark on light. */
function Outlines({ data }: { readonly data: string }) {
  const line = { d: data, fill: 'none', vectorEffect: 'non-scaling-stroke' } as const;
  return (
    <>
      <path {...line} stroke="var(--color-sheet)" strokeWidth="5" />
      <path {...line} stroke="var(--color-ember)" strokeWidth="2" />
    </>
  );
}

function wordTraced({ contours, nodes, deviationMm }: NonNullable<PictureState['traced']>): string {
  if (contours.length === 0) return 'No outline.';
  const lines = contours.length === 1 ? 'One outline' : `${contours.length} outlines`;
  return `${lines} of ${nodes} points, at most ${sayLength(Math.max(0.01, deviationMm), 2)} off the picture’s edge.`;
}
