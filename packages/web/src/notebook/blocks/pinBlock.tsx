import { GraphUp } from 'react-bootstrap-icons';
import { type PinContent } from '@heuristor/contracts';
import { useEffect, useState } from 'react';
import { Button } from 'react-bootstrap';
import { useNavigate } from 'react-router';
import { attempt } from '../../api/attempt';
import { sentenceOf } from '../../api/client';
import { useInvestigation } from '../../investigation/context';
import { SharedLine } from '../SharedLine';
import { Shapes } from '../Shapes';
import { useNotebook } from '../context';
import { pinnedWhen } from '../pinning/pinWords';
import { goThere } from '../pinning/goThere';
import { PinnedResults } from '../pinning/PinnedResults';
import { ThenAndNow } from '../pinning/ThenAndNow';
import { useChangesOf } from '../pinning/useChangesOf';
import { useBlockField, useSharedText } from '../useShared';
import { type BlockProps, type BlockView } from './block';

type Fetched = { content: PinContent } | { fault: string } | null;

function usePin(id: string): Fetched {
  const notebook = useNotebook();
  const pin = useBlockField(notebook.document.block(id), 'pin');
  const [fetched, setFetched] = useState<Fetched>(null);
  useEffect(() => {
    let isWanted = true;
    setFetched(null);
    if (typeof pin !== 'string') return;
    notebook.pinOf(pin).then(
      (content) => isWanted && setFetched({ content }),
      (error: unknown) => isWanted && setFetched({ fault: sentenceOf(error) }),
    );
    return () => {
      isWanted = false;
    };
  }, [notebook, pin]);
  return fetched;
}

function PinView({ id }: BlockProps) {
  const notebook = useNotebook();
  const fetched = usePin(id);
  const title = notebook.document.lineOf(id, 'title');
  const caption = notebook.document.lineOf(id, 'caption');
  return (
    <figure className="pin-block">
      <header>
        <SharedLine
          shared={title}
          label="Title of what is pinned"
          placeholder="Title"
          className="pin-title"
          mayWrite={notebook.mayWrite}
        />
        {fetched !== null && 'content' in fetched && <Origin id={id} content={fetched.content} />}
      </header>
      {fetched === null ? (
        <p className="quiet">Loading …</p>
      ) : 'fault' in fetched ? (
        <p className="refused">{fetched.fault}</p>
      ) : (
        <Seen content={fetched.content} />
      )}
      <figcaption>
        <SharedLine
          shared={caption}
          label="What it shows"
          placeholder="What does it show?"
          className="pin-caption"
          mayWrite={notebook.mayWrite}
        />
      </figcaption>
    </figure>
  );
}

/** Which runs it shows and when it was pinned, the way there, and the way to another picture of it. */
function Origin({ id, content }: { id: string; content: PinContent }) {
  const session = useInvestigation();
  const notebook = useNotebook();
  const title = useName(id);
  const navigate = useNavigate();
  const go = () => attempt(() => goThere(session, content, navigate));
  const pinAnew = async () => {
    session.pinAgain.ask({ block: id, title, of: content.of });
    await go();
  };
  return (
    <span className="pin-origin">
      {content.runs.length === 1 ? 'run ' : content.runs.length > 1 ? 'runs ' : ''}
      {content.runs.map(({ number }) => number).join(', ')}
      {content.runs.length > 0 && ' · '}pinned {pinnedWhen(content.made)}
      <Button variant="link" onClick={() => void go()}>
        Go there
      </Button>
      {notebook.mayWrite && (
        <Button
          variant="link"
          title="Go there, change what is seen, and let this block show that"
          onClick={() => void pinAnew()}
        >
          Pin anew
        </Button>
      )}
    </span>
  );
}

function Seen({ content }: { content: PinContent }) {
  const [isCompared, setIsCompared] = useState(false);
  const changes = useChangesOf(content);
  const { results } = content;
  return (
    <>
      <Shapes picture={content.picture} says={content.says} width={content.width} height={content.height} />
      {results.length > 0 && !isCompared && <PinnedResults content={content} />}
      {isCompared && <ThenAndNow content={content} changes={changes} />}
      {changes.length > 0 && (
        <p className="pin-changed">
          The sheet has changed since: {changes[0].words}
          {changes.length > 1 && `, and ${changes.length - 1} more`}.
          <Button variant="link" onClick={() => setIsCompared(!isCompared)} aria-expanded={isCompared}>
            {isCompared ? 'Only as it was' : 'Then and now'}
          </Button>
        </p>
      )}
    </>
  );
}

function useName(id: string): string {
  const [title] = useSharedText(useNotebook().document.lineOf(id, 'title'));
  return title === '' ? 'Pinned traces' : title;
}

export const pinBlock: BlockView = {
  kind: 'pin',
  title: 'Pinned traces',
  Icon: GraphUp,
  View: PinView,
  useName,
};
