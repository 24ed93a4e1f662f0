import { useRef, useState } from 'react';
import { Button } from 'react-bootstrap';
import { CameraReels } from 'react-bootstrap-icons';
import { attempt } from '../../api/attempt';
import { useNotebook } from '../context';
import { frameOf } from '../films/frame';
import { filmCaption, frameSeconds } from '../films/filmWords';
import { useBlockField } from '../useShared';
import { PictureCaption, useCaption } from './PictureCaption';
import { type BlockProps, type BlockView } from './block';

function FilmView({ id }: BlockProps) {
  const notebook = useNotebook();
  const block = notebook.document.block(id);
  const film = useBlockField(block, 'film');
  const frame = useBlockField(block, 'photograph');
  const seconds = frameSeconds(useBlockField(block, 'seconds'));
  const said = useCaption(id);
  const video = useRef<HTMLVideoElement>(null);
  const [isMissing, setIsMissing] = useState(false);
  const [isTaking, setIsTaking] = useState(false);
  const poster = typeof frame === 'string' ? notebook.addressOfPhotograph(frame) : undefined;
  const takeFrame = async () => {
    if (video.current === null || isTaking) return;
    setIsTaking(true);
    video.current.pause();
    const taken = video.current;
    await attempt(async () => notebook.setFrame(id, await frameOf(taken)));
    setIsTaking(false);
  };
  return (
    <figure className="photograph-block film-block">
      {isMissing || typeof film !== 'string' ? (
        <p className="refused">This film cannot be played here. Is Heuristor still running?</p>
      ) : (
        <video
          ref={video}
          src={notebook.addressOfFilm(film)}
          poster={poster}
          controls
          muted
          playsInline
          preload="metadata"
          aria-label={said === '' ? 'Film without a caption' : said}
          onError={() => setIsMissing(true)}
        />
      )}
      {poster !== undefined && <img className="film-frame" src={poster} alt={filmCaption(said, seconds)} />}
      <p className="film-said quiet small">
        In print stands the frame at {seconds.toFixed(2)} s.
        {notebook.mayWrite && (
          <Button variant="link" aria-busy={isTaking} onClick={() => void takeFrame()}>
            Print the frame that is seen
          </Button>
        )}
      </p>
      <PictureCaption id={id} what="film" />
    </figure>
  );
}

const useName = (id: string): string => useCaption(id) || 'Film';

export const filmBlock: BlockView = {
  kind: 'film',
  title: 'Film',
  Icon: CameraReels,
  View: FilmView,
  useName,
};
