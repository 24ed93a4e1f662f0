import { parseUnit, printedUnit } from '@heuristor/core';
import { Hash } from 'react-bootstrap-icons';
import { useNotebook } from '../../notebook/context';
import { TextField } from '../../ui/TextField';
import { CheckAnswer } from '../CheckAnswer';
import { useAnswer } from '../answers';
import { DigitsField } from '../writing/DigitsField';
import { RightField } from '../writing/RightField';
import { TriesField } from '../writing/TriesField';
import { type ItemKind, askedWith } from './kind';

export const number: ItemKind<'number'> = {
  kind: 'number',
  title: 'Question: number',
  Icon: Hash,
  empty: (id) => ({ kind: 'number', ...askedWith(id), unit: '', digits: null, tries: 0, right: null }),
  Answer: function AskedNumber({ item }) {
    const notebook = useNotebook();
    const answer = useAnswer(item.id, 'number');
    const unit = printedUnit(parseUnit(item.unit));
    return (
      <>
        {notebook.mayWrite ? (
          <TextField
            label={`Answer to ${item.title}`}
            placeholder={unit === '' ? 'a number' : `a number and its unit, such as ${unit}`}
            value={answer?.text ?? ''}
            maxLength={80}
            onCommit={(text) =>
              notebook.answer(item.id, text.trim() === '' ? null : { kind: 'number', text: text.trim() })
            }
          />
        ) : (
          <span className="number">{answer?.text ?? ''}</span>
        )}
        <CheckAnswer item={item} answer={answer} />
      </>
    );
  },
  Fields: ({ item, change }) => (
    <>
      <RightField unit={item.unit} right={item.right} onChange={change} />
      <DigitsField digits={item.digits} onChange={(digits) => change({ digits })} />
      <TriesField tries={item.tries} isKnown={item.right !== null} onChange={(tries) => change({ tries })} />
    </>
  ),
};
