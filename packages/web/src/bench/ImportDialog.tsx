import { type Import, importSchema, largestImportBytes } from '@heuristor/contracts';
import { parseUnit, printedUnit } from '@heuristor/core';
import { useEffect, useState } from 'react';
import { Button, Modal, ProgressBar } from 'react-bootstrap';
import { create } from 'zustand';
import { postFile, request, sentenceOf } from '../api/client';
import { live } from '../api/live';
import { useSession } from '../session/context';
import { attempt } from '../session/benchSession';
import { tell } from '../stores/notices';

interface DialogState {
  file: File | null;
}

const useDialog = create<DialogState>(() => ({ file: null }));

const megabytes = largestImportBytes / 1024 / 1024;

/** What may be brought in, said wherever a file is chosen. */
export const importLimit = `up to ${megabytes} MB`;

/** Begins to bring in a file of columns; it is shown before anything is stored. */
export function bringIn(file: File): void {
  if (file.size > largestImportBytes)
    tell({
      kind: 'fault',
      text: `“${file.name}” is too large: a file may have ${megabytes} MB. Split it into several.`,
    });
  else useDialog.setState({ file });
}

export function ImportDialog() {
  const file = useDialog((state) => state.file);
  return file === null ? null : <Dialog key={`${file.name}${file.lastModified}`} file={file} />;
}

const close = () => useDialog.setState({ file: null });

function Dialog({ file }: { file: File }) {
  const session = useSession();
  const [found, setFound] = useState<Import | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  useEffect(() => {
    let left = false;
    let id: string | null = null;
    const name = file.name.replace(/\.[^.]*$/, '');
    const stop = live.onMessage((message) => {
      if (message.type === 'import' && message.import.id === id) setFound(message.import);
    });
    postFile(`/investigations/${session.id}/imports?name=${encodeURIComponent(name)}`, file).then(
      async (answer) => {
        const received = importSchema.parse(answer);
        id = received.id;
        if (left) {
          await request('DELETE', `/imports/${received.id}`);
          return;
        }
        setFound(received);
        // It may have been read before this page knew its id.
        const response = await fetch(`/api/imports/${received.id}`);
        setFound(importSchema.parse(await response.json()));
      },
      (error: unknown) => setFault(sentenceOf(error)),
    );
    return () => {
      left = true;
      stop();
    };
  }, [file, session.id]);
  const state = found?.state ?? null;
  useEffect(() => {
    if (state?.kind === 'stored') close();
  }, [state]);
  const cancel = () => {
    if (found !== null && state?.kind !== 'stored')
      void request('DELETE', `/imports/${found.id}`).catch(() => undefined);
    close();
  };
  const answer = (decimal: '.' | ',') =>
    void attempt(() => request('POST', `/imports/${found?.id ?? ''}/answer`, { decimal }));
  const keep = () =>
    void attempt(() => request('POST', `/imports/${found?.id ?? ''}/keep`)).then((kept) => kept && close());
  return (
    <Modal show onHide={cancel} size="lg" animation={false} aria-labelledby="import-title">
      <Modal.Header closeButton closeLabel="Give up this file">
        <Modal.Title id="import-title">{file.name}</Modal.Title>
      </Modal.Header>
      <Modal.Body>
        {fault !== null && <p className="refused">{fault}</p>}
        {fault === null && <ImportState state={state} />}
      </Modal.Body>
      <Modal.Footer>
        <Button variant="plain" onClick={cancel}>
          {fault !== null || state?.kind === 'refused' ? 'Close' : 'Cancel'}
        </Button>
        {state?.kind === 'question' && (
          <>
            <Button variant="act" onClick={() => answer(',')}>
              The comma is a decimal comma
            </Button>
            <Button variant="act" onClick={() => answer('.')}>
              The comma separates thousands
            </Button>
          </>
        )}
        {state?.kind === 'ready' && (
          <Button variant="act" onClick={keep}>
            {state.runs.length === 1 ? 'Keep as a run' : `Keep as ${state.runs.length} runs`}
          </Button>
        )}
      </Modal.Footer>
    </Modal>
  );
}

function ImportState({ state }: { state: Import['state'] | null }) {
  if (state === null) return <Progress words="Sending the file …" share={null} />;
  switch (state.kind) {
    case 'reading':
      return <Progress words="Reading …" share={state.share} />;
    case 'storing':
      return <Progress words="Storing …" share={state.share} />;
    case 'stored':
      return <p>Stored.</p>;
    case 'refused':
      return <p className="refused">{state.sentence}</p>;
    case 'question':
      return (
        <p>
          Is “{state.example}” a little more than {state.example.split(',')[0].replace('-', '−')}, or
          thousands? Nothing else in the file decides it.
        </p>
      );
    case 'ready':
      return <Preview state={state} />;
  }
}

function Progress({ words, share }: { words: string; share: number | null }) {
  return (
    <>
      <p>{words}</p>
      <ProgressBar
        now={share === null ? 100 : Math.round(share * 100)}
        animated={share === null}
        label={share === null ? undefined : `${Math.round(share * 100)} %`}
      />
    </>
  );
}

function Preview({ state }: { state: Extract<Import['state'], { kind: 'ready' }> }) {
  return (
    <>
      <p className="quiet">
        {state.rows.toLocaleString('en')} rows · separated by {state.separator} · decimal{' '}
        {state.decimal === '.' ? 'point' : 'comma'} · {state.encoding}
      </p>
      {state.runs.map(({ name, channels }) => (
        <div key={name} className="import-run">
          <strong>{name}</strong>
          <table>
            <tbody>
              {channels.map((channel) => (
                <tr key={channel.name}>
                  <th>
                    {channel.name}
                    {channel.unit === '1' ? '' : ` / ${printedUnit(parseUnit(channel.unit))}`}
                  </th>
                  <td className="quiet">
                    {channel.count.toLocaleString('en')} readings against {channel.against}
                  </td>
                  <td className="mono">
                    {channel.first
                      .map((value) => (value === null ? '—' : String(value).replace('-', '−')))
                      .join('  ')}{' '}
                    …
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      ))}
    </>
  );
}
