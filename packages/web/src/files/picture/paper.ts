import { Context } from 'svgcanvas';

/** A canvas on which something is painted, of whatever kind. */
export interface Layer {
  canvas: HTMLCanvasElement;
  context: CanvasRenderingContext2D;
}

/** A sheet on which layers are laid; what is drawn on it is known by its pixels or by its shapes. */
export interface Paper<Result> {
  /** Of the whole sheet, for what stands beside the layers. */
  context: CanvasRenderingContext2D;
  /** How many pixels a unit of length has. */
  ratio: number;
  layer(width: number, height: number): Layer;
  /** Lays a layer with its upper left corner there. */
  lay(layer: Layer, left: number, top: number): void;
  finish(): Result;
}

/** A sheet of pixels. */
export function pixelPaper(width: number, height: number, ratio: number): Paper<HTMLCanvasElement> {
  const made = (columns: number, rows: number): Layer => {
    const canvas = document.createElement('canvas');
    canvas.width = Math.round(columns * ratio);
    canvas.height = Math.round(rows * ratio);
    const context = canvas.getContext('2d');
    if (context === null) throw new Error('The browser draws no picture of this size. Choose a smaller one.');
    context.setTransform(ratio, 0, 0, ratio, 0, 0);
    return { canvas, context };
  };
  const sheet = made(width, height);
  return {
    context: sheet.context,
    ratio,
    layer: made,
    lay: ({ canvas }, left, top) =>
      sheet.context.drawImage(canvas, left, top, canvas.width / ratio, canvas.height / ratio),
    finish: () => sheet.canvas,
  };
}

/** Fonts that another computer may have, where it has not those of Heuristor. */
const standIns: Record<string, string> = {
  'Inter Variable': 'Inter Variable, Inter, Arial, sans-serif',
  'IBM Plex Mono': 'IBM Plex Mono, Consolas, monospace',
};

const anchors: Partial<Record<string, string>> = { center: 'middle', right: 'end', end: 'end' };
const baselines: Partial<Record<string, string>> = {
  top: 'text-before-edge',
  hanging: 'hanging',
  middle: 'central',
  bottom: 'text-after-edge',
};

/**
 * A context that keeps shapes. The library sets the font of a text by a style attribute, which the page's security policy
 * forbids; here it is read by the browser's own means.
 */
class ShapeContext extends Context {
  protected override __applyText(text: string, x: number, y: number, action: 'fill' | 'stroke'): void {
    const { style } = document.createElement('span');
    style.font = this.font;
    const written = this.__createElement(
      'text',
      {
        'font-family': standIns[style.fontFamily.replaceAll('"', '')] ?? style.fontFamily,
        'font-size': style.fontSize,
        'font-weight': style.fontWeight,
        // Another font than ours keeps to the room that was made for it.
        textLength: this.measureText(text).width,
        lengthAdjust: 'spacingAndGlyphs',
        x,
        y,
        'text-anchor': anchors[this.textAlign] ?? 'start',
        'dominant-baseline': baselines[this.textBaseline] ?? 'alphabetic',
      },
      true,
    );
    written.textContent = text;
    const group = this.__closestGroupOrSvg();
    this.__currentElement = written;
    this.__applyTransformation(written);
    this.__applyStyleToCurrentElement(action);
    group.appendChild(written);
  }

  /** Each layer is drawn once, on nothing. */
  clearRect(): void {
    return undefined;
  }
}

/** A sheet of shapes, which can be made larger without end. */
export function shapePaper(width: number, height: number): Paper<string> {
  const made = (columns: number, rows: number): Layer => {
    const context = new ShapeContext({ width: columns, height: rows }) as unknown as CanvasRenderingContext2D;
    // What paints on a canvas asks it for its context and tells it its size; more it does not need.
    const canvas = { width: columns, height: rows, style: {}, getContext: () => context };
    return { canvas: canvas as unknown as HTMLCanvasElement, context };
  };
  const shapesOf = (context: CanvasRenderingContext2D): SVGSVGElement =>
    (context as unknown as { getSvg(): SVGSVGElement }).getSvg();
  const sheet = made(width, height);
  const laid: { shapes: SVGSVGElement; left: number; top: number }[] = [];
  return {
    context: sheet.context,
    ratio: 1,
    layer: made,
    lay: ({ context }, left, top) => laid.push({ shapes: shapesOf(context), left, top }),
    finish() {
      const root = shapesOf(sheet.context);
      root.setAttribute('viewBox', `0 0 ${width} ${height}`);
      for (const { shapes, left, top } of laid) {
        shapes.setAttribute('x', String(left));
        shapes.setAttribute('y', String(top));
        root.appendChild(shapes);
      }
      return new XMLSerializer().serializeToString(root);
    },
  };
}
