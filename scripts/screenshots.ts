import { mkdirSync } from 'node:fs';
import { resolve } from 'node:path';
import { BenchHand } from '../e2e/support/bench';
import { pause, startSystem } from '../e2e/support/system';
import { buildWeb } from './build';
import { startCluster } from './cluster';
import { loadDemoData } from './demoData';
import { runScript, say } from './plain';

const folder = 'docs/screenshots';

/** Takes the pictures of the documentation from the demo data, in the real application. */
runScript(async (ending) => {
  buildWeb();
  mkdirSync(folder, { recursive: true });
  const cluster = await startCluster(resolve('.test-data'), { durable: false, signal: ending });
  process.env.HEURISTOR_TEST_DATABASE = cluster.address;
  const system = await startSystem(loadDemoData);
  const hand = new BenchHand(system.page);
  const { page } = system;
  const take = async (name: string) => {
    await pause(600);
    await page.screenshot({ path: `${folder}/${name}.png` });
    say(`${folder}/${name}.png`);
  };
  try {
    await system.open(`/sign-in/${await system.signInToken()}`);
    await hand.waitForText('Channel buoy: soft and stiff spring');
    await take('home');
    const stage = await system.newPage('/stage');
    const onStage = async (title: string, text: string) => {
      await stage.bringToFront();
      const button = await stage.waitForSelector(
        `[aria-label="${title}"] ::-p-xpath(.//button[normalize-space()="${text}"])`,
      );
      await button?.click();
      await pause(150);
    };
    await (await hand.element('::-p-xpath(//a[contains(., "Channel buoy")])')).click();
    await hand.result('sine through x', 'period');
    await hand.connect('K7-D');
    await hand.press('Zero');
    await hand.waitForText('Zeroed less than a minute ago', 8000);
    await page.mouse.move(596, 230);
    await take('bench-workings');
    await onStage('Channel buoy on its spring', 'Pull it down and hold');
    await onStage('Channel buoy on its spring', 'Let go');
    await page.bringToFront();
    await page.keyboard.press('Space');
    await hand.waitForText('Space stops');
    await pause(5200);
    await take('bench-recording');
    await onStage('Model lifeboat on its slipway', 'Let go');
    await pause(900);
    await stage.screenshot({ path: `${folder}/stage.png` });
    say(`${folder}/stage.png`);
  } finally {
    await system.close();
    await cluster.stop();
  }
  process.exit(0);
});
