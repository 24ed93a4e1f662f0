import { type BenchSession } from '../session/benchSession';
import { shownRuns } from '../session/runs';
import { colours } from '../theme/colours';
import { runStyle } from '../theme/runStyles';
import { saveFile } from './saveFile';

/** The canvases of the traces on the screen, from the lowest to the topmost, by the key of their trace. */
export const traceCanvases = { current: new Map<string, HTMLCanvasElement[]>() };

const margin = 16;
const headHeight = 56;

/** Draws the traces as they stand into one picture, with the investigation's name and the runs they show. */
function composePicture({ documents, picture: shown }: BenchSession): HTMLCanvasElement | null {
  const { name, runs } = documents.getState();
  const panels = shown
    .getState()
    .traces.map(({ key }) => traceCanvases.current.get(key) ?? [])
    .filter((layers) => layers.length > 0);
  if (panels.length === 0) return null;
  const heightOf = (layers: readonly HTMLCanvasElement[]) => Math.max(...layers.map(({ height }) => height));
  const scale = window.devicePixelRatio;
  const width = Math.max(...panels.flat().map((canvas) => canvas.width)) + 2 * margin * scale;
  const height =
    panels.reduce((sum, layers) => sum + heightOf(layers) + 6 * scale, 0) + (headHeight + margin) * scale;
  const picture = document.createElement('canvas');
  picture.width = width;
  picture.height = height;
  const context = picture.getContext('2d');
  if (context === null) return null;
  context.fillStyle = colours.paper;
  context.fillRect(0, 0, width, height);
  context.scale(scale, scale);
  context.fillStyle = colours.text;
  context.font = '650 15px "Inter Variable"';
  context.fillText(name, margin, 22);
  context.font = '13px "Inter Variable"';
  let x = margin;
  for (const run of shownRuns(runs)) {
    const { color, dash } = runStyle(run.style);
    context.strokeStyle = color;
    context.lineWidth = 2.5;
    context.setLineDash(dash);
    context.beginPath();
    context.moveTo(x, 41);
    context.lineTo(x + 28, 41);
    context.stroke();
    const label = `${run.number} · ${run.name}`;
    context.fillText(label, x + 34, 45);
    x += 34 + context.measureText(label).width + 20;
  }
  let y = headHeight;
  for (const layers of panels) {
    for (const canvas of layers)
      context.drawImage(canvas, margin, y, canvas.width / scale, canvas.height / scale);
    y += heightOf(layers) / scale + 6;
  }
  return picture;
}

export function savePicture(session: BenchSession): void {
  composePicture(session)?.toBlob((blob) => {
    if (blob !== null) saveFile(blob, `${session.documents.getState().name}.png`);
  }, 'image/png');
}
