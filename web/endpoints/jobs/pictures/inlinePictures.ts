import sharp from 'sharp';
import { kindOfPicture, replaceKeptPictures } from '#core/drawing/keptPicture.ts';
import type { Rings } from '#core/geometry/clip.ts';
import type { ExactPicture } from '#store/repositories/jobs/pictures.ts';

/** Pictures by the addresses that drawings name them by. */
export type Pictures = ReadonlyMap<string, Uint8Array>;
export type ExactPictures = ReadonlyMap<string, ExactPicture>;
/** What the pictures of a job's drawings show of themselves, by the numbers of the drawings, mm of each. */
export type ShownArt = ReadonlyMap<number, Rings>;

/** Pictures in the colours of a screen. */
export async function onScreen(exact: ExactPictures): Promise<Pictures> {
  const shown = await Promise.all(
    [...exact].map(async ([address, { data, profile }]): Promise<[string, Uint8Array]> => {
      if (!profile) return [address, data];
      const opened = sharp(data).toColourspace('srgb');
      return [
        address,
        await (address.endsWith('png') ? opened.png() : opened.jpeg({ quality: 95 })).toBuffer(),
      ];
    }),
  );
  return new Map(shown);
}

/** A file with pictures in place of their addresses. */
export function inlinePictures(source: string, pictures: Pictures): string {
  return replaceKeptPictures(source, (address) => {
    const bytes = pictures.get(address);
    return bytes ? dataAddressOf(bytes) : address;
  });
}

/** A picture as a data address. */
export function dataAddressOf(bytes: Uint8Array): string {
  return `data:image/${kindOfPicture(bytes)};base64,${Buffer.from(bytes.buffer, bytes.byteOffset, bytes.length).toString('base64')}`;
}
