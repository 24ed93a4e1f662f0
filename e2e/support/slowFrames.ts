/**
 * Makes of the page's display one that shows some twenty pictures a second, as a slow tablet does: without a graphics card, sixty would
 * take a core of the machine. It runs in the page.
 */
export function slowFrames(): void {
  const [next, cancel] = [
    window.requestAnimationFrame.bind(window),
    window.cancelAnimationFrame.bind(window),
  ];
  const waiting = new Map<number, () => void>();
  let last = 0;
  window.requestAnimationFrame = (show) => {
    const id = ++last;
    const timer = setTimeout(() => {
      const frame = next((at) => {
        waiting.delete(id);
        show(at);
      });
      waiting.set(id, () => cancel(frame));
    }, 35);
    waiting.set(id, () => clearTimeout(timer));
    return id;
  };
  window.cancelAnimationFrame = (id) => {
    waiting.get(id)?.();
    waiting.delete(id);
  };
}
