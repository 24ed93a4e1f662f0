import { type InvestigationSummary } from '@heuristor/contracts';
import { useState } from 'react';
import { Button, Form, Modal } from 'react-bootstrap';
import { useNavigate } from 'react-router';
import { sentenceOf } from '../../api/client';
import { useInvestigations } from '../../home/useInvestigations';
import { useDialog, useSession } from '../../investigation/context';
import { copyEntry } from './copying';
import { tell } from '../../ui/noticeStore';

/** Asks to which other investigation an entry is copied. */
export function CopyEntry() {
  const entry = useDialog('copy');
  return entry === undefined ? null : <OpenCopy {...entry} />;
}

function OpenCopy({ id, called }: { id: string; called: string }) {
  const session = useSession();
  const navigate = useNavigate();
  const [wanted, setWanted] = useState('');
  const { list, total, more, fault: unread } = useInvestigations(wanted);
  const [refused, setFault] = useState<string | null>(null);
  const fault = refused ?? unread;
  const [isBusy, setIsBusy] = useState(false);
  const { close } = session.dialogs;
  const copy = async (target: InvestigationSummary) => {
    if (isBusy) return;
    setIsBusy(true);
    try {
      const text = await copyEntry(session.documents.getState(), id, target);
      tell({
        kind: 'news',
        text,
        action: { label: 'Open it', run: () => void navigate(`/investigations/${target.id}`) },
      });
      close();
    } catch (error) {
      setFault(sentenceOf(error));
      setIsBusy(false);
    }
  };
  const words = wanted.trim();
  const others = (list ?? []).filter((one) => one.id !== session.id);
  return (
    <Modal show onHide={close} scrollable aria-labelledby="copy-title" animation={false}>
      <Modal.Header closeButton>
        <Modal.Title id="copy-title">Copy “{called}” to</Modal.Title>
      </Modal.Header>
      <Modal.Body>
        {fault !== null && (
          <p role="alert" className="text-danger">
            {fault}
          </p>
        )}
        <p className="quiet small">
          What it uses is copied too, unless it is there already: channels are matched by what they measure;
          regions, series and constants by what is in them.
        </p>
        {(total > 6 || words !== '') && (
          <Form.Control
            aria-label="Find an investigation"
            placeholder="Find"
            value={wanted}
            onChange={({ target }) => setWanted(target.value)}
          />
        )}
        <div className="copy-targets">
          {others.map((one) => (
            <Button key={one.id} variant="plain" disabled={isBusy} onClick={() => void copy(one)}>
              {one.name}
            </Button>
          ))}
          {list !== null && list.length < total && (
            <Button variant="bare" onClick={() => void more()}>
              Show more
            </Button>
          )}
          {list !== null && others.length === 0 && (
            <p className="quiet">There is no other investigation{words === '' ? ' yet' : ' of that name'}.</p>
          )}
        </div>
      </Modal.Body>
    </Modal>
  );
}
