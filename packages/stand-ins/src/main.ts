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

// "disconnect": whoever started this process is gone, and nobody else would end it.
for (const event of ['SIGINT', 'SIGTERM', 'disconnect'] as const)
  process.on(event, () => {
    for (const client of clients) client.close();
    process.exit(0);
  });
