import { Node } from '@tiptap/core';
import { type NodeViewProps, NodeViewWrapper, ReactNodeViewRenderer } from '@tiptap/react';
import { type Quotation } from '../quotation';
import { useQuoted } from '../useQuoted';

const attribute = (name: string, usual = '') => ({
  default: usual,
  parseHTML: (element: HTMLElement) => element.getAttribute(`data-${name}`) ?? usual,
  renderHTML: (attributes: Record<string, unknown>) => ({ [`data-${name}`]: String(attributes[name]) }),
});

/** What a quotation is in the document, as a stranger may have written it. */
export const quotationOf = (attributes: Record<string, unknown>): Quotation => {
  const text = (name: string) => (typeof attributes[name] === 'string' ? attributes[name] : '');
  return {
    of: attributes.of === 'condition' ? 'condition' : 'result',
    run: text('run'),
    entry: text('entry'),
    key: text('key'),
  };
};

/** A value that stands in a sentence and follows what it speaks of. */
export const Quote = Node.create({
  name: 'quote',
  group: 'inline',
  inline: true,
  atom: true,
  selectable: true,
  addAttributes: () => ({
    of: attribute('of', 'result'),
    run: attribute('run'),
    entry: attribute('entry'),
    key: attribute('key'),
    /** What it said when it was put there, for the case that it is there no more. */
    then: attribute('then'),
  }),
  parseHTML: () => [{ tag: 'span[data-quote]' }],
  renderHTML: ({ node, HTMLAttributes }) => [
    'span',
    { 'data-quote': '', ...HTMLAttributes },
    String(node.attrs.then),
  ],
  renderText: ({ node }) => String(node.attrs.then),
  addNodeView: () => ReactNodeViewRenderer(QuoteView, { as: 'span' }),
});

function QuoteView({ node, selected }: NodeViewProps) {
  const quoted = useQuoted(quotationOf(node.attrs));
  const then = String(node.attrs.then);
  const classes = `quoted ${quoted.kind} ${selected ? 'selected' : ''}`;
  return (
    <NodeViewWrapper as="span" className={classes} title={titleOf(quoted, then)}>
      {quoted.kind === 'value' ? quoted.text : then}
      {quoted.kind === 'missing' && <span className="quoted-fault"> (gone: {quoted.why})</span>}
    </NodeViewWrapper>
  );
}

function titleOf(quoted: ReturnType<typeof useQuoted>, then: string): string {
  if (quoted.kind === 'value')
    return quoted.text === then ? quoted.name : `${quoted.name}; ${then} when it was quoted`;
  if (quoted.kind === 'waiting') return 'Is being worked out';
  return `It was ${then} when it was quoted; ${quoted.why}.`;
}
