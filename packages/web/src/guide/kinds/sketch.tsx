import { Bezier2 } from 'react-bootstrap-icons';
import { useNotebook } from '../../notebook/context';
import { SketchFields } from '../sketch/SketchFields';
import { SketchPad } from '../sketch/SketchPad';
import { useAnswer } from '../answers';
import { type ItemKind, askedWith } from './kind';

export const sketch: ItemKind<'sketch'> = {
  kind: 'sketch',
  title: 'Question: sketch',
  Icon: Bezier2,
  empty: (id) => ({
    kind: 'sketch',
    ...askedWith(id),
    isBefore: true,
    across: { title: 't', unit: 's', from: 0, to: 5 },
    upright: { title: 'x', unit: 'm', from: 0, to: 1 },
    over: '',
  }),
  Answer: function Sketch({ item }) {
    const notebook = useNotebook();
    const answer = useAnswer(item.id, 'sketch');
    return (
      <SketchPad
        item={item}
        points={answer?.points ?? []}
        mayDraw={notebook.mayWrite}
        onDraw={(points) =>
          notebook.answer(
            item.id,
            points.length === 0 ? null : { kind: 'sketch', points: points.map(([x, y]) => [x, y]) },
          )
        }
      />
    );
  },
  Fields: SketchFields,
};
