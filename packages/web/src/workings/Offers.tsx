import { type SeriesRef, entryKindKeys, kindOf } from '@heuristor/core';
import { Button, ButtonToolbar, Form } from 'react-bootstrap';
import { Trash3, XLg } from 'react-bootstrap-icons';
import { useShallow } from 'zustand/react/shallow';
import { useNames, usePicture, useSession, useView } from '../investigation/context';
import { withEntry } from './edits';
import { removeEntry } from './entries/removing';
import { pageIn } from '../traces/pages/pages';
import { type Sight } from '../workers/protocol';
import { AsideMenu } from './asides/AsideMenu';
import { type RegionBounds, axisHeight, pixelOf } from '../traces/geometry';

const offersWidth = 700;
/** Where there is less room than this, the relations are folded into one menu. */
const narrowWidth = 560;

/** What can be worked out on a region, as the kinds declare it. */
export const regionOffers = entryKindKeys
  .filter((kind) => kindOf(kind).offered === 'region')
  .flatMap((kind) => kindOf(kind).offers.map((offer) => ({ kind, ...offer })))
  .filter(({ isFolded }) => isFolded !== true);

/** What can be worked out on the selected region, right beside it. */
export function Offers({ region, sight, width }: { region: RegionBounds; sight: Sight; width: number }) {
  const session = useSession();
  const nameOf = useNames();
  const wanted = useView(({ selectedSeries }) => selectedSeries);
  const choices = usePicture(
    useShallow(({ traces }) =>
      traces.map(({ reference }) => reference).filter((reference) => reference !== null),
    ),
  );
  const series = choices.find((choice) => choice === wanted) ?? choices[0];
  if (series === undefined) return null;
  const left = Math.max(Math.min(pixelOf(region.start, sight, width) + 8, width - offersWidth), 0);
  const isNarrow = width < narrowWidth;
  const plain = regionOffers.filter(({ kind }) => !isNarrow || kind !== 'fit');
  const workOut = ({ kind, preset }: (typeof regionOffers)[number]) =>
    session.changeWorkings(
      (workings) =>
        withEntry(workings, session.onPage, { kind, preset, of: series, region: region.id }).workings,
    );
  return (
    <ButtonToolbar
      className="offers"
      // Under the traces, over the numbers of their axis: it hides nothing of what was recorded.
      style={{ left, maxWidth: width, top: `calc(100% - ${axisHeight() - 2}px)` }}
      aria-label={`Work out on region ${region.letter}`}
      onPointerDown={(event) => event.stopPropagation()}
      onWheel={(event) => event.stopPropagation()}
    >
      <Form.Select
        aria-label="Series"
        value={series}
        onChange={(event) => session.viewing.selectSeries(event.target.value as SeriesRef)}
      >
        {choices.map((choice) => (
          <option key={choice} value={choice}>
            {nameOf(choice)}
          </option>
        ))}
      </Form.Select>
      {plain.map((offer) => (
        <Button key={offer.title} variant="bare" onClick={() => workOut(offer)}>
          {offer.title}
        </Button>
      ))}
      <Button
        variant="bare"
        onClick={() =>
          session.dialogs.ask('relations', {
            of: series,
            against: pageIn(session.workings, session.onPage.page).horizontal,
            region: region.id,
            entry: null,
          })
        }
      >
        {isNarrow ? 'relations …' : 'more relations …'}
      </Button>
      <Button
        variant="bare"
        onClick={() => {
          const panel = session.picture
            .getState()
            .traces.find(({ quantities }) => quantities.some(({ reference }) => reference === series));
          if (panel !== undefined) session.addLabel(panel.key, { kind: 'region', region: region.id }, '');
        }}
      >
        label
      </Button>
      <AsideMenu of={series} region={region.id} />
      <Button
        variant="bare"
        aria-label={`Remove region ${region.letter}`}
        title="Remove the region"
        onClick={() => {
          const entry = session.workings.entries.find(({ id }) => id === region.id);
          if (entry !== undefined) removeEntry(session, entry, nameOf);
        }}
      >
        <Trash3 aria-hidden />
      </Button>
      <Button variant="bare" aria-label="Close the offers" onClick={() => session.viewing.selectRegion(null)}>
        <XLg aria-hidden />
      </Button>
    </ButtonToolbar>
  );
}
