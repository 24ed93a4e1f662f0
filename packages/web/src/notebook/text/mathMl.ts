import katex from 'katex';
import { writtenTex } from '../../ui/numberText';
import { mostTex } from './formula';

/** A formula in TeX as MathML, without the TeX itself; null where it is none. */
export function mathMl(tex: string): Element | null {
  const place = document.createElement('span');
  try {
    katex.render(writtenTex(tex.slice(0, mostTex)), place, {
      output: 'mathml',
      trust: false,
      strict: false,
      maxExpand: 200,
    });
  } catch {
    return null;
  }
  for (const annotation of place.querySelectorAll('annotation')) annotation.remove();
  for (const semantics of place.querySelectorAll('semantics')) semantics.replaceWith(...semantics.childNodes);
  return place.querySelector('math');
}
