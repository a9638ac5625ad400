/** Pictures of the main views, from the demo set, of the application as it is served: npm run shots [-- URL folder] */
import { openTo } from '../src/core/drives';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { By } from 'selenium-webdriver';
import { eventually, find, findText, openBrowser } from '../e2e/support/browser';
import { StudioPage } from '../e2e/support/studio';
import { exportDesign } from '../src/core/formats/export';
import { checkDesign } from '../src/core/document/schema';

const [base = 'http://127.0.0.1:3000', folder = 'docs/screenshots', only] = process.argv.slice(2);

async function main(): Promise<void> {
  const { driver } = await openBrowser();
  const shot = async (name: string): Promise<void> => {
    if (only && !only.split(',').includes(name)) return;
    await driver.sleep(1500);
    writeFileSync(`${folder}/${name}.png`, Buffer.from(await driver.takeScreenshot(), 'base64'));
    console.log(name);
  };
  const settled = async (): Promise<void> => {
    await eventually(
      driver,
      'the proof to end',
      async () => !(await driver.findElement(By.css('body')).getText()).includes('proving…'),
    );
  };
  try {
    await driver.get(base);
    await new StudioPage(driver, base).pictured();
    await shot('start');
    const open = async (name: string): Promise<void> => {
      await driver.get(base);
      await (await find(driver, `[data-open="${name}"]`)).click();
      await find(driver, '[data-testid=posed] canvas');
    };
    const go = async (stage: string): Promise<void> => (await findText(driver, 'nav/button', stage)).click();
    await open('Terrace night');
    await settled();
    await (await find(driver, '[data-mechanism=gallery]')).click();
    await driver.sleep(2500);
    await shot('build');
    await driver.actions().sendKeys('n').perform();
    await driver.sleep(2500);
    await shot('add');
    await driver.actions().sendKeys('\uE00C').perform();
    await open('Dome skyline');
    await settled();
    await (await find(driver, '[data-mechanism=ridge]')).click();
    await driver.sleep(4000);
    await shot('struts');
    await open('Dome on the shelf');
    await settled();
    await (await find(driver, '[data-state=shelf]')).click();
    await driver.sleep(2500);
    await shot('standing');
    await open('Dome note');
    await settled();
    await go('Dress');
    await driver.sleep(1500);
    await (await find(driver, '[data-asset=hours]')).click();
    await driver.sleep(2000);
    await shot('workshop');
    await (await findText(driver, 'dialog/div/div/button', 'Close')).click();
    await (await findText(driver, 'button', 'Layers')).click();
    await (await find(driver, '[data-layer-row=planet]')).click();
    await shot('dress');
    await (await findText(driver, 'button', 'Shapes')).click();
    await (await findText(driver, 'button', 'Bring in a shape…')).click();
    await driver.sleep(2500);
    await shot('bring');
    const files = mkdtempSync(join(tmpdir(), 'rhabdoplex-shots-'));
    await driver.actions().sendKeys('\uE00C').perform();
    await open('Terrace night');
    await settled();
    await go('Dress');
    await (await findText(driver, 'button', 'Whole template…')).click();
    const read = checkDesign(JSON.parse(readFileSync('examples/terrace-night.json', 'utf8')));
    if (!read.ok) throw new Error(read.why);
    const template = join(files, 'terrace.svg');
    writeFileSync(template, await exportDesign(read.design, { format: 'svg', state: openTo(90) }));
    await (await find(driver, '[aria-label="Template file"]')).sendKeys(template);
    await driver.sleep(2500);
    await shot('template');
    await driver.actions().sendKeys('\uE00C').perform();
    await open('Orrery');
    await settled();
    await (await find(driver, '[data-mechanism=lamps]')).click();
    await (await find(driver, '[data-drive="planets.pull"]')).click();
    const strip = await find(driver, '[data-testid=travel]');
    await strip.sendKeys('\uE00E', '\uE00E');
    await driver.sleep(2500);
    await shot('hand');
    await go('Sheets');
    await driver.sleep(2000);
    await (await findText(driver, 'button', 'Lay out tighter')).click();
    await driver.sleep(8000);
    await (await findText(driver, 'button', 'Keep the best now')).click();
    await driver.sleep(1500);
    await (await find(driver, '[data-piece="lamps.wheel"]')).click();
    await shot('sheets');
    await go('Make');
    await driver.sleep(3500);
    await shot('make');
    await (await findText(driver, 'label', 'cutter')).click();
    await (await find(driver, 'section[aria-label="Simulated cutter"] option[value="sheet 1"]')).click();
    await (await findText(driver, 'button', 'Start cutting')).click();
    await driver.sleep(5000);
    await shot('cutter');
    await go('Build');
    await (await find(driver, '[data-mechanism=lamps]')).click();
    await driver.actions().sendKeys('n').perform();
    await (await findText(driver, 'label', 'a face')).click();
    await driver.sleep(4000);
    await shot('face');
    await driver.actions().sendKeys('\uE00C').perform();
    await open('Refractor evening');
    await settled();
    await go('Brief');
    await shot('brief');
    await go('Dress');
    await driver.actions().sendKeys('o').perform();
    await (await findText(driver, 'button', 'Facet and mats')).click();
    await (await find(driver, 'select[aria-label=Facet] option[value=leafB]')).click();
    await (await findText(driver, 'button', 'cover')).click();
    await shot('outside');
    await go('Build');
    await (await find(driver, '[data-mechanism=refractor]')).click();
    await driver.executeScript(`document.documentElement.classList.add('dark')`);
    await driver.sleep(2500);
    await shot('build-dark');
    await open('Sky survey (two faults)');
    await settled();
    await go('Prove');
    await (await find(driver, '[data-mechanism=table]')).click();
    await driver.sleep(6000);
    await shot('prove');
    await open('Terrace night');
    await settled();
    await go('Prove');
    await (await find(driver, '[role=tab][data-value=scatter]')).click();
    await (await findText(driver, 'button', 'Make 400 cards')).click();
    await (await find(driver, '[data-testid=study][data-done=true]')).click();
    await driver.executeScript("document.querySelector('[data-testid=study]').scrollIntoView()");
    await shot('scatter');
  } finally {
    await driver.quit();
  }
}
void main();
