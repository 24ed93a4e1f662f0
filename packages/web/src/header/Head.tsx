import { type ReactNode, useEffect, useRef } from 'react';
import { Button } from 'react-bootstrap';
import { useHotkeys } from 'react-hotkeys-hook';
import { Link } from 'react-router';
import { request } from '../api/client';
import { useDevices } from '../sensors/devices';
import { toggleDecimalSign, useDecimalSign } from '../ui/decimalSign';
import { togglePresenter, usePresenter } from '../ui/presenter';
import { PageLinks } from './PageLinks';

type Storage = ReturnType<typeof useDevices.getState>['storage'];

/** What hinders storing, in words; null where nothing does. */
function storageWords({ away, waiting, disk, free }: Storage): string | null {
  if (disk === 'full')
    return `The disk of this server is full. ${waiting ? 'Readings wait in memory' : 'Nothing can be stored'} until there is room on it.`;
  if (waiting) return 'The database does not answer; readings wait in memory.';
  if (away) return 'The database does not answer; trying again …';
  if (disk === 'low')
    return `The disk of this server is nearly full: ${Math.round((free ?? 0) / 1e6)} MB are left.`;
  return null;
}

/** The page is made anew where numbers are written otherwise; the hand is where it was. */
let isSignToggled = false;

interface Props {
  children?: ReactNode;
  /** What can be asked for on this page, before what every page has. */
  actions?: ReactNode;
}

/** The bar on top of every page. */
export function Head({ children, actions }: Props) {
  const online = useDevices((state) => state.online);
  const storage = useDevices((state) => state.storage);
  const large = usePresenter((state) => state.large);
  const sign = useDecimalSign((state) => state.sign);
  useHotkeys('p', togglePresenter);
  const signButton = useRef<HTMLButtonElement>(null);
  useEffect(() => {
    if (isSignToggled) signButton.current?.focus();
    isSignToggled = false;
  }, []);
  const signOut = async () => {
    await request('POST', '/sign-out');
    location.assign('/');
  };
  return (
    <header className="head">
      <Button
        variant="act"
        className="visually-hidden-focusable skip-link"
        onClick={() => {
          const main = document.querySelector('main');
          main?.setAttribute('tabindex', '-1');
          main?.focus();
        }}
      >
        Skip to what the page is for
      </Button>
      <Link to="/" className="brand">
        Heuristor
      </Link>
      {children}
      {!online && (
        <span className="hint" role="status">
          No connection to Heuristor; trying again …
        </span>
      )}
      {online && storageWords(storage) !== null && (
        <span className="hint" role="status">
          {storageWords(storage)}
        </span>
      )}
      <nav aria-label="Pages">
        <PageLinks />
        {actions}
        <Button
          variant="on-ink"
          ref={signButton}
          onClick={() => {
            isSignToggled = true;
            toggleDecimalSign();
          }}
          className="wide-only"
          aria-label={
            sign === ',' ? '1,5: decimal comma; press for a point' : '1.5: decimal point; press for a comma'
          }
          title="How numbers are written here: with a point or a comma. Both are read where you type."
        >
          {sign === ',' ? '1,5' : '1.5'}
        </Button>
        <Button variant="on-ink" onClick={togglePresenter} aria-pressed={large} className="wide-only">
          Presenter size <kbd>P</kbd>
        </Button>
        <Button variant="on-ink" onClick={() => void signOut()} className="wide-only">
          Sign out
        </Button>
      </nav>
    </header>
  );
}
