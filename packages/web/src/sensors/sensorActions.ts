import { type Calibration, type Device, type SetupPatch } from '@heuristor/contracts';
import { type StoreApi } from 'zustand/vanilla';
import { request } from '../api/client';
import { useDevices } from './devices';
import { attempt, attemptInOrder } from '../api/attempt';
import { type History } from '../investigation/history';
import { type Documents, type View } from '../investigation/state';

const sensorPath = (place: string, code: string) => `${place}/sensors/${encodeURIComponent(code)}`;
const devicePath = (code: string) => `/devices/${encodeURIComponent(code)}`;

/** The sensors of an investigation: which it uses, how they are set up and calibrated; every change can be taken back. */
export class SensorActions {
  constructor(
    /** Where the server has the investigation. */
    private readonly place: string,
    private readonly history: History,
    private readonly documents: StoreApi<Documents>,
    private readonly view: StoreApi<View>,
  ) {}

  /** Uses a device from now on, or no longer; one that was taken over from another investigation goes back there when undone. */
  async use(code: string, used: boolean): Promise<void> {
    const owner = useDevices.getState().devices.find((device) => device.code === code)?.use ?? null;
    const send = (wanted: boolean) =>
      attemptInOrder(async () => {
        const isGivenBack = !wanted && used && owner !== null && !this.place.endsWith(owner.investigation);
        if (isGivenBack) await request('PUT', sensorPath(`/investigations/${owner.investigation}`, code));
        else await request(wanted ? 'PUT' : 'DELETE', this.path(code));
        const { sensors } = this.documents.getState();
        if (wanted && !sensors.includes(code))
          this.documents.setState({ sensors: [...sensors, code].sort() });
      });
    if (!(await send(used))) return;
    if (!used && this.view.getState().setUp === code) this.view.setState({ setUp: null });
    this.history.push({
      name: used ? `use ${code}` : `put ${code} away`,
      undo: () => void send(!used),
      redo: () => void send(used),
    });
  }

  /** Changes how a device is used here; `before` is what it takes to have it back. */
  async setUp(code: string, patch: SetupPatch, before: SetupPatch): Promise<void> {
    const send = (wanted: SetupPatch) => attemptInOrder(() => request('PATCH', this.path(code), wanted));
    if (await send(patch))
      this.history.push({
        name: `set up ${code}`,
        undo: () => void send(before),
        redo: () => void send(patch),
      });
  }

  /** Zeros channels of a device, or all that are on. */
  async zero({ code, calibration }: Device, channels?: string[]): Promise<void> {
    const path = devicePath(code);
    if (!(await attemptInOrder(() => request('POST', `${path}/zero`, { channels })))) return;
    const put = (wanted: Calibration) =>
      void attemptInOrder(() => request('PUT', `${path}/calibration`, wanted));
    // By the time that it is taken back, the new zero has come with the devices.
    let zeroed = calibration;
    this.history.push({
      name: `zero ${code}`,
      undo: () => {
        zeroed = useDevices.getState().devices.find((device) => device.code === code)?.calibration ?? zeroed;
        put(calibration);
      },
      redo: () => put(zeroed),
    });
  }

  /** Changes what belongs to a device wherever it is used: zeros, two-point calibration, its own numbers. */
  async calibrate(code: string, calibration: Calibration, before: Calibration): Promise<void> {
    const send = (wanted: Calibration) =>
      attemptInOrder(() => request('PUT', `${devicePath(code)}/calibration`, wanted));
    if (await send(calibration))
      this.history.push({
        name: `calibrate ${code}`,
        undo: () => void send(before),
        redo: () => void send(calibration),
      });
  }

  /** Lets a device show which of a dozen it is. */
  async flash(code: string): Promise<void> {
    await attempt(() => request('POST', `${devicePath(code)}/flash`));
  }

  private path(code: string): string {
    return sensorPath(this.place, code);
  }
}
