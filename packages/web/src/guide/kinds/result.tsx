import { useState } from 'react';
import { Button } from 'react-bootstrap';
import { Rulers } from 'react-bootstrap-icons';
import { useNotebook } from '../../notebook/context';
import { QuotationPalette } from '../../notebook/text/QuotationPalette';
import { useQuoted } from '../../notebook/useQuoted';
import { CheckAnswer } from '../CheckAnswer';
import { useAnswer } from '../answers';
import { RightField } from '../writing/RightField';
import { TriesField } from '../writing/TriesField';
import { type GuideAnswerOf } from '@heuristor/contracts';
import { type ItemKind, askedWith } from './kind';

export const result: ItemKind<'result'> = {
  kind: 'result',
  title: 'Question: result of the sheet',
  Icon: Rulers,
  empty: (id) => ({ kind: 'result', ...askedWith(id), unit: '', tries: 0, right: null }),
  Answer: function AskedResult({ item }) {
    const notebook = useNotebook();
    const answer = useAnswer(item.id, 'result');
    const [isOpen, setIsOpen] = useState(false);
    return (
      <>
        <div className="field-row">
          {answer !== null && <Linked answer={answer} />}
          {notebook.mayWrite && (
            <Button variant="plain" onClick={() => setIsOpen(true)}>
              {answer === null ? 'Choose from the workings' : 'Choose another'}
            </Button>
          )}
        </div>
        <CheckAnswer item={item} answer={answer} />
        {isOpen && (
          <QuotationPalette
            title={item.title === '' ? 'Choose a result' : item.title}
            onlyResults
            onClose={() => setIsOpen(false)}
            onTake={({ quotation: { run, entry, key }, text }) =>
              notebook.answer(item.id, { kind: 'result', run, entry, key, then: text })
            }
          />
        )}
      </>
    );
  },
  Fields: ({ item, change }) => (
    <>
      <RightField unit={item.unit} right={item.right} onChange={change} />
      <TriesField tries={item.tries} isKnown={item.right !== null} onChange={(tries) => change({ tries })} />
    </>
  ),
};

/** The result that was chosen, as it reads now. */
function Linked({ answer: { run, entry, key, then } }: { answer: GuideAnswerOf<'result'> }) {
  const said = useQuoted({ of: 'result', run, entry, key });
  if (said.kind === 'missing')
    return (
      <span className="quoted gone">
        {then} <span className="quiet small">({said.why})</span>
      </span>
    );
  return <span className="quoted">{said.kind === 'value' ? `${said.name} = ${said.text}` : then}</span>;
}
