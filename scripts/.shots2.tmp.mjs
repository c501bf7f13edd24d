import { spawn } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { By, until, Key } from 'selenium-webdriver';
import { openChromium } from '/work/main/scripts/chromium.mjs';
const folder = mkdtempSync('/tmp/shots2-');
const wombat = spawn(process.execPath, ['/work/main/demo/dist/start-demo.js'], { env: { ...process.env, PORT: '0', WOMBAT_DATA: folder, DATABASE_URL: '' }, stdio: ['ignore', 'pipe', 'inherit'] });
const address = await new Promise((r) => wombat.stdout.on('data', (p) => /http:\S+/.exec(p) && r(/http:\S+/.exec(p)[0])));
const { driver, close } = await openChromium();
const see = (p) => driver.wait(until.elementLocated(By.xpath(p)), 40000);
const click = async (n) => (await see(`(//button[starts-with(normalize-space(),'${n}')] | //a[starts-with(normalize-space(),'${n}')])[1]`)).click();
const pic = async (n) => { await driver.sleep(1200); writeFileSync(`/tmp/p-${n}.png`, await driver.takeScreenshot(), 'base64'); console.log(n); };
try {
  await driver.get(`${address}/sign-in`); await see(`//h2[contains(.,'demo district')]`); await click('Morwenna Oake'); await see('//h1');
  const schools = await (await driver.executeAsyncScript(`const cb=arguments[arguments.length-1]; fetch('/api/schools').then(r=>r.json()).then(cb)`));
  console.log(JSON.stringify(schools));
  const lines = await driver.executeAsyncScript(`const cb=arguments[arguments.length-1]; fetch('/api/schools/2/term-line').then(r=>r.json()).then(t=>cb(t.periods.map(p=>[p.id,p.kind,p.name])))`);
  console.log(JSON.stringify(lines));
  const p2 = lines.find((l) => /2/.test(l[2]) && l[1] === 'trimester')?.[0] ?? lines.at(-1)[0];
  for (const [n, path] of [['gpa', 'school/1/period/4/scales?view=gpa'], ['used', 'school/1/period/4/scales?view=in-force'], ['items-primary', `school/2/period/${p2}/report-items`]]) { await driver.get(`${address}/${path}`); await see('//h1'); await pic(n); }
  const scales = await driver.executeAsyncScript(`const cb=arguments[arguments.length-1]; fetch('/api/scales?period=${p2}').then(r=>r.json()).then(t=>cb(t.scales.map(s=>[s.id,s.name,s.kind,s.highestLevel])))`);
  console.log(JSON.stringify(scales));
  const lv = scales.find((s) => s[3] !== null);
  await driver.get(`${address}/school/2/period/${p2}/scales?scale=${lv[0]}`); await see('//h1'); await pic('levels');
  await driver.get(`${address}/school/2/period/${p2}/grade-sheets`); await see('//h1'); await pic('sheets-primary');
  await driver.get(`${address}/school/2/period/${p2}/report-items?item=202`); await see('//h1'); await click('Edit'); await pic('item-dialog');
  await driver.get(`${address}/school/1/period/4/calendar`); await see('//h1'); await click('Copy onto'); await click('Copy 3'); await driver.sleep(2500); await pic('two-years');
  await driver.findElement(By.css('body')).sendKeys('/'); await driver.sleep(400); await driver.actions().sendKeys('quarter').perform(); await pic('search');
} catch (e) { console.log(String(e)); await pic('error'); } finally { await close(); wombat.kill('SIGTERM'); }
