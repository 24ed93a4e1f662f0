import { Node } from '@tiptap/core';
import { type NodeViewProps, NodeViewWrapper, ReactNodeViewRenderer } from '@tiptap/react';
import { useEffect, useRef, useState } from 'react';
import { Typeset } from '../../ui/Typeset';

/** A formula is no longer than this; what is longer is no formula. */
export const mostTex = 2000;

/** A formula in a sentence, written in TeX. */
export const Formula = Node.create({
  name: 'formula',
  group: 'inline',
  inline: true,
  atom: true,
  selectable: true,
  addAttributes: () => ({
    tex: {
      default: '',
      parseHTML: (element: HTMLElement) => element.getAttribute('data-tex') ?? '',
      renderHTML: ({ tex }: Record<string, unknown>) => ({ 'data-tex': String(tex) }),
    },
  }),
  parseHTML: () => [{ tag: 'span[data-tex]' }],
  renderHTML: ({ node, HTMLAttributes }) => ['span', HTMLAttributes, String(node.attrs.tex)],
  renderText: ({ node }) => String(node.attrs.tex),
  addNodeView: () => ReactNodeViewRenderer(FormulaView, { as: 'span' }),
});

function FormulaView({ node, selected, updateAttributes, editor, getPos, deleteNode }: NodeViewProps) {
  const tex = String(node.attrs.tex).slice(0, mostTex);
  // What is typed goes into the text when it is done: each change makes the formula a new one, which has no focus.
  const [draft, setDraft] = useState<string | null>(null);
  const field = useRef<HTMLInputElement>(null);
  const isOpen = draft !== null;
  useEffect(() => {
    if (selected && editor.isEditable) setDraft(tex);
    // What is written meanwhile elsewhere does not change what is typed here.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [selected, editor]);
  useEffect(() => {
    if (isOpen) field.current?.focus();
  }, [isOpen]);
  const keep = (typed: string | null) => {
    if (typed === null) return;
    setDraft(null);
    if (typed.trim() === '') deleteNode();
    else if (typed !== tex) updateAttributes({ tex: typed });
  };
  const leave = (typed: string) => {
    const at = getPos();
    keep(typed);
    if (at !== undefined)
      editor
        .chain()
        .focus()
        .setTextSelection(typed.trim() === '' ? at : at + 1)
        .run();
  };
  const seen = draft ?? tex;
  return (
    <NodeViewWrapper as="span" className={`formula ${isOpen ? 'open' : ''}`}>
      {seen.trim() === '' ? <span className="quiet">formula</span> : <Typeset tex={seen} />}
      {draft !== null && (
        <input
          ref={field}
          className="formula-field"
          aria-label="Formula in TeX"
          placeholder="\\frac{a}{b}, x_0, \\sqrt{2}"
          value={draft}
          maxLength={mostTex}
          spellCheck={false}
          onChange={({ target }) => setDraft(target.value)}
          onBlur={() => keep(draft)}
          onKeyDown={(event) => {
            event.stopPropagation();
            if (event.key !== 'Enter' && event.key !== 'Escape') return;
            event.preventDefault();
            leave(event.key === 'Enter' ? draft : tex);
          }}
        />
      )}
    </NodeViewWrapper>
  );
}
