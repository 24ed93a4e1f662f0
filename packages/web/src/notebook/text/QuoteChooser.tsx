import { type Editor } from '@tiptap/core';
import { QuotationPalette } from './QuotationPalette';

/** Puts a value of a run into the sentence that is written. */
export function QuoteChooser({ editor, onClose }: { editor: Editor; onClose: () => void }) {
  return (
    <QuotationPalette
      title="Quote a value"
      onClose={onClose}
      onTake={({ quotation, text }) =>
        // The dialog gives the focus back first.
        setTimeout(() =>
          editor
            .chain()
            .focus()
            .insertContent([{ type: 'quote', attrs: { ...quotation, then: text } }])
            .run(),
        )
      }
    />
  );
}
