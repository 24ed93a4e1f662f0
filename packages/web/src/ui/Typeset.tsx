import katex from 'katex';
import 'katex/dist/katex.min.css';
import { useEffect, useRef } from 'react';
import { writtenTex } from './numberText';

/** A formula as it is printed in a book; what is said aloud is its MathML. */
export function Typeset({ tex, block = false }: { tex: string; block?: boolean }) {
  const place = useRef<HTMLSpanElement>(null);
  useEffect(() => {
    if (place.current === null) return;
    try {
      katex.render(writtenTex(tex), place.current, {
        trust: false,
        strict: false,
        maxExpand: 200,
      });
    } catch {
      // It is being written, or is no formula: it stands there as it was typed.
      place.current.textContent = tex;
    }
  }, [tex]);
  return <span ref={place} className={block ? 'typeset block' : 'typeset'} />;
}
