/** How many bytes become letters in one call. */
const piece = 0x8000;

export function toBase64(bytes: Uint8Array): string {
  let letters = '';
  for (let from = 0; from < bytes.length; from += piece)
    letters += String.fromCharCode(...bytes.subarray(from, from + piece));
  return btoa(letters);
}

export const fromBase64 = (text: string): Uint8Array =>
  Uint8Array.from(atob(text), (letter) => letter.charCodeAt(0));
