import { type Way } from '@heuristor/contracts';
import { Dropdown } from 'react-bootstrap';
import { Circle, RecordCircle } from 'react-bootstrap-icons';
import { useDocuments, useSession } from '../session/context';
import { leavingLine } from '../session/planBeforeLine';
import { FixedMenu } from '../ui/FixedMenu';

const ways: readonly { way: Way; title: string; about: string }[] = [
  { way: 'time', title: 'Against time', about: 'Readings one after the other, or every pass of a gate' },
  {
    way: 'spot',
    title: 'Spot readings',
    about: 'Set something by hand, type its value, take one reading',
  },
  {
    way: 'away',
    title: 'Away from the computer',
    about: 'A device records by itself, is carried off, and comes back with its run',
  },
  {
    way: 'pace',
    title: 'Following a line',
    about: 'Move so that the trace stays on a line that is drawn before',
  },
];

/** How is recorded: it changes what stands in the middle, and nothing else. */
export function WayMenu({ disabled }: { disabled: boolean }) {
  const session = useSession();
  const present = useDocuments(({ plan }) => plan.way);
  const shown = ways.find(({ way }) => way === present) ?? ways[0];
  return (
    <Dropdown as="span" className="way-menu">
      <Dropdown.Toggle
        as="button"
        type="button"
        className="plan-part no-caret"
        disabled={disabled}
        aria-label={`Way of recording: ${shown.title}`}
      >
        {shown.title}
      </Dropdown.Toggle>
      :
      <FixedMenu>
        {ways.map(({ way, title, about }) => (
          <Dropdown.Item
            key={way}
            as="button"
            role="menuitemradio"
            aria-checked={way === present}
            onClick={() => {
              const { plan } = session.documents.getState();
              if (way !== present) void session.plan.change({ ...leavingLine(session, plan), way });
            }}
          >
            {way === present ? <RecordCircle aria-hidden /> : <Circle aria-hidden />} {title}
            <div className="quiet small">{about}</div>
          </Dropdown.Item>
        ))}
      </FixedMenu>
    </Dropdown>
  );
}
