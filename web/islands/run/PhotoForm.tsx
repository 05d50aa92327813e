import { base64Of } from '#web/islands/shared/base64Of.ts';
import { Camera, Images } from 'lucide-react';
import { useEffect, useState } from 'react';
import { callApi } from '#web/islands/shared/callApi.ts';
import { FileButton } from '#web/islands/shared/FileButton.tsx';
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
  const take = async (file: File) => {
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
      <PhotoButtons isBusy={isBusy} take={(file) => void take(file)} />
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
  readonly take: (file: File) => void;
}

/** A finger opens the camera at once; who has none chooses a file. */
function PhotoButtons({ isBusy, take }: ButtonProps) {
  return (
    <div className="flex flex-wrap gap-2">
      <FileButton
        className="grow hidden pointer-coarse:flex"
        accept="image/*"
        hasCamera
        isDisabled={isBusy}
        onFile={take}
      >
        <Camera size={18} aria-hidden /> Take a photo
      </FileButton>
      <FileButton className="grow" accept="image/jpeg,image/png,image/webp" onFile={take}>
        <Images size={18} aria-hidden /> {isBusy ? 'Keeping the photo …' : 'Add a photo'}
      </FileButton>
    </div>
  );
}
