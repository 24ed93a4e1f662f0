/** So many pixels a unit of length: what is printed stays sharp. */
const sharpness = 2;

/**
 * A picture of shapes as pixels (PNG).
 * @throws Error where the browser cannot draw it
 */
export async function pixelsOf(shapes: string, width: number, height: number): Promise<Uint8Array> {
  const image = new Image();
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(shapes)}`;
  await image.decode();
  const canvas = document.createElement('canvas');
  canvas.width = Math.round(width * sharpness);
  canvas.height = Math.round(height * sharpness);
  canvas.getContext('2d')?.drawImage(image, 0, 0, canvas.width, canvas.height);
  const blob = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, 'image/png'));
  if (blob === null) throw new Error('The browser draws no picture of this size.');
  return new Uint8Array(await blob.arrayBuffer());
}
