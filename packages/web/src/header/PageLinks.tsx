import { createContext, useContext } from 'react';
import { NavLink } from 'react-router';

/** A tab of the bar on top: a page that is one press away. */
export interface PageLink {
  to: string;
  title: string;
  /** Marked only where its very address is open, and not what lies below it. */
  isExact: boolean;
}

const LinksContext = createContext<readonly PageLink[]>([{ to: '/stage', title: 'Stage', isExact: false }]);

/** What is open says which pages it has; outside of it, the Stage stands alone. */
export const PageLinksProvider = LinksContext;

export function PageLinks() {
  return useContext(LinksContext).map(({ to, title, isExact }) => (
    <NavLink key={to} to={to} end={isExact}>
      {title}
    </NavLink>
  ));
}
