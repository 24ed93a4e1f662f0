import { type Node, DOMSerializer } from '@tiptap/pm/model';
import { type Quotation, type Quoted } from '../quotation';
import { mathMl } from '../text/mathMl';
import { quotationOf } from '../text/quote';
import { wordsOf } from '../written/collect';

/** A rich text as elements of HTML, with the values that it quotes as words and its formulas as MathML. */
export function textHtml(text: Node, valueOf: (quotation: Quotation) => Quoted): HTMLElement {
  const place = document.createElement('div');
  place.className = 'text';
  place.append(DOMSerializer.fromSchema(text.type.schema).serializeFragment(text.content));
  for (const element of place.querySelectorAll<HTMLElement>('span[data-quote]')) {
    const quoted = valueOf(quotationOf({ ...element.dataset }));
    const then = element.dataset.then ?? '';
    const value = document.createElement('span');
    value.className = quoted.kind === 'missing' ? 'value gone' : 'value';
    value.textContent = wordsOf(quoted, then);
    element.replaceWith(value);
  }
  for (const element of place.querySelectorAll<HTMLElement>('span[data-tex]')) {
    const tex = element.dataset.tex ?? '';
    const formula = document.createElement('span');
    formula.append(mathMl(tex) ?? tex);
    element.replaceWith(formula);
  }
  return place;
}
