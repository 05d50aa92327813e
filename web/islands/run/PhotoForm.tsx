import { base64Of } from '#web/islands/shared/base64Of.ts';
import { Camera, Images } from 'lucide-react';
import { useEffect, useState, type ChangeEvent } from 'react';
import { callApi } from '#web/islands/shared/callApi.ts';
import { Refusal } from '#web/islands/shared/Refusal.tsx';

interface Photo {
  readonly id: number;
  readonly widthPx: number;
  readonly heightPx: number;
}

/** Photos of a run; what a phone writes into them beside the picture is taken out by the server. */
export function PhotoForm({ runId }: { readonly runId: number }) {
  const [photos, setPhotos] = useState<readonly Photo[]>([]);
  const [isBusy, setBusy] = useState(false);
  const [error, setError] = useState<unknown>(null);
  const at = `/api/runs/${runId}/photos`;
  useEffect(() => {
    callApi<readonly Photo[]>(at).then(setPhotos, setError);
  }, [at]);
  const take = async (event: ChangeEvent<HTMLInputElement>) => {
    const file = event.target.files?.[0];
    event.target.value = '';
    if (!file) return;
    setBusy(true);
    setError(null);
    try {
      setPhotos(await callApi<readonly Photo[]>(at, 'POST', { image: await base64Of(file) }));
    } catch (refusal) {
      setError(refusal);
    } finally {
      setBusy(false);
    }
  };
  return (
    <div className="mt-3">
      <PhotoButtons isBusy={isBusy} take={(event) => void take(event)} />
      <Refusal error={error} />
      {photos.length > 0 ? (
        <ul className="flex flex-wrap gap-2 mt-2">
          {photos.map(({ id, widthPx, heightPx }, index) => (
            <li key={id}>
              <a href={`${at}/${id}`}>
                <img
                  src={`${at}/${id}`}
                  alt={`Photo ${index + 1} of this run`}
                  width={widthPx}
                  height={heightPx}
                  className="h-20 w-auto rounded border border-hairline"
                />
              </a>
            </li>
          ))}
        </ul>
      ) : null}
    </div>
  );
}

interface ButtonProps {
  readonly isBusy: boolean;
  readonly take: (event: ChangeEvent<HTMLInputElement>) => void;
}

/** A finger opens the camera at once; who has none chooses a file. */
function PhotoButtons({ isBusy, take }: ButtonProps) {
  return (
    <div className="flex flex-wrap gap-2">
      <label className="button grow cursor-pointer has-focus-visible:outline-3 hidden pointer-coarse:flex">
        <Camera size={18} aria-hidden /> Take a photo
        <input
          type="file"
          accept="image/*"
          capture="environment"
          className="sr-only"
          disabled={isBusy}
          onChange={take}
        />
      </label>
      <label className="button grow cursor-pointer has-focus-visible:outline-3">
        <Images size={18} aria-hidden /> {isBusy ? 'Keeping the photo …' : 'Add a photo'}
        <input type="file" accept="image/jpeg,image/png,image/webp" className="sr-only" onChange={take} />
      </label>
    </div>
  );
}
