/** A moment of a film as a picture, and its size. */
export interface FilmFrame {
  jpeg: Blob;
  width: number;
  height: number;
  seconds: number;
}

/** @throws Error where the browser draws nothing of it */
export async function frameOf(video: HTMLVideoElement): Promise<FilmFrame> {
  const { videoWidth: width, videoHeight: height, currentTime: seconds } = video;
  const canvas = document.createElement('canvas');
  canvas.width = width;
  canvas.height = height;
  canvas.getContext('2d')?.drawImage(video, 0, 0, width, height);
  const jpeg = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, 'image/jpeg', 0.9));
  if (jpeg === null || width === 0) throw new Error('The browser draws no picture of this film.');
  return { jpeg, width, height, seconds };
}

/** A film that plays is shown by the browser within so long, in milliseconds. */
const patience = 15_000;

/** Waits for an event of a film. @throws Error where this browser cannot play it */
function until(video: HTMLVideoElement, event: string): Promise<void> {
  return new Promise((resolve, reject) => {
    const fail = () => reject(new Error('This browser cannot play this film. Save it as MP4 (H.264) first.'));
    const timer = setTimeout(fail, patience);
    video.addEventListener(
      event,
      () => {
        clearTimeout(timer);
        resolve();
      },
      { once: true },
    );
    video.addEventListener('error', fail, { once: true });
  });
}

/**
 * The middle of a film of a file, before it is sent.
 * @returns how long it lasts, too; not finite where it does not say
 * @throws Error where this browser cannot play it
 */
export async function middleOf(file: Blob): Promise<{ frame: FilmFrame; lasts: number }> {
  const video = document.createElement('video');
  video.muted = true;
  video.preload = 'auto';
  const address = URL.createObjectURL(file);
  try {
    const isLoaded = until(video, 'loadeddata');
    video.src = address;
    await isLoaded;
    const lasts = video.duration;
    const isThere = until(video, 'seeked');
    video.currentTime = Number.isFinite(lasts) ? lasts / 2 : 0.1;
    await isThere;
    return { frame: await frameOf(video), lasts };
  } finally {
    video.removeAttribute('src');
    video.load();
    URL.revokeObjectURL(address);
  }
}
