import { useRef } from 'react';
import { CloseButton, Dropdown } from 'react-bootstrap';
import { CheckSquare, Square } from 'react-bootstrap-icons';
import { useStore } from 'zustand';
import { useDocuments, useInvestigation, useView } from '../investigation/context';
import { recordingRun } from '../runs/runs';
import { FixedMenu } from '../ui/FixedMenu';
import { useFocusInside } from '../ui/useFocusInside';
import { useShown } from '../workings/useShown';
import { TileFace } from './TileFace';
import { chooseBeside, chooseLarge, tileChoiceOf } from './tileChoice';
import { type Tile } from './tiles';
import { useTiles, usualKeys } from './useTiles';

/** Of so many, each still fills the width. */
const mostInOneColumn = 3;

/** Quantities and results in digits that fill the screen, for the last row. */
export function LargeDigits() {
  const isOpen = useView(({ hasDigits }) => hasDigits);
  return isOpen ? <OpenDigits /> : null;
}

function OpenDigits() {
  const session = useInvestigation();
  const { id } = session;
  const panel = useRef<HTMLElement>(null);
  const isRecording = useDocuments(({ runs }) => recordingRun(runs) !== undefined);
  const all = useTiles();
  const { large, beside } = useStore(tileChoiceOf(id));
  const shown = large.length > 0 ? large : usualKeys(all);
  const tiles = shown.flatMap((key) => all.find((one) => one.key === key) ?? []);
  useShown(
    'inFront',
    tiles.flatMap(({ entryId }) => entryId ?? []),
  );
  const close = () => session.viewing.showDigits(false);
  useFocusInside(panel);
  const groups = [...new Set(all.map(({ group }) => group))];
  const toggle = (key: string) =>
    chooseLarge(id, shown.includes(key) ? shown.filter((other) => other !== key) : [...shown, key]);
  const isBeside = (key: string) => beside.some((one) => one.key === key);
  const item = ({ key, title }: Tile, isOn: boolean, onPress: () => void) => (
    <Dropdown.Item key={key} as="button" role="menuitemcheckbox" aria-checked={isOn} onClick={onPress}>
      {isOn ? <CheckSquare aria-hidden /> : <Square aria-hidden />} {title}
    </Dropdown.Item>
  );
  const menu = (called: string, isOn: (key: string) => boolean, press: (key: string) => void) => (
    <Dropdown autoClose="outside">
      <Dropdown.Toggle variant="plain">{called}</Dropdown.Toggle>
      <FixedMenu className="tall-menu">
        {groups.map((group) => (
          <div key={group} role="group" aria-label={group}>
            <Dropdown.Header>{group}</Dropdown.Header>
            {all
              .filter((one) => one.group === group)
              .map((one) => item(one, isOn(one.key), () => press(one.key)))}
          </div>
        ))}
      </FixedMenu>
    </Dropdown>
  );
  const columns = tiles.length > mostInOneColumn ? 2 : 1;
  return (
    <section
      ref={panel}
      className="digit-wall"
      aria-label="Large digits"
      tabIndex={-1}
      onKeyDown={(event) => {
        // In a menu that is open it closes no more than that.
        const isInMenu = panel.current?.querySelector('.dropdown-menu.show') != null;
        if (event.key === 'Escape' && !isInMenu) close();
      }}
    >
      <header>
        {menu('Show', (key) => shown.includes(key), toggle)}
        {menu('Beside the traces', isBeside, (key) => chooseBeside(id, key, isBeside(key) ? null : 'number'))}
        <span className="quiet">Space records, Escape closes</span>
        {isRecording && <span className="recording-word">Recording</span>}
        <CloseButton aria-label="Close the large digits" onClick={close} />
      </header>
      {tiles.length === 0 ? (
        <p className="quiet">
          There is no live reading and no result yet. Connect a sensor, or work out something on a run.
        </p>
      ) : (
        <div className="digit-tiles" style={{ gridTemplateColumns: `repeat(${columns}, minmax(0, 1fr))` }}>
          {tiles.map((tile) => (
            <TileFace key={tile.key} tile={tile} />
          ))}
        </div>
      )}
    </section>
  );
}
