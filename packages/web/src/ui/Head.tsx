import { type ReactNode, useEffect, useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { Link, NavLink } from 'react-router';
import { useDevices } from '../stores/devices';

/** The bar on top of every page. */
export function Head({ children, nav }: { children?: ReactNode; nav?: ReactNode }) {
  const online = useDevices((state) => state.online);
  const storageWaiting = useDevices((state) => state.storageWaiting);
  const [presenter, setPresenter] = useState(() => localStorage.getItem('presenter') === 'true');
  useEffect(() => {
    document.documentElement.dataset.presenter = String(presenter);
    localStorage.setItem('presenter', String(presenter));
    window.dispatchEvent(new Event('resize'));
  }, [presenter]);
  useHotkeys('p', () => setPresenter((value) => !value));
  return (
    <header className="head">
      <Link to="/" className="brand">
        Heuristor
      </Link>
      {children}
      {!online && <span className="hint">No connection to Heuristor; trying again …</span>}
      {storageWaiting && <span className="hint">The database does not answer; readings wait in memory.</span>}
      <nav aria-label="Pages">
        {nav}
        <NavLink to="/stage">Stage</NavLink>
        <button className="head-button" onClick={() => setPresenter(!presenter)} aria-pressed={presenter}>
          Presenter size <kbd>P</kbd>
        </button>
      </nav>
    </header>
  );
}
