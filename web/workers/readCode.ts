import { expose } from 'comlink';
import jsQR from 'jsqr';

/** Seeks a QR code among pixels, in a thread of its own. @returns what it says, or `null` where there is none */
export type SeekCode = (pixels: Pick<ImageData, 'width' | 'height' | 'data'>) => string | null;

const seekCode: SeekCode = ({ width, height, data }) =>
  jsQR(Uint8ClampedArray.from(data), width, height, { inversionAttempts: 'dontInvert' })?.data || null;

expose(seekCode);
