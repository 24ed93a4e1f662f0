import { type Device } from '@heuristor/contracts';
import { useState } from 'react';
import { Button, Modal } from 'react-bootstrap';
import { PlusLg } from 'react-bootstrap-icons';
import { attemptInOrder } from '../api/attempt';
import { request } from '../api/client';
import { useDialog, useDocuments, useInvestigation } from '../investigation/context';
import { recordingRun } from '../runs/runs';
import { type Choice, ChoicePalette } from '../ui/ChoicePalette';
import { useDevices } from './devices';
import { DeviceTokens } from './DeviceTokens';
import { usedBy } from './sensors';

/** Opens the list of all devices. */
export function ConnectButton() {
  const session = useInvestigation();
  return (
    <Button variant="plain" onClick={() => session.dialogs.ask('connect', true)}>
      <PlusLg aria-hidden /> Connect
    </Button>
  );
}

/** All devices that there are, found by code, kind or place; and what is asked before one is taken from somebody. */
export function Connect() {
  const isAsked = useDialog('connect') === true;
  const [isNetwork, setIsNetwork] = useState(false);
  return (
    <>
      {isAsked && <OpenPalette onNetwork={() => setIsNetwork(true)} />}
      {isNetwork && <DeviceTokens onClose={() => setIsNetwork(false)} />}
      <TakeOver />
    </>
  );
}

function OpenPalette({ onNetwork }: { onNetwork: () => void }) {
  const session = useInvestigation();
  const choices = useDeviceChoices();
  return (
    <ChoicePalette
      title="Connect"
      label="Which device"
      placeholder="The code on its housing, what it measures, or where it stands"
      choices={[
        ...choices,
        {
          key: 'network',
          group: 'Not here yet',
          title: 'Phones and devices on the network …',
          words: 'phone tablet wireless token pair',
          isUsual: true,
          take: onNetwork,
        },
      ]}
      memory="connected"
      none="No device is called so. Is it switched on? Devices from other machines are let in under “Phones and devices on the network”."
      onClose={session.dialogs.close}
    />
  );
}

const quantitiesOf = ({ streams }: Device): string =>
  [...new Set(streams.flatMap(({ channels }) => channels.map(({ quantity }) => quantity)))].join(', ');

function useDeviceChoices(): Choice[] {
  const session = useInvestigation();
  const devices = useDevices((state) => state.devices);
  const isRecording = useDocuments(
    ({ runs, recorder }) => recordingRun(runs) !== undefined || recorder.phase !== 'idle',
  );
  const remembered = useDocuments(({ sensors }) => sensors);
  const mine = usedBy(devices, session.id);
  const others = devices.filter((device) => !mine.includes(device));
  const locked = isRecording ? { lacks: 'the end of this run' } : {};
  const here = others
    .filter(({ present, waiting }) => present && !waiting)
    .map((device): Choice => {
      const { code, model, stage, use } = device;
      const place = stage === null ? '' : `simulated: ${stage.title}`;
      return {
        key: code,
        mark: code,
        group: use === null ? 'On the link' : 'In use elsewhere',
        title: `${model} ${code}`,
        words: `${code} ${quantitiesOf(device)} ${place} ${use?.name ?? ''}`,
        about:
          use === null
            ? [quantitiesOf(device), place].filter(Boolean).join(' · ')
            : `in use in “${use.name}”`,
        isUsual: true,
        ...locked,
        take: () =>
          use === null
            ? void session.sensors.use(code, true)
            : session.dialogs.ask('takeOver', { code, model, from: use.name }),
      };
    });
  const waiting = others
    .filter((device) => device.waiting)
    .map(({ code, model }): Choice => ({
      key: `let in ${code}`,
      mark: code,
      group: 'On another machine',
      title: `Let in ${model} ${code}`,
      about: 'look at the code on its housing first',
      isUsual: true,
      staysOpen: true,
      take: () =>
        void attemptInOrder(() => request('POST', `/devices/${encodeURIComponent(code)}/admission`)),
    }));
  const gone = others.filter(({ present, waiting: waits }) => !present && !waits);
  const unknown = remembered.filter((code) => devices.every((device) => device.code !== code));
  const absent = [
    ...gone.map((device) => ({ code: device.code, model: device.model, battery: device.battery })),
    ...unknown.map((code) => ({ code, model: 'Sensor', battery: null })),
  ].map(({ code, model, battery }): Choice => ({
    key: `absent ${code}`,
    mark: code,
    group: 'Known, but not on the link',
    title: `${model} ${code}`,
    about: absentWords(battery),
    lacks: absentWords(battery),
    isUsual: true,
    take: () => undefined,
  }));
  return [
    ...here.filter(({ group }) => group === 'On the link'),
    ...here.filter(({ group }) => group !== 'On the link'),
    ...waiting,
    ...absent,
  ];
}

/** A battery that was this low may be empty by now. */
const lowBattery = 0.15;

/** Why a device may be away, as far as that is known, and what to press on it. */
const absentWords = (battery: number | null): string =>
  battery !== null && battery < lowBattery
    ? `to be charged: its battery was at ${Math.round(battery * 100)} %`
    : 'to be switched on, or its cable put in; it comes by itself';

/** A device that somebody uses is not taken without a question. */
function TakeOver() {
  const session = useInvestigation();
  const asked = useDialog('takeOver');
  const { close } = session.dialogs;
  if (asked === undefined) return null;
  const { code, model, from } = asked;
  return (
    <Modal show onHide={close} aria-labelledby="take-over-title" animation={false}>
      <Modal.Header closeButton>
        <Modal.Title id="take-over-title">
          {model} {code} is in use
        </Modal.Title>
      </Modal.Header>
      <Modal.Body>
        “{from}” reads it now. If it is taken over, that bench has it no longer; it is said there. Undo gives
        it back.
      </Modal.Body>
      <Modal.Footer>
        <Button variant="plain" onClick={close}>
          Leave it there
        </Button>
        <Button
          variant="act"
          autoFocus
          onClick={() => {
            close();
            void session.sensors.use(code, true);
          }}
        >
          Take it over
        </Button>
      </Modal.Footer>
    </Modal>
  );
}
