/** What the first bytes of a file say that it is. */
export type PictureForm = 'jpeg' | 'png' | 'webp' | 'heic' | 'markup' | 'gif' | 'unknown';

const letters = (bytes: Uint8Array, from: number, to: number) =>
  String.fromCharCode(...bytes.subarray(from, to));

/**
 * Tells pictures by their first bytes, whatever a file is called (ITU-T T.81 B.1.1.3; W3C PNG 5.2; RFC 9649, 2.3; ISO/IEC 14496-12,
 * 4.3).
 * @param bytes the first of a file, 64 where it has so many
 */
export function pictureForm(bytes: Uint8Array): PictureForm {
  if (bytes[0] === 0xff && bytes[1] === 0xd8 && bytes[2] === 0xff) return 'jpeg';
  if (letters(bytes, 0, 8) === '\x89PNG\r\n\x1a\n') return 'png';
  if (letters(bytes, 0, 4) === 'RIFF' && letters(bytes, 8, 12) === 'WEBP') return 'webp';
  if (letters(bytes, 0, 4) === 'GIF8') return 'gif';
  if (letters(bytes, 4, 8) === 'ftyp') return 'heic';
  if (/^(\ufeff|\xef\xbb\xbf)?\s*</.test(letters(bytes, 0, bytes.length))) return 'markup';
  return 'unknown';
}

/** Why a file of a form is not taken; null where it is. */
export const refusedForm: Readonly<Record<PictureForm, string | null>> = {
  jpeg: null,
  png: null,
  webp: null,
  gif: 'A GIF is no photograph. Save it as JPEG or PNG.',
  heic: 'This form of photograph (HEIC, AVIF) cannot be read here. Let the phone send it as JPEG: it does where “most compatible” is chosen in its camera’s settings.',
  markup: 'This is a text with markup (SVG, HTML) and no photograph. Save the picture as JPEG or PNG.',
  unknown: 'This is no photograph that can be read here: JPEG, PNG and WebP can.',
};
