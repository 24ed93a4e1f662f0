declare module 'svgcanvas' {
  /** A context of two dimensions whose drawing is kept as shapes. */
  export class Context {
    constructor(options: { width: number; height: number });
    getSvg(): SVGSVGElement;
    measureText(text: string): TextMetrics;
    font: string;
    textAlign: string;
    textBaseline: string;
    /** Puts a text into the drawing; `action` says how. */
    protected __applyText(text: string, x: number, y: number, action: 'fill' | 'stroke'): void;
    protected __closestGroupOrSvg(): SVGElement;
    protected __createElement(
      name: string,
      attributes: Record<string, string | number>,
      withoutFill: boolean,
    ): SVGElement;
    protected __currentElement: SVGElement;
    protected __applyTransformation(element: SVGElement): void;
    protected __applyStyleToCurrentElement(action: 'fill' | 'stroke'): void;
  }
}
