import { Dropdown } from 'react-bootstrap';
import { Circle, RecordCircle } from 'react-bootstrap-icons';
import { useDocuments, useInvestigation } from '../investigation/context';
import { leavingLine } from './plan/planBeforeLine';
import { wayOf, ways } from './ways';
import { FixedMenu } from '../ui/FixedMenu';

/** How is recorded: it changes what stands in the middle, and nothing else. */
export function WayMenu({ disabled }: { disabled: boolean }) {
  const session = useInvestigation();
  const present = useDocuments(({ plan }) => plan.way);
  const shown = wayOf({ way: present });
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
