import { startBrowser } from './browser';
const [,, name = '', path = '', out = '/tmp/shot.png', ...steps] = process.argv;
const address = process.env.LINK ?? 'http://127.0.0.1:4710/';
const browser = await startBrowser('/tmp/look-prof');
const page = await browser.newPage();
await page.setViewport({ width: Number(process.env.W ?? 1280), height: Number(process.env.H ?? 800) });
page.on('pageerror', (e) => console.log('PAGEERROR', String(e)));
page.on('console', (m) => { if (m.type() === 'error') console.log('CONSOLE', m.text()); });
await page.goto(address, { waitUntil: 'load' });
await new Promise((r) => setTimeout(r, 1500));
const list = await page.evaluate(async () => (await (await fetch('/api/investigations')).json()));
const all = (list.investigations ?? list);
if (name === '') { console.log(all.map((i: any) => `${i.id} ${i.name} runs ${i.runCount}`).join('\n')); await browser.close(); process.exit(); }
const found = all.find((i: any) => i.name.includes(name));
await page.goto(new URL(`/investigations/${found.id}${path}`, address).href, { waitUntil: 'load' });
await new Promise((r) => setTimeout(r, 3500));
for (const step of steps) {
  const [kind, ...rest] = step.split(':'); const what = rest.join(':');
  try {
  if (kind === 'wait') await new Promise((r) => setTimeout(r, Number(what)));
  else if (kind === 'key') await page.keyboard.press(what as any);
  else if (kind === 'type') await page.keyboard.type(what);
  else if (kind === 'click') { const h = await page.$(`::-p-text(${what})`); await h?.click(); }
  else if (kind === 'aria') { const h = await page.$(`::-p-aria(${what})`); if (!h) console.log('no', what); await h?.click(); }
  else if (kind === 'css') { await page.click(what); }
  else if (kind === 'select') { const [sel, val] = what.split('='); await page.evaluate((s, v) => { const el = document.querySelector(`[aria-label="${s}"]`) as HTMLSelectElement; const opt=[...el.options].find(o=>o.text===v); el.value = opt!.value; el.dispatchEvent(new Event('change', {bubbles:true})); }, sel, val); }
  else if (kind === 'shot') await page.screenshot({ path: what as any });
  else if (kind === 'text') console.log(await page.$eval(what, (e) => (e as HTMLElement).innerText));
  } catch (e) { console.log('STEP', step, String(e)); }
  await new Promise((r) => setTimeout(r, 400));
}
await page.screenshot({ path: out as any });
await browser.close(); process.exit();
