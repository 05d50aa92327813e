import { useEffect, useState } from 'react';
import type { OwnBorder } from '#core/job/jobBorder.ts';
import { MakeOrPutAway } from '#web/islands/jobs/MakeOrPutAway.tsx';
import { nameOf, prepareArtwork } from '#web/islands/jobs/artwork/prepareArtwork.ts';
import { callApi } from '#web/islands/shared/callApi.ts';
import { Length } from '#web/islands/shared/Length.tsx';
import { NumberBox } from '#web/islands/shared/NumberBox.tsx';
import { Refusal } from '#web/islands/shared/Refusal.tsx';
import { TickBox } from '#web/islands/shared/TickBox.tsx';
import type { NewDrawing } from '#web/schemas/job.ts';

interface Props {
  readonly files: readonly File[];
  readonly machineId: number;
  readonly onCancel: () => void;
}

/** Longest side of a sticker, and its border. Common practice, no source (T21, T33). */
const USUAL = { longestMm: 50, borderMm: 1.6 } as const;

/** Several files become one job: a sheet of stickers. */
export function SeveralImport({ files, machineId, onCancel }: Props) {
  const [longestMm, setLongestMm] = useState<number>(USUAL.longestMm);
  const [hasBorder, setHasBorder] = useState(true);
  const [borderMm, setBorderMm] = useState<number>(USUAL.borderMm);
  const [copies, setCopies] = useState(1);
  const making = useMakeSheet(files, machineId);
  const make = () => {
    const border = hasBorder
      ? ({ byMm: borderMm, closesMm: 0, backing: 'outline', colour: null } as const)
      : null;
    void making.make({ longestMm, border, copies });
  };
  return (
    <section aria-label="Several drawings" className="sheet p-4 sm:px-6 sm:py-5">
      <h1>A sheet of {files.length} drawings</h1>
      <div className="grid gap-5 mt-3 lg:grid-cols-[minmax(0,1fr)_22.5rem]">
        <ul
          className="grid gap-3 grid-cols-[repeat(auto-fill,minmax(8.5rem,1fr))] content-start max-h-[32rem] overflow-y-auto"
          tabIndex={0}
          aria-label="What was dropped"
        >
          {files.map((file, index) => (
            <li key={`${file.name}/${index}`} className="border border-hairline rounded p-2 text-sm">
              <Thumbnail file={file} />
              <span className="block truncate" title={file.name}>
                {nameOf(file)}
              </span>
            </li>
          ))}
        </ul>
        <div className="grid gap-3 content-start">
          <Length
            label="Longest side of pictures"
            mm={longestMm}
            onChange={(mm) => mm > 0 && setLongestMm(mm)}
          />
          <NumberBox
            label="Copies of each (0 fills the sheet)"
            value={copies}
            onChange={(count) => setCopies(Math.max(0, Math.round(count)))}
          />
          <TickBox label="A border around each" isOn={hasBorder} onSet={setHasBorder} />
          {hasBorder ? <Length label="Border, wide" mm={borderMm} onChange={setBorderMm} /> : null}
          <p className="text-sm text-muted">
            Drawings keep the size of their file. Each can be changed by itself afterwards.
          </p>
          {making.words ? <p role="status">{making.words}</p> : null}
          <Refusal error={making.error} />
          <MakeOrPutAway isBusy={making.words !== null} isOff={false} onMake={make} onPutAway={onCancel} />
        </div>
      </div>
    </section>
  );
}

/** The file as the browser shows it; nothing for what it cannot show. */
function Thumbnail({ file }: { readonly file: File }) {
  const [address, setAddress] = useState<string | null>(null);
  useEffect(() => {
    const own = URL.createObjectURL(file);
    setAddress(own);
    return () => URL.revokeObjectURL(own);
  }, [file]);
  const isShown = file.type.startsWith('image/') && file.type !== 'image/tiff';
  return (
    <span className="grid place-items-center h-24 mb-1">
      {isShown && address ? (
        <img src={address} alt="" className="max-h-24 max-w-full" />
      ) : (
        <span className="text-muted">{file.name.split('.').at(-1)?.toUpperCase()}</span>
      )}
    </span>
  );
}

interface Wish {
  readonly longestMm: number;
  readonly border: OwnBorder | null;
  readonly copies: number;
}

function useMakeSheet(files: readonly File[], machineId: number) {
  const [words, setWords] = useState<string | null>(null);
  const [error, setError] = useState<unknown>(null);
  const make = async ({ longestMm, border, copies }: Wish) => {
    setError(null);
    try {
      const drawings = await readAll(files, longestMm, setWords);
      setWords('Laying them out …');
      const [first, ...moreDrawings] = drawings;
      const title = titleOf(drawings);
      const wish = { ...first, title, machineId, moreDrawings, copies, ...(border ? { border } : {}) };
      const { id } = await callApi<{ id: number }>('/api/jobs', 'POST', wish);
      location.assign(`/jobs/${id}`);
    } catch (refusal) {
      setError(refusal);
      setWords(null);
    }
  };
  return { words, error, make };
}

/** So many files are read at once: one is looked at while another is on its way. */
const AT_ONCE = 3;

async function readAll(
  files: readonly File[],
  longestMm: number,
  tell: (words: string) => void,
): Promise<readonly NewDrawing[]> {
  const drawings = new Map<number, NewDrawing>();
  const waiting = files.entries();
  const takeFromIt = async () => {
    for (const [index, file] of waiting) {
      tell(`Reading ${index + 1} of ${files.length}: ${file.name}`);
      drawings.set(index, await prepareArtwork(file, longestMm));
    }
  };
  await Promise.all(Array.from({ length: AT_ONCE }, takeFromIt));
  return [...drawings].sort(([one], [other]) => one - other).map(([, drawing]) => drawing);
}

/** "puffin, star and 2 more". */
function titleOf(drawings: readonly NewDrawing[]): string {
  const names = drawings.map(({ name }) => name);
  const words = names.length > 3 ? [...names.slice(0, 2), `${names.length - 2} more`] : names;
  return `${words.slice(0, -1).join(', ')} and ${words.at(-1) ?? ''}`.slice(0, 120);
}
