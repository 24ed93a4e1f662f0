import { pairedSchema } from '@heuristor/contracts';
import { useEffect, useRef, useState } from 'react';
import { Button, Form } from 'react-bootstrap';
import { request, sentenceOf } from '../api/client';
import { MotionSender, canMeasure } from './motionSender';

const kept = 'heuristor-phone-token';

/** The page of a phone that becomes a sensor of acceleration: a code lets it in, and it posts what it measures. */
export default function PhonePage() {
  const [token, setToken] = useState(() => localStorage.getItem(kept));
  return (
    <main className="phone">
      <h1>Heuristor</h1>
      {token === null ? (
        <LetIn
          onToken={(wanted) => {
            localStorage.setItem(kept, wanted);
            setToken(wanted);
          }}
        />
      ) : (
        <Measuring
          token={token}
          onLeave={() => {
            localStorage.removeItem(kept);
            setToken(null);
          }}
        />
      )}
    </main>
  );
}

function LetIn({ onToken }: { onToken: (token: string) => void }) {
  const [code, setCode] = useState('');
  const [name, setName] = useState('Phone');
  const [fault, setFault] = useState<string | null>(null);
  const letIn = async () => {
    try {
      onToken(pairedSchema.parse(await request('POST', '/phones', { code, name })).token);
    } catch (error) {
      setFault(sentenceOf(error));
    }
  };
  return (
    <Form
      className="editor-rows"
      onSubmit={(event) => {
        event.preventDefault();
        void letIn();
      }}
    >
      <p>This phone becomes a sensor of acceleration. Type the code that stands on the teacher’s screen.</p>
      <Form.Control
        aria-label="Code"
        placeholder="six letters and digits"
        value={code}
        maxLength={12}
        autoCapitalize="characters"
        autoComplete="off"
        onChange={(event) => setCode(event.target.value)}
      />
      <Form.Control
        aria-label="Name of this phone"
        value={name}
        maxLength={40}
        onChange={(event) => setName(event.target.value)}
      />
      {fault !== null && (
        <p className="refused" role="alert">
          {fault}
        </p>
      )}
      <Button type="submit" variant="act" disabled={code.trim() === '' || name.trim() === ''}>
        Let it in
      </Button>
    </Form>
  );
}

function Measuring({ token, onLeave }: { token: string; onLeave: () => void }) {
  const [state, setState] = useState<'resting' | 'measuring' | { fault: string }>('resting');
  const [sent, setSent] = useState(0);
  const sender = useRef<MotionSender | null>(null);
  useEffect(() => () => sender.current?.stop(), []);
  const begin = async () => {
    const refused = await canMeasure();
    if (refused !== null) {
      setState({ fault: refused });
      return;
    }
    sender.current = new MotionSender(token, setSent, (fault) => setState({ fault }));
    sender.current.start();
    setState('measuring');
  };
  const end = () => {
    sender.current?.stop();
    setState('resting');
  };
  return (
    <div className="editor-rows">
      <p role="status">
        {state === 'measuring'
          ? `Measuring: ${sent} readings sent. Connect this phone on the bench, and leave its screen on.`
          : typeof state === 'object'
            ? state.fault
            : 'It is let in.'}
      </p>
      {state === 'measuring' ? (
        <Button variant="plain" onClick={end}>
          Stop
        </Button>
      ) : (
        <Button variant="act" onClick={() => void begin()}>
          Measure
        </Button>
      )}
      <Button
        variant="plain"
        onClick={() => {
          end();
          onLeave();
        }}
      >
        Forget this Heuristor
      </Button>
    </div>
  );
}
