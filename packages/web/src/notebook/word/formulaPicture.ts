import { type Node } from '@tiptap/pm/model';
import { mathMl } from '../text/mathMl';
import { equationOf } from './math';
import { pixelsOf } from './pixels';

/** The size of letters in a text document, in units of 1/96 inch, and so many pixels of each. */
const [letters, ratio] = [14, 4];
/** Room about a formula: what leans stands out of its box. */
const margin = 2;

/** A formula as a picture, where no native equation can say it. */
export interface FormulaPicture {
  png: Uint8Array;
  width: number;
  height: number;
  /** Its letters, for whoever does not see it. */
  says: string;
}

/** Pictures of the formulas of a text that no native equation can say, by their TeX. */
export async function formulaPictures(text: Node): Promise<ReadonlyMap<string, FormulaPicture>> {
  const pictures = new Map<string, FormulaPicture>();
  for (const tex of formulasIn(text)) {
    const math = pictures.has(tex) ? null : mathMl(tex);
    if (math === null || equationOf(math) !== null) continue;
    pictures.set(tex, await pictureOf(math));
  }
  return pictures;
}

function formulasIn(text: Node): string[] {
  const found: string[] = [];
  text.descendants((node) => {
    if (node.type.name === 'formula') found.push(String(node.attrs.tex));
  });
  return found;
}

/** A formula as the browser sets it. @throws Error where the browser cannot draw it */
async function pictureOf(math: Element): Promise<FormulaPicture> {
  const place = document.createElement('div');
  place.className = 'formula-measure';
  place.append(math);
  document.body.append(place);
  const box = math.getBoundingClientRect();
  const [width, height] = [Math.ceil(box.width) + 2 * margin, Math.ceil(box.height) + 2 * margin];
  const written = new XMLSerializer().serializeToString(math);
  place.remove();
  const shapes = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" font-size="${letters}px"><foreignObject x="${margin}" y="${margin}" width="${width}" height="${height}">${written}</foreignObject></svg>`;
  return { png: await pixelsOf(shapes, width, height, ratio), width, height, says: math.textContent };
}
