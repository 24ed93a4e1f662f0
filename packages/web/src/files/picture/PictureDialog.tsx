import { useEffect, useState } from 'react';
import { Button, Form, Modal } from 'react-bootstrap';
import { useDialog, useSession } from '../../investigation/context';
import { NumberField } from '../../ui/NumberField';
import { pictureChoices } from './content';
import { type PictureWish, formsOf } from '../forms';
import { png } from '../forms/png';
import { saveAs } from '../forms/save';
import { copyPicture } from './copy';

const sizes = [
  { key: 'screen', title: 'half a page', width: 760, height: 520 },
  { key: 'page', title: 'a page across', width: 1120, height: 720 },
  { key: 'slide', title: 'a slide', width: 1280, height: 720 },
  { key: 'strip', title: 'a flat strip', width: 1120, height: 360 },
] as const;

const [least, most] = [200, 4000];
const checkSize = (value: number) =>
  value >= least && value <= most
    ? null
    : `A picture is ${least} to ${most} across and high. Type one of these.`;

const pictureForms = formsOf('picture');

/** Makes a picture of the page, or of one of its traces. */
export function PictureDialog() {
  const asked = useDialog('picture');
  return asked === undefined ? null : <OpenDialog only={asked.only} />;
}

function OpenDialog({ only }: { only: string | null }) {
  const session = useSession();
  const [wish, setWish] = useState<PictureWish>({ only, width: 1120, height: 720, sharpness: 2 });
  const [preview, setPreview] = useState<{ url: string } | { fault: string } | null>(null);
  const choices = pictureChoices(session);
  const { close } = session.dialogs;
  useEffect(() => {
    let isWanted = true;
    let url: string | null = null;
    png.write(session, { ...wish, sharpness: 1 }).then(
      (blob) => {
        if (!isWanted) return;
        url = URL.createObjectURL(blob);
        setPreview({ url });
      },
      (error: unknown) => {
        if (isWanted) setPreview({ fault: error instanceof Error ? error.message : String(error) });
      },
    );
    return () => {
      isWanted = false;
      if (url !== null) URL.revokeObjectURL(url);
    };
  }, [session, wish]);
  const chosen = sizes.find(({ width, height }) => width === wish.width && height === wish.height);
  return (
    <Modal show onHide={close} size="lg" animation={false} aria-labelledby="picture-dialog">
      <Modal.Header closeButton closeLabel="Close">
        <Modal.Title id="picture-dialog">A picture</Modal.Title>
      </Modal.Header>
      <Modal.Body className="picture-dialog">
        <div className="picture-fields">
          <Form.Select
            aria-label="Of what"
            value={wish.only ?? ''}
            onChange={({ target }) => setWish({ ...wish, only: target.value === '' ? null : target.value })}
          >
            <option value="">Of the whole page</option>
            {choices.map(({ key, symbol }) => (
              <option key={key} value={key}>
                Of the trace of {symbol}
              </option>
            ))}
          </Form.Select>
          <Form.Select
            aria-label="Size"
            value={chosen?.key ?? 'own'}
            onChange={({ target }) => {
              const size = sizes.find(({ key }) => key === target.value);
              if (size !== undefined) setWish({ ...wish, width: size.width, height: size.height });
            }}
          >
            {sizes.map(({ key, title }) => (
              <option key={key} value={key}>
                For {title}
              </option>
            ))}
            {chosen === undefined && <option value="own">As typed</option>}
          </Form.Select>
          <span className="picture-size">
            <NumberField
              label="Width in points"
              value={wish.width}
              check={checkSize}
              onCommit={(width) => setWish({ ...wish, width: Math.round(width) })}
            />
            ×
            <NumberField
              label="Height in points"
              value={wish.height}
              check={checkSize}
              onCommit={(height) => setWish({ ...wish, height: Math.round(height) })}
            />
          </span>
          <Form.Select
            aria-label="Sharpness"
            value={wish.sharpness}
            onChange={({ target }) => setWish({ ...wish, sharpness: Number(target.value) })}
          >
            {[1, 2, 3].map((sharpness) => (
              <option key={sharpness} value={sharpness}>
                {sharpness === 1 ? 'as on a screen' : `${sharpness} times as sharp`}: {wish.width * sharpness}{' '}
                × {wish.height * sharpness} pixels
              </option>
            ))}
          </Form.Select>
        </div>
        <div className="picture-preview">
          {preview === null ? (
            <p className="quiet">Drawing …</p>
          ) : 'fault' in preview ? (
            <p className="refused">{preview.fault}</p>
          ) : (
            <img src={preview.url} alt="The picture as it will be" />
          )}
        </div>
      </Modal.Body>
      <Modal.Footer>
        <Button variant="plain" onClick={() => void copyPicture(session, wish)}>
          Copy
        </Button>
        {pictureForms.map((form) => (
          <Button
            key={form.extension}
            variant={form === pictureForms.at(-1) ? 'act' : 'plain'}
            onClick={() =>
              void saveAs(form, session.documents.getState().name, () => form.write(session, wish))
            }
          >
            Save {form.title}
          </Button>
        ))}
      </Modal.Footer>
    </Modal>
  );
}
