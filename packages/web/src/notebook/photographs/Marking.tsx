import { Button, ButtonGroup } from 'react-bootstrap';
import { XLg } from 'react-bootstrap-icons';
import { newId } from '../../investigation/ids';
import { QuantityField } from '../../ui/QuantityField';
import { TextField } from '../../ui/TextField';
import { useNotebook } from '../context';
import { type Mark, type MarkKind, type NamedMark, type Place, type Size, mostMarks } from './marks';
import { markTitles, wordsOfMark } from './markWords';

/** The marks that the tools make, and what a hand has to do for each. */
const tools: readonly { kind: MarkKind; hint: string }[] = [
  { kind: 'arrow', hint: 'Pull an arrow on the picture, from its tail to its tip.' },
  { kind: 'words', hint: 'Press where the words begin.' },
  { kind: 'scale', hint: 'Pull along something whose length you know, as a ruler.' },
  { kind: 'length', hint: 'Pull from one point to the other, as far from the camera as the scale.' },
];

interface Props {
  id: string;
  marks: readonly NamedMark[];
  size: Size;
  tool: MarkKind | null;
  setTool: (tool: MarkKind | null) => void;
  onDone: () => void;
}

/** Under a photograph while it is marked: the tools, and each mark with what is said at it. */
export function Marking({ id, marks, size, tool, setTool, onDone }: Props) {
  const notebook = useNotebook();
  const set = (mark: NamedMark, change: Partial<Mark>) => {
    const { id: name, ...rest } = mark;
    notebook.mark(id, name, { ...rest, ...change } as Mark, 'change a mark');
  };
  const hasScale = marks.some(({ kind }) => kind === 'scale');
  return (
    <div className="marking-tools">
      <div className="row-buttons">
        <ButtonGroup aria-label="What is drawn">
          {tools.map(({ kind }) => (
            <Button
              key={kind}
              variant="plain"
              active={tool === kind}
              aria-pressed={tool === kind}
              disabled={marks.length >= mostMarks || (kind === 'scale' && hasScale)}
              onClick={() => setTool(tool === kind ? null : kind)}
            >
              {markTitles[kind]}
            </Button>
          ))}
        </ButtonGroup>
        <Button variant="plain" onClick={onDone}>
          Done
        </Button>
      </div>
      <p className="quiet small">
        {tools.find(({ kind }) => kind === tool)?.hint ??
          'Choose what to draw, or pull an end to another place.'}
      </p>
      <ul className="mark-list">
        {marks.map((mark) => (
          <li key={mark.id}>
            <span className="quiet">{markTitles[mark.kind]}</span>
            {mark.kind === 'words' && (
              <TextField
                label="What stands there"
                value={mark.words}
                maxLength={80}
                placeholder="What stands there"
                onCommit={(words) => set(mark, { words })}
              />
            )}
            {mark.kind === 'scale' && (
              <QuantityField
                label="How long the scale is"
                unit="m"
                value={mark.metres}
                placeholder="0.30"
                check={(value) => (value > 0 && value <= 1e6 ? null : 'A length is above 0 m, as 0.30 m.')}
                onCommit={(metres) => set(mark, { metres })}
              />
            )}
            {mark.kind === 'length' && (
              <span className="number">
                {wordsOfMark(mark, marks, size) === '?'
                  ? 'Lay a scale and say how long it is.'
                  : wordsOfMark(mark, marks, size)}
              </span>
            )}
            <Button
              variant="bare"
              aria-label={`Remove this mark: ${markTitles[mark.kind]} ${wordsOfMark(mark, marks, size)}`.trim()}
              onClick={() => notebook.mark(id, mark.id, null, 'remove a mark')}
            >
              <XLg aria-hidden />
            </Button>
          </li>
        ))}
      </ul>
      {marks.some(({ kind }) => kind === 'length') && (
        <p className="quiet small">
          Lengths hold in the plane of the scale, seen straight on. ± is that of ends placed by hand to 0.2 %
          of the picture, and of nothing else.
        </p>
      )}
    </div>
  );
}

/** A mark as a stroke makes it. */
export const madeMark = (kind: MarkKind, from: Place, to: Place): { name: string; mark: Mark } => ({
  name: newId(),
  mark:
    kind === 'words'
      ? { kind, at: from, words: '' }
      : kind === 'scale'
        ? { kind, from, to, metres: null }
        : { kind, from, to },
});
