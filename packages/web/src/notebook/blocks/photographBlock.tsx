import { Image as ImageIcon } from 'react-bootstrap-icons';
import { useMemo, useState } from 'react';
import { Button } from 'react-bootstrap';
import { useNotebook } from '../context';
import { MarkedPhotograph } from '../photographs/MarkedPhotograph';
import { Marking, madeMark } from '../photographs/Marking';
import { MarkingLayer } from '../photographs/MarkingLayer';
import { type MarkKind } from '../photographs/marks';
import { useMarks } from '../photographs/useMarks';
import { useBlockField } from '../useShared';
import { PictureCaption, useCaption } from './PictureCaption';
import { type BlockProps, type BlockView } from './block';

const lengthOf = (stored: unknown) => (typeof stored === 'number' && stored > 0 && stored < 1e5 ? stored : 1);

function PhotographView({ id }: BlockProps) {
  const notebook = useNotebook();
  const block = notebook.document.block(id);
  const photograph = useBlockField(block, 'photograph');
  const [width, height] = [lengthOf(block?.get('width')), lengthOf(block?.get('height'))];
  const size = useMemo(() => ({ width, height }), [width, height]);
  const marks = useMarks(block);
  const said = useCaption(id);
  const [isMissing, setIsMissing] = useState(false);
  const [isMarking, setIsMarking] = useState(false);
  const [tool, setTool] = useState<MarkKind | null>(null);
  const isThere = !isMissing && typeof photograph === 'string';
  return (
    <figure className="photograph-block">
      {!isThere ? (
        <p className="refused">This photograph cannot be loaded. Is Heuristor still running?</p>
      ) : (
        <MarkedPhotograph
          address={notebook.addressOfPhotograph(photograph)}
          size={size}
          caption={said}
          marks={marks}
          onMissing={() => setIsMissing(true)}
        >
          {isMarking && (
            <MarkingLayer
              id={id}
              marks={marks}
              tool={tool}
              onMade={(kind, from, to) => {
                const { name, mark } = madeMark(kind, from, to);
                notebook.mark(id, name, mark, 'mark a photograph');
                // Words and scales are typed next; of arrows and lengths there are often several.
                if (kind === 'words' || kind === 'scale') setTool(null);
              }}
            />
          )}
        </MarkedPhotograph>
      )}
      {isThere && isMarking && (
        <Marking
          id={id}
          marks={marks}
          size={size}
          tool={tool}
          setTool={setTool}
          onDone={() => {
            setTool(null);
            setIsMarking(false);
          }}
        />
      )}
      {isThere && !isMarking && notebook.mayWrite && (
        <Button variant="link" className="mark-it" onClick={() => setIsMarking(true)}>
          Mark it
        </Button>
      )}
      <PictureCaption id={id} what="photograph" />
    </figure>
  );
}

const useName = (id: string): string => useCaption(id) || 'Photograph';

export const photographBlock: BlockView = {
  kind: 'photograph',
  title: 'Photograph',
  Icon: ImageIcon,
  View: PhotographView,
  useName,
};
