import { type ComponentProps } from 'react';
import { Dropdown } from 'react-bootstrap';

type Props = Omit<ComponentProps<typeof Dropdown.Menu>, 'popperConfig'>;

/** Where a menu has room neither below nor above what opens it, it is moved until all of it is seen. */
const fixed = {
  strategy: 'fixed' as const,
  modifiers: [{ name: 'preventOverflow', options: { altAxis: true, tether: false, padding: 4 } }],
};

/**
 * The menu of a dropdown that nothing around it cuts off. It is fixed before it is placed for the first time, too: placed while it
 * still stands where the page flows, it would come to lie in a corner of the window.
 */
export const FixedMenu = ({ className = '', ...props }: Props) => (
  <Dropdown.Menu {...props} popperConfig={fixed} className={`fixed-menu ${className}`.trim()} />
);
