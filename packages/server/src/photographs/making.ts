import sharp from 'sharp';

/** A photograph of more pixels than this is not opened. */
const mostPixels = 120_000_000;

/** What a process that makes a photograph says, in one line. */
export type Made = { width: number; height: number } | { refused: string };

/**
 * Makes a picture upright, no larger than wanted, with no word in it of where, when and by whom it was taken.
 * @param from the file as it came @param to where the JPEG goes @param side the longer side, in pixels
 */
export async function makePhotograph(from: string, to: string, side: number): Promise<Made> {
  sharp.cache(false);
  sharp.concurrency(1);
  try {
    const { width, height } = await sharp(from, {
      limitInputPixels: mostPixels,
      sequentialRead: true,
      failOn: 'error',
    })
      .rotate()
      .resize(side, side, { fit: 'inside', withoutEnlargement: true })
      .flatten({ background: '#ffffff' })
      .toColourspace('srgb')
      .jpeg({ quality: 84 })
      .toFile(to);
    return { width, height };
  } catch (error) {
    const isTooLarge = error instanceof Error && /pixel limit/i.test(error.message);
    return {
      refused: isTooLarge
        ? `This photograph has more than ${mostPixels / 1e6} million pixels. Make it smaller first.`
        : 'This photograph is damaged: it cannot be read to its end. Take it from the camera once more.',
    };
  }
}
