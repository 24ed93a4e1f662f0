import { type SeriesRef } from '@heuristor/core';
import { type MouseEvent, type ReactNode, useRef, useState } from 'react';
import { Button, ButtonToolbar, Dropdown, Form } from 'react-bootstrap';
import { Trash3, XLg } from 'react-bootstrap-icons';
import { useShallow } from 'zustand/react/shallow';
import { useDocuments, useNames, usePicture, useSession, useView } from '../../investigation/context';
import { highlighterPaint } from '../../runs/runStyles';
import { pageIn } from '../../traces/pages/pages';
import { FixedMenu } from '../../ui/FixedMenu';
import { useWidth } from '../../ui/useWidth';
import { AsideMenu } from '../asides/AsideMenu';
import { withEntry } from '../edits';
import { isFilledIn } from '../filledIn';
import { removeEntry } from '../entries/removing';
import { OfferValue, labelOf } from './OfferValue';
import { type ValuedOffer, likelyOffers, rankedFits } from './ranking';
import { useOffered } from './useOffered';

/** Room that all but the likely offers take in the bar, and that one of these takes beside its letters, in pixels of a usual screen. */
const roomOfRest = 400;
const roomOfOffer = 78;
const roomOfLetter = 6.6;
const usualLetters = 16;

/** So many of the offers as there is room for, and one at least. */
function fitting(offers: readonly ValuedOffer[], room: number): ValuedOffer[] {
  let left = room;
  return offers.filter(({ offer }, i) => {
    left -= roomOfOffer + roomOfLetter * offer.title.length;
    return i === 0 || left >= 0;
  });
}

/** Whether what can be worked out on the selected region is offered. */
export const useIsOffering = (): boolean => {
  const selected = useView(({ selectedRegion, isOffering }) => (isOffering ? selectedRegion : null));
  const isThere = useDocuments(({ workings }) => workings.entries.some(({ id }) => id === selected));
  const hasTraces = usePicture(({ traces }) => traces.some(({ reference }) => reference !== null));
  return isThere && hasTraces;
};

/**
 * What can be worked out on the selected region, under the traces: the likely first, each with the value that would come of it. One
 * press keeps it, and the bar has served.
 */
export function OffersBar() {
  const selected = useView(({ selectedRegion }) => selectedRegion);
  // Of a region that is dragged, nothing changes here.
  const letter = useDocuments(({ workings }) => {
    const region = workings.entries.find(({ id }) => id === selected);
    return region?.kind === 'region' ? region.letter : null;
  });
  const wanted = useView(({ selectedSeries }) => selectedSeries);
  const choices = usePicture(
    useShallow(({ traces }) =>
      traces.map(({ reference }) => reference).filter((reference) => reference !== null),
    ),
  );
  const series = choices.find((choice) => choice === wanted) ?? choices[0];
  if (selected === null || letter === null || series === undefined) return null;
  return <Bar id={selected} letter={letter} of={series} choices={choices} />;
}

interface BarProps {
  id: string;
  letter: string;
  of: SeriesRef;
  choices: readonly SeriesRef[];
}

function Bar({ id, letter, of, choices }: BarProps) {
  const session = useSession();
  const nameOf = useNames();
  const { offers, relations, isBehind } = useOffered(of, id);
  const bar = useRef<HTMLDivElement>(null);
  const width = useWidth(bar);
  const letters = parseFloat(getComputedStyle(document.documentElement).fontSize) / usualLetters;
  const likely = fitting(likelyOffers(offers, relations), width / letters - roomOfRest);
  const keep = ({ offer: { kind, preset } }: ValuedOffer, event: MouseEvent) => {
    session.changeWorkings((workings) => {
      const made = withEntry(workings, session.onPage, { kind, preset, of, region: id });
      if (isFilledIn(kind)) session.viewing.openEntry(made.id);
      return made.workings;
    });
    // Who holds Shift keeps several.
    if (!event.shiftKey) session.viewing.closeOffers();
  };
  const inGroup = (group: string) => offers.filter(({ offer }) => offer.group === group);
  const chooseBySight = () =>
    session.dialogs.ask('relations', {
      of,
      against: pageIn(session.workings, session.onPage.page).horizontal,
      region: id,
      entry: null,
    });
  const addLabel = () => {
    const panel = session.picture
      .getState()
      .traces.find(({ quantities }) => quantities.some(({ reference }) => reference === of));
    if (panel !== undefined) session.addLabel(panel.key, { kind: 'region', region: id }, '');
  };
  const remove = () => {
    const entry = session.workings.entries.find((candidate) => candidate.id === id);
    if (entry !== undefined) removeEntry(session, entry, nameOf);
  };
  return (
    <ButtonToolbar
      ref={bar}
      className={`offers ${isBehind ? 'late' : ''}`}
      aria-label={`Work out on region ${letter}`}
      aria-busy={isBehind}
    >
      <span className="badge-letter" style={{ background: highlighterPaint(letter).fill }} aria-hidden>
        {letter}
      </span>
      <Form.Select
        aria-label="Series"
        value={of}
        onChange={({ target }) => session.viewing.selectSeries(target.value as SeriesRef)}
      >
        {choices.map((choice) => (
          <option key={choice} value={choice}>
            {nameOf(choice)}
          </option>
        ))}
      </Form.Select>
      {likely.map((one) => (
        <Button
          key={one.offer.title}
          variant="bare"
          className="offer"
          data-offer={one.offer.title}
          title={`Keep ${labelOf(one.offer, one.outcome)} in the workings; with Shift, the bar stays`}
          onClick={(event) => keep(one, event)}
        >
          {one.offer.title} <OfferValue outcome={one.outcome} />
        </Button>
      ))}
      <span className="offer-menus">
        <OfferMenu title="measure" offers={inGroup('measure')} onKeep={keep} />
        <OfferMenu title="fit" offers={rankedFits(inGroup('fit'), relations)} onKeep={keep}>
          <Dropdown.Item as="button" onClick={chooseBySight}>
            Relations by sight …
          </Dropdown.Item>
        </OfferMenu>
        <OfferMenu title="look" offers={inGroup('look')} onKeep={keep}>
          <Dropdown.Item as="button" onClick={() => session.regions.lookAt()}>
            Nothing but this region
          </Dropdown.Item>
          <Dropdown.Item as="button" onClick={chooseBySight}>
            Relations by sight …
          </Dropdown.Item>
          <Dropdown.Item as="button" onClick={addLabel}>
            Label on it
          </Dropdown.Item>
        </OfferMenu>
        <AsideMenu of={of} region={id} />
        <Button
          variant="bare"
          aria-label={`Remove region ${letter}`}
          title="Remove the region"
          onClick={remove}
        >
          <Trash3 aria-hidden />
        </Button>
        <Button
          variant="bare"
          aria-label="Close the offers"
          title="Close (Escape)"
          onClick={() => session.viewing.selectRegion(null)}
        >
          <XLg aria-hidden />
        </Button>
      </span>
    </ButtonToolbar>
  );
}

interface MenuProps {
  title: string;
  offers: readonly ValuedOffer[];
  onKeep: (offer: ValuedOffer, event: MouseEvent) => void;
  children?: ReactNode;
}

/** All offers of one group, each with its value where it is known, or why there is none. */
function OfferMenu({ title, offers, onKeep, children }: MenuProps) {
  // What is open stays in its order: a hand is on its way to one of them, whatever comes to be known meanwhile.
  const [kept, setKept] = useState<readonly string[] | null>(null);
  const placeOf = ({ offer }: ValuedOffer) => kept?.indexOf(offer.title) ?? 0;
  const shown = [...offers].sort((one, other) => placeOf(one) - placeOf(other));
  return (
    <Dropdown
      drop="up"
      onToggle={(isOpening) => setKept(isOpening ? offers.map(({ offer }) => offer.title) : null)}
    >
      <Dropdown.Toggle variant="bare" data-offers={title}>
        {title}
      </Dropdown.Toggle>
      <FixedMenu className="tall-menu offer-menu">
        {shown.map((one) => (
          <Dropdown.Item
            key={one.offer.title}
            as="button"
            data-offer={one.offer.title}
            onClick={(event: MouseEvent) => onKeep(one, event)}
          >
            <span>{labelOf(one.offer, one.outcome)}</span> <OfferValue outcome={one.outcome} />
          </Dropdown.Item>
        ))}
        {children !== undefined && offers.length > 0 && <Dropdown.Divider />}
        {children}
      </FixedMenu>
    </Dropdown>
  );
}
