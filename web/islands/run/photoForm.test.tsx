// @vitest-environment happy-dom
import { cleanup, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, describe, expect, it } from 'vitest';
import { PhotoForm } from '#web/islands/run/PhotoForm.tsx';
import { refusal, stubServer } from '#web/tests/stubServer.ts';

const photo = (id: number) => ({ id, widthPx: 640, heightPx: 480 });
const add = (bytes: Uint8Array<ArrayBuffer>) =>
  userEvent.upload(
    screen.getByLabelText(/Add a photo/),
    new File([bytes], 'gull.jpg', { type: 'image/jpeg' }),
  );
afterEach(cleanup);

describe('photos of a run', () => {
  it('are shown, and one more is sent whole, however large', async () => {
    // More than one stride of the encoder, with every value of a byte in it.
    const bytes = Uint8Array.from({ length: 70_001 }, (_, at) => at % 256);
    const seen = stubServer({
      'GET /api/runs/6/photos': [photo(1)],
      'POST /api/runs/6/photos': [photo(1), photo(2)],
    });
    render(<PhotoForm runId={6} />);
    expect((await screen.findByAltText('Photo 1 of this run')).getAttribute('src')).toBe(
      '/api/runs/6/photos/1',
    );
    await add(bytes);
    await screen.findByAltText('Photo 2 of this run');
    const { image } = seen.at(-1)!.body as { image: string };
    const back = Uint8Array.from(atob(image), (letter) => letter.charCodeAt(0));
    expect(back).toEqual(bytes);
  });

  it('say why one was not taken, keep the others, and take another try', async () => {
    let isRefused = true;
    stubServer({
      'GET /api/runs/6/photos': [photo(1)],
      'POST /api/runs/6/photos': () =>
        isRefused
          ? refusal(413, 'Too large', 'The photo has 31 MB; at most 20 are taken.')
          : [photo(1), photo(3)],
    });
    render(<PhotoForm runId={6} />);
    await screen.findByAltText('Photo 1 of this run');
    await add(new Uint8Array([1]));
    expect((await screen.findByRole('alert')).textContent).toMatch(/at most 20 are taken/);
    expect(screen.getByAltText('Photo 1 of this run')).toBeTruthy();
    isRefused = false;
    await add(new Uint8Array([1]));
    await screen.findByAltText('Photo 2 of this run');
    expect(screen.queryByRole('alert')).toBeNull();
  });
});
