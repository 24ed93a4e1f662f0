import { choiceField, textField } from '../fields';
import { defineKind } from '../kind';

/** Words between the entries: a heading, or what there is to say. Nothing is worked out. */
export const words = defineKind({
  kind: 'words',
  title: 'text',
  yields: 'results',
  offered: 'sheet',
  offers: [
    { title: 'Text', preset: { look: 'text' } },
    { title: 'Heading', preset: { look: 'heading' } },
  ],
  fields: {
    text: textField('Text', 2000),
    look: choiceField('As', [
      { key: 'text', title: 'text' },
      { key: 'heading', title: 'heading' },
    ]),
  },
  sentence: ({ text }) => text,
  evaluate: () => ({ kind: 'results', results: [], notes: [], fitted: null }),
});
