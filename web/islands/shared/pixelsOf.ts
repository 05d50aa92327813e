/** The pixels of a picture or a frame of a film, drawn at a size. @throws Error where the browser draws none */
export function pixelsOf(picture: CanvasImageSource, width: number, height: number): ImageData {
  const canvas = document.createElement('canvas');
  [canvas.width, canvas.height] = [width, height];
  const drawn = canvas.getContext('2d', { willReadFrequently: true });
  if (!drawn) throw new Error('this browser cannot read the pixels of a picture');
  drawn.drawImage(picture, 0, 0, width, height);
  return drawn.getImageData(0, 0, width, height);
}
