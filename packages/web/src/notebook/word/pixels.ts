/** So many pixels a unit of length: what is printed stays sharp. */
const sharpness = 2;

/**
 * A picture of shapes as pixels (PNG).
 * @param ratio so many pixels a unit of length
 * @throws Error where the browser cannot draw it
 */
export async function pixelsOf(
  shapes: string,
  width: number,
  height: number,
  ratio = sharpness,
): Promise<Uint8Array> {
  return laid([await shapesImage(shapes)], width * ratio, height * ratio, 'image/png');
}

/**
 * A photograph with shapes over it, as one JPEG.
 * @throws Error where the browser cannot draw it
 */
export async function photographUnder(
  jpeg: Uint8Array,
  shapes: string,
  { width, height }: { width: number; height: number },
): Promise<Uint8Array> {
  const photograph = await createImageBitmap(new Blob([new Uint8Array(jpeg)], { type: 'image/jpeg' }));
  return laid([photograph, await shapesImage(shapes)], width, height, 'image/jpeg');
}

async function shapesImage(shapes: string): Promise<HTMLImageElement> {
  const image = new Image();
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(shapes)}`;
  await image.decode();
  return image;
}

/** Pictures over each other, in one file. */
async function laid(
  pictures: readonly CanvasImageSource[],
  width: number,
  height: number,
  type: 'image/png' | 'image/jpeg',
): Promise<Uint8Array> {
  const canvas = document.createElement('canvas');
  canvas.width = Math.round(width);
  canvas.height = Math.round(height);
  const context = canvas.getContext('2d');
  for (const picture of pictures) context?.drawImage(picture, 0, 0, canvas.width, canvas.height);
  const blob = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, type, 0.9));
  if (blob === null) throw new Error('The browser draws no picture of this size.');
  return new Uint8Array(await blob.arrayBuffer());
}
