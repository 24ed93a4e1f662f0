import {
  type Import,
  type ImportAnswer,
  type ImportNames,
  importSchema,
  largestImportBytes,
} from '@heuristor/contracts';
import { useEffect, useRef, useState } from 'react';
import { Button, Modal, ProgressBar } from 'react-bootstrap';
import { ApiError, getJson, postFile, request, sentenceOf } from '../api/client';
import { live } from '../api/live';
import { useDialog, useInvestigation } from '../investigation/context';
import { type InvestigationSession } from '../investigation/investigationSession';
import { attempt } from '../api/attempt';
import { isFaultless, namesAsRead } from './importNames';
import { tell } from '../ui/noticeStore';
import { ImportChoices } from './ImportChoices';
import { ImportPreview } from './ImportPreview';

const megabytes = largestImportBytes / 1024 / 1024;

/** What may be brought in, said wherever a file is chosen. */
export const importLimit = `up to ${megabytes} MB`;

/** Begins to bring in a file of columns; it is shown before anything is stored. */
export function bringIn(session: Pick<InvestigationSession, 'dialogs'>, file: File): void {
  if (file.size > largestImportBytes)
    tell({
      kind: 'fault',
      text: `“${file.name}” is too large: a file may have ${megabytes} MB. Split it into several.`,
    });
  else session.dialogs.ask('file', { file });
}

export function ImportDialog() {
  const file = useDialog('file')?.file;
  return file === undefined ? null : <Dialog key={`${file.name}${file.lastModified}`} file={file} />;
}

/** As the file itself says. */
const asRead = { axis: { kind: 'as-read' as const }, without: [] };

/** What became of a file. @throws ApiError */
const askFor = (id: string): Promise<Import> => getJson(`/imports/${id}`, importSchema);

function Dialog({ file }: { file: File }) {
  const session = useInvestigation();
  const { close } = session.dialogs;
  const [found, setFound] = useState<Import | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const [keeping, setKeeping] = useState(false);
  const isStoring = useRef(false);
  /** Names and units as they were mended; null where nobody has touched them. */
  const [mended, setMended] = useState<ImportNames | null>(null);
  useEffect(() => {
    let left = false;
    let id: string | null = null;
    /** What the stream has said is never older than what was asked for. */
    let hasHeard = false;
    const name = file.name.replace(/\.[^.]*$/, '');
    const stop = live.onMessage((message) => {
      // Said at every connection: the server may have been started anew, and reads the file once more.
      if (message.type === 'storage' && id !== null)
        void askFor(id).then(setFound, (error: unknown) => {
          // What does not answer right now says it when it is back.
          if (error instanceof ApiError && error.code === 'not-found') setFault(error.message);
        });
      if (message.type !== 'import' || message.import.id !== id) return;
      hasHeard = true;
      setFound(message.import);
    });
    postFile(
      `/investigations/${session.id}/imports?name=${encodeURIComponent(name)}&zone=${encodeURIComponent(Intl.DateTimeFormat().resolvedOptions().timeZone)}`,
      file,
    ).then(
      async (answer) => {
        const received = importSchema.parse(answer);
        id = received.id;
        if (left) {
          await request('DELETE', `/imports/${received.id}`);
          return;
        }
        setFound(received);
        // It may have been read before this page knew its id.
        const asked = await askFor(received.id);
        if (!hasHeard) setFound(asked);
      },
      (error: unknown) => setFault(sentenceOf(error)),
    );
    // A page that goes takes its file along, which would hold a place on the server that others wait for; what is being stored goes on.
    const onHide = () => {
      if (id !== null && !isStoring.current)
        void fetch(`/api/imports/${id}`, { method: 'DELETE', keepalive: true });
    };
    window.addEventListener('pagehide', onHide);
    return () => {
      window.removeEventListener('pagehide', onHide);
      left = true;
      stop();
    };
  }, [file, session.id]);
  const state = found?.state ?? null;
  useEffect(() => {
    if (state?.kind === 'stored') close();
    // Another reading of the file may have other columns.
    if (state?.kind === 'reading') setMended(null);
  }, [state, close]);
  const names = state?.kind === 'ready' ? (mended ?? namesAsRead(state)) : null;
  const cancel = () => {
    if (found !== null && state?.kind !== 'stored')
      void request('DELETE', `/imports/${found.id}`).catch(() => undefined);
    close();
  };
  const answer = (choices: ImportAnswer) =>
    void attempt(() => request('POST', `/imports/${found?.id ?? ''}/answer`, choices));
  const keep = async () => {
    setKeeping(true);
    isStoring.current = true;
    const kept = await attempt(() =>
      request('POST', `/imports/${found?.id ?? ''}/keep`, mended === null ? {} : { runs: mended }),
    );
    if (kept) close();
    else {
      isStoring.current = false;
      setKeeping(false);
    }
  };
  return (
    <Modal show onHide={cancel} size="lg" animation={false} aria-labelledby="import-title">
      <Modal.Header closeButton closeLabel="Discard this file">
        <Modal.Title id="import-title">{file.name}</Modal.Title>
      </Modal.Header>
      <Modal.Body>
        {fault !== null && <p className="refused">{fault}</p>}
        {fault === null && names === null && <ImportState state={state} />}
        {fault === null && names !== null && state?.kind === 'ready' && (
          <>
            <ImportChoices state={state} onAnswer={answer} />
            <ImportPreview state={state} names={names} onChange={setMended} />
          </>
        )}
      </Modal.Body>
      <Modal.Footer>
        <Button variant="plain" onClick={cancel}>
          {fault !== null || state?.kind === 'refused' ? 'Close' : 'Cancel'}
        </Button>
        {state?.kind === 'refused' && found !== null && (
          <Button variant="plain" onClick={() => answer({ layout: asRead })}>
            Read it again this way
          </Button>
        )}
        {state?.kind === 'question' && (
          <>
            <Button variant="act" onClick={() => answer({ decimal: ',' })}>
              The comma is a decimal comma
            </Button>
            <Button variant="act" onClick={() => answer({ decimal: '.' })}>
              The comma separates thousands
            </Button>
          </>
        )}
        {state?.kind === 'ready' && (
          <Button
            variant="act"
            onClick={() => void keep()}
            disabled={keeping || names === null || !isFaultless(names)}
          >
            {state.layout.axis.kind === 'spots'
              ? 'Bring in as spot readings'
              : state.runs.length === 1
                ? 'Bring in as a run'
                : `Bring in as ${state.runs.length} runs`}
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
      return null;
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
