import { useStore } from 'zustand';
import { Button } from 'react-bootstrap';
import { Speedometer2, XLg } from 'react-bootstrap-icons';
import { useInvestigation } from '../investigation/context';
import { useShown } from '../workings/useShown';
import { Pointer } from './Pointer';
import { TileFace } from './TileFace';
import { chooseBeside, tileChoiceOf } from './tileChoice';
import { useTiles } from './useTiles';

/** Values that stand beside the traces, as numbers or as pointers, also while a run is recorded. */
export function BesideTiles() {
  const { id } = useInvestigation();
  const hasAny = useStore(tileChoiceOf(id), ({ beside }) => beside.length > 0);
  return hasAny ? <Tiles id={id} /> : null;
}

function Tiles({ id }: { id: string }) {
  const chosen = useStore(tileChoiceOf(id), ({ beside }) => beside);
  const tiles = useTiles();
  const shown = chosen.map(({ key, look }) => ({ key, look, tile: tiles.find((one) => one.key === key) }));
  useShown(
    'inFront',
    shown.flatMap(({ tile }) => tile?.entryId ?? []),
  );
  return (
    <section className="beside-tiles" aria-label="Values beside the traces">
      {shown.map(({ key, look, tile }) => {
        const name = tile?.name ?? key.replace(/^\w+:/, '');
        return (
          <div key={key} className="beside-tile" data-tile={key}>
            {tile === undefined ? (
              <p className="quiet">
                {key.startsWith('cursor:')
                  ? 'Put the cursor on a trace.'
                  : key.startsWith('live:')
                    ? `${name} is not read now.`
                    : 'There is no such value for this run.'}
              </p>
            ) : (
              <>
                {look === 'pointer' && <Pointer tile={tile} />}
                <TileFace tile={tile} />
              </>
            )}
            <div className="tile-tools">
              <Button
                variant="bare"
                aria-pressed={look === 'pointer'}
                aria-label={`${name} as a pointer on a scale`}
                title="As a pointer on a scale"
                onClick={() => chooseBeside(id, key, look === 'pointer' ? 'number' : 'pointer')}
              >
                <Speedometer2 aria-hidden />
              </Button>
              <Button
                variant="bare"
                aria-label={`Take ${name} away from beside the traces`}
                onClick={() => chooseBeside(id, key, null)}
              >
                <XLg aria-hidden />
              </Button>
            </div>
          </div>
        );
      })}
    </section>
  );
}
