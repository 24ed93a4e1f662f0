const tickMilliseconds = 300;

const listeners = new Set<() => void>();
let timer: ReturnType<typeof setInterval> | null = null;

/**
 * Calls at the pace of live cards, all at the same moment: a page that draws once for all of them rests the longer in between.
 * Nothing is called while the page is hidden.
 */
export function onTick(listener: () => void): () => void {
  listeners.add(listener);
  timer ??= setInterval(() => {
    if (!document.hidden) listeners.forEach((call) => call());
  }, tickMilliseconds);
  return () => {
    listeners.delete(listener);
    if (listeners.size > 0 || timer === null) return;
    clearInterval(timer);
    timer = null;
  };
}
