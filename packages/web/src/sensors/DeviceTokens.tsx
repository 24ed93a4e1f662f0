import {
  type MadeToken,
  type Pairing,
  deviceTokenSchema,
  madeTokenSchema,
  pairingSchema,
} from '@heuristor/contracts';
import { formatDistanceToNow } from 'date-fns';
import { useState } from 'react';
import { Button, Form, Modal, Table } from 'react-bootstrap';
import { z } from 'zod';
import { request } from '../api/client';
import { attempt } from '../api/attempt';
import { askAnew, useServer } from '../api/queries';

const path = '/device-tokens';
const tokensSchema = z.array(deviceTokenSchema);

/** Devices that bring their readings over HTTP: what lets them in is made and withdrawn here. */
export function DeviceTokens({ onClose }: { onClose: () => void }) {
  const { answer: tokens, fault } = useServer(path, tokensSchema);
  const [made, setMade] = useState<MadeToken | null>(null);
  const [pairing, setPairing] = useState<Pairing | null>(null);
  const [name, setName] = useState('');
  const make = () =>
    attempt(async () => {
      setMade(madeTokenSchema.parse(await request('POST', path, { name })));
      setName('');
      await askAnew(path);
    });
  const withdraw = (id: number) =>
    attempt(async () => {
      await request('DELETE', `${path}/${id}`);
      await askAnew(path);
    });
  return (
    <Modal show onHide={onClose} size="lg" animation={false} aria-labelledby="tokens-title">
      <Modal.Header closeButton closeLabel="Close">
        <Modal.Title id="tokens-title">Phones and devices on the network</Modal.Title>
      </Modal.Header>
      <Modal.Body className="editor-rows">
        <section>
          <h3>A phone</h3>
          {pairing === null ? (
            <div className="editor-row">
              <span>It measures its own acceleration in its browser, and lets itself in by a code.</span>
              <Button
                variant="act"
                onClick={() =>
                  void attempt(async () =>
                    setPairing(pairingSchema.parse(await request('POST', `${path}/pairing`))),
                  )
                }
              >
                Show a code
              </Button>
            </div>
          ) : (
            <p>
              Open <span className="mono">{`${location.origin}/phone`}</span> on the phone and type{' '}
              <strong className="mono pairing-code">{pairing.code}</strong> within ten minutes. Where the
              phone does not reach this address, take the one under which it reaches this computer.
            </p>
          )}
        </section>
        <section>
          <h3>Another device or program</h3>
          <Form
            className="editor-row"
            onSubmit={(event) => {
              event.preventDefault();
              void make();
            }}
          >
            <Form.Control
              size="sm"
              aria-label="Name of the new device"
              placeholder="weather hut, my script …"
              value={name}
              maxLength={40}
              onChange={(event) => setName(event.target.value)}
            />
            <Button type="submit" variant="act" disabled={name.trim() === ''}>
              Make a token
            </Button>
          </Form>
          {made !== null && (
            <div className="made-token">
              <p>
                The token of “{made.name}” is shown now and never again. It posts SenML (RFC 8428) with it:
              </p>
              <pre className="mono small">{`curl ${location.origin}/api/senml \\
  -H 'Authorization: Bearer ${made.token}' \\
  -H 'Content-Type: application/senml+json' \\
  -d '[{"n":"temp","u":"Cel","v":21.5}]'`}</pre>
            </div>
          )}
        </section>
        {fault !== null && <p className="refused">{fault}</p>}
        {tokens !== null && tokens.length > 0 && (
          <Table size="sm">
            <thead>
              <tr className="quiet">
                <th scope="col">Let in</th>
                <th scope="col">Code</th>
                <th scope="col">Last used</th>
                <th scope="col" aria-label="Revoke" />
              </tr>
            </thead>
            <tbody>
              {tokens.map(({ id, name: own, code, usedAt }) => (
                <tr key={id}>
                  <td>{own}</td>
                  <td className="mono">{code}</td>
                  <td>
                    {usedAt === null ? 'never' : formatDistanceToNow(new Date(usedAt), { addSuffix: true })}
                  </td>
                  <td>
                    <Button variant="plain" size="sm" onClick={() => void withdraw(id)}>
                      Revoke
                    </Button>
                  </td>
                </tr>
              ))}
            </tbody>
          </Table>
        )}
      </Modal.Body>
    </Modal>
  );
}
