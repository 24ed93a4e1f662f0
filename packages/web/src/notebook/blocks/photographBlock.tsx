import { Image as ImageIcon } from 'react-bootstrap-icons';
import { useState } from 'react';
import { SharedLine } from '../SharedLine';
import { useNotebook } from '../context';
import { useBlockField, useSharedText } from '../useShared';
import { type BlockProps, type BlockView } from './block';

const lengthOf = (stored: unknown) =>
  typeof stored === 'number' && stored > 0 && stored < 1e5 ? stored : undefined;

function PhotographView({ id }: BlockProps) {
  const notebook = useNotebook();
  const block = notebook.document.block(id);
  const photograph = useBlockField(block, 'photograph');
  const [width, height] = [lengthOf(block?.get('width')), lengthOf(block?.get('height'))];
  const caption = notebook.document.lineOf(id, 'caption');
  const [said] = useSharedText(caption);
  const [isMissing, setIsMissing] = useState(false);
  return (
    <figure className="photograph-block">
      {isMissing || typeof photograph !== 'string' ? (
        <p className="refused">This photograph cannot be loaded. Is Heuristor still running?</p>
      ) : (
        <img
          src={notebook.addressOfPhotograph(photograph)}
          width={width}
          height={height}
          alt={said === '' ? 'Photograph without a caption' : said}
          onError={() => setIsMissing(true)}
        />
      )}
      <figcaption>
        <SharedLine
          shared={caption}
          label="Caption of the photograph"
          placeholder="What does it show?"
          mayWrite={notebook.mayWrite}
        />
      </figcaption>
    </figure>
  );
}

function useName(id: string): string {
  const [caption] = useSharedText(useNotebook().document.lineOf(id, 'caption'));
  return caption === '' ? 'Photograph' : caption;
}

export const photographBlock: BlockView = {
  kind: 'photograph',
  title: 'Photograph',
  Icon: ImageIcon,
  View: PhotographView,
  useName,
};
