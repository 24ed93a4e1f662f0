import { Buoy } from './apparatus/buoy';
import { Lifeboat } from './apparatus/lifeboat';
import { MotionSensor } from './devices/motionSensor';
import { SampledApparatus } from './devices/sampledApparatus';
import { LinkClient } from './linkClient';

const url = process.env.HEURISTOR_LINK;
if (url === undefined) {
  process.stderr.write(
    'Set HEURISTOR_LINK to the address of the device link, e.g. ws://127.0.0.1:4600/link\n',
  );
  process.exit(2);
}

const clients = [
  new LinkClient(url, 'K7-D', new SampledApparatus(new Buoy(), new MotionSensor())),
  new LinkClient(url, 'K3-L', new SampledApparatus(new Lifeboat(), new MotionSensor())),
];

for (const signal of ['SIGINT', 'SIGTERM'] as const)
  process.on(signal, () => {
    for (const client of clients) client.close();
    process.exit(0);
  });
