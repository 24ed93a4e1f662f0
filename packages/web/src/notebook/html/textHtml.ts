import { getSchema } from '@tiptap/core';
import { DOMSerializer } from '@tiptap/pm/model';
import { yXmlFragmentToProseMirrorRootNode } from '@tiptap/y-tiptap';
import katex from 'katex';
import { type XmlFragment, XmlElement } from 'yjs';
import { type Quoted } from '../quotation';
import { mostTex } from '../text/formula';
import { textExtensions } from '../text/extensions';
import { quotationOf } from '../text/quote';

/** A rich text as elements of HTML, with the values that it quotes as words and its formulas as MathML. */
export function textHtml(
  fragment: XmlFragment,
  valueOf: (quotation: ReturnType<typeof quotationOf>) => Quoted,
): HTMLElement {
  const schema = getSchema(textExtensions);
  const root = yXmlFragmentToProseMirrorRootNode(fragment, schema);
  const place = document.createElement('div');
  place.className = 'text';
  place.append(DOMSerializer.fromSchema(schema).serializeFragment(root.content));
  for (const element of place.querySelectorAll<HTMLElement>('span[data-quote]')) {
    const quoted = valueOf(quotationOf({ ...element.dataset }));
    const then = element.dataset.then ?? '';
    const value = document.createElement('span');
    value.className = quoted.kind === 'missing' ? 'value gone' : 'value';
    value.textContent =
      quoted.kind === 'value'
        ? quoted.text
        : quoted.kind === 'missing'
          ? `${then} (gone: ${quoted.why})`
          : then;
    element.replaceWith(value);
  }
  for (const element of place.querySelectorAll<HTMLElement>('span[data-tex]')) {
    const formula = document.createElement('span');
    const tex = (element.dataset.tex ?? '').slice(0, mostTex);
    try {
      katex.render(tex, formula, { output: 'mathml', trust: false, strict: false, maxExpand: 200 });
      // The TeX that comes with it is no part of what is read.
      for (const annotation of formula.querySelectorAll('annotation')) annotation.remove();
      for (const semantics of formula.querySelectorAll('semantics'))
        semantics.replaceWith(...semantics.childNodes);
    } catch {
      formula.textContent = tex;
    }
    element.replaceWith(formula);
  }
  return place;
}

/** The runs that a text quotes. */
export function runsQuoted(parent: XmlFragment): string[] {
  return parent.toArray().flatMap((node) => {
    if (!(node instanceof XmlElement)) return [];
    const attributes = node.getAttributes() as Record<string, unknown>;
    return node.nodeName === 'quote' ? [quotationOf(attributes).run] : runsQuoted(node);
  });
}
