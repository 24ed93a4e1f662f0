/** The moment of a film whose frame is printed, in seconds, as anybody may have written it. */
export const frameSeconds = (stored: unknown): number =>
  typeof stored === 'number' && stored >= 0 && stored < 1e5 ? stored : 0;

/** What is said of the frame of a film where the film itself is not. */
export const filmCaption = (caption: string, seconds: number): string =>
  `${caption === '' ? 'Film' : caption} (a frame of a film, at ${seconds.toFixed(2)} s)`;
