import { newId } from '../../investigation/ids';
import { Button, Form } from 'react-bootstrap';
import { Check2, ListCheck, PlusLg, X } from 'react-bootstrap-icons';
import { useNotebook } from '../../notebook/context';
import { TextField } from '../../ui/TextField';
import { CheckAnswer } from '../CheckAnswer';
import { useAnswer } from '../answers';
import { TriesField } from '../writing/TriesField';
import { type ItemKind, askedWith } from './kind';

export const choice: ItemKind<'choice'> = {
  kind: 'choice',
  title: 'Question: choice',
  Icon: ListCheck,
  empty: (id) => ({
    kind: 'choice',
    ...askedWith(id),
    options: [newId(), newId()].map((key) => ({ key, text: '' })),
    isMany: false,
    tries: 0,
    right: null,
  }),
  Answer: function Choice({ item }) {
    const notebook = useNotebook();
    const answer = useAnswer(item.id, 'choice');
    const chosen = answer?.chosen ?? [];
    const choose = (key: string, isOn: boolean) => {
      const others = item.isMany ? chosen.filter((one) => one !== key) : [];
      const all = isOn ? [...others, key] : others;
      notebook.answer(item.id, all.length === 0 ? null : { kind: 'choice', chosen: all });
    };
    return (
      <>
        <div role={item.isMany ? 'group' : 'radiogroup'} aria-label={item.title} className="options">
          {item.options.map(({ key, text }) => (
            <Form.Check
              key={key}
              type={item.isMany ? 'checkbox' : 'radio'}
              id={`${item.id}-${key}`}
              name={item.id}
              label={text}
              disabled={!notebook.mayWrite}
              checked={chosen.includes(key)}
              onChange={({ target }) => choose(key, target.checked)}
            />
          ))}
        </div>
        <CheckAnswer item={item} answer={answer} />
      </>
    );
  },
  Fields: ({ item, change }) => {
    const right = item.right ?? [];
    const mark = (key: string, isOn: boolean) => {
      const others = item.isMany ? right.filter((one) => one !== key) : [];
      const all = isOn ? [...others, key] : others;
      change({ right: all.length === 0 ? null : all });
    };
    return (
      <>
        <ul className="options">
          {item.options.map(({ key, text }, i) => (
            <li key={key}>
              <Button
                variant="bare"
                aria-pressed={right.includes(key)}
                aria-label={`Option ${i + 1} is right`}
                title="Right"
                onClick={() => mark(key, !right.includes(key))}
              >
                <Check2 aria-hidden />
              </Button>
              <TextField
                label={`Option ${i + 1}`}
                placeholder={`Option ${i + 1}`}
                value={text}
                maxLength={300}
                onCommit={(to) =>
                  change({
                    options: item.options.map((one) => (one.key === key ? { key, text: to } : one)),
                  })
                }
              />
              <Button
                variant="bare"
                aria-label={`Remove option ${i + 1}`}
                onClick={() =>
                  change({
                    options: item.options.filter((one) => one.key !== key),
                    right: right.includes(key) ? right.filter((one) => one !== key) : item.right,
                  })
                }
              >
                <X aria-hidden />
              </Button>
            </li>
          ))}
        </ul>
        <div className="field-row">
          <Button
            variant="plain"
            disabled={item.options.length >= 12}
            onClick={() => change({ options: [...item.options, { key: newId(), text: '' }] })}
          >
            <PlusLg aria-hidden /> Option
          </Button>
          <Form.Check
            type="checkbox"
            id={`${item.id}-many`}
            label="Several may be right"
            checked={item.isMany}
            onChange={({ target }) =>
              change({
                isMany: target.checked,
                ...(target.checked ? {} : { right: right.length > 1 ? null : item.right }),
              })
            }
          />
        </div>
        <TriesField
          tries={item.tries}
          isKnown={item.right !== null}
          onChange={(tries) => change({ tries })}
        />
      </>
    );
  },
};
