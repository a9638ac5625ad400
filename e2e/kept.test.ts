/** What a maker made is there again, however the page, the tab or the browser went. */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { By, Key, type WebDriver } from 'selenium-webdriver';
import type chrome from 'selenium-webdriver/chrome';
import { beforePages, eventually, find, findText, openBrowser, visit } from './support/browser';
import { session } from './support/session';
import { StudioPage } from './support/studio';

let driver: WebDriver;
let base: string;
let page: StudioPage;
session(420_000, (s) => {
  ({ driver, base, page } = s);
});
// Other tabs, killed browsers and ended workers: what the machine is doing meanwhile may make one wait in vain.
jest.retryTimes(2, { logErrorsBeforeRetry: true });
/** Changes that are made and looked for; RHABDOPLEX_TRIALS=50 for the measurement of docs/reliability.md. */
const TRIALS = Number(process.env.RHABDOPLEX_TRIALS ?? 10);
const DELAYS_MS = [0, 50, 100, 200];
const wait = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms));
const band = (text: string) => findText(driver, 'div[@role="status" or @role="alert"]', text);
/** A card of its own with one step, open in Build; its address. */
async function stepCard(of: StudioPage): Promise<string> {
  await of.beginCard();
  await of.press('n');
  await (await find(of.driver, 'dialog[open] [data-kind=step-fold]')).click();
  await eventually(of.driver, 'the step', async () => (await of.mechanisms()).includes('step-fold-1'));
  await of.field('depth');
  return of.driver.getCurrentUrl();
}
const show = async (of: StudioPage, address: string): Promise<void> => {
  await visit(of.driver, address);
  await (await find(of.driver, '[data-mechanism=step-fold-1]')).click();
  await of.field('depth');
};
/** Takes the tab to where nothing of the card is, and back. */
const again = async (address: string): Promise<void> => {
  await driver.get('about:blank');
  await show(page, address);
};

/** A card of its own, open in the Brief, which is drawn soonest. */
async function briefCard(of: StudioPage): Promise<string> {
  await of.beginCard();
  const address = `${await of.driver.getCurrentUrl()}&stage=brief`;
  await visit(of.driver, address);
  await of.field('reachA');
  return address;
}
const reach = async (of: StudioPage, address: string): Promise<string> => {
  await visit(of.driver, address);
  return of.valueOf('reachA');
};

describe('no change is lost', () => {
  test('two in five by reloading', async () => {
    await briefCard(page);
    const lost: number[] = [];
    for (let k = 0; k < TRIALS * 0.4; k++) {
      await page.type('reachA', String(100 + k));
      await wait(DELAYS_MS[k % 4]);
      await driver.navigate().refresh();
      if ((await page.valueOf('reachA')) !== String(100 + k)) lost.push(k);
    }
    expect(lost).toEqual([]);
  });
  test('two in five by closing the tab', async () => {
    const address = await briefCard(page);
    const lost: number[] = [];
    for (let k = 0; k < TRIALS * 0.4; k++) {
      const old = await driver.getWindowHandle();
      await driver.switchTo().newWindow('tab');
      const next = await driver.getWindowHandle();
      await driver.switchTo().window(old);
      await page.type('reachA', String(100 + k));
      await wait(DELAYS_MS[k % 4]);
      await driver.close();
      await driver.switchTo().window(next);
      if ((await reach(page, address)) !== String(100 + k)) lost.push(k);
    }
    expect(lost).toEqual([]);
  });
  test('one in five by killing the browser', async () => {
    const profile = mkdtempSync(join(tmpdir(), 'rhabdoplex-profile-'));
    let other = (await openBrowser(1280, 800, profile)).driver;
    const address = await briefCard(new StudioPage(other, base));
    const lost: number[] = [];
    for (let k = 0; k < TRIALS * 0.2; k++) {
      await new StudioPage(other, base).type('reachA', String(100 + k));
      await wait(DELAYS_MS[k % 4]);
      execFileSync('pkill', ['-9', '-f', '--', `--user-data-dir=${profile}`]);
      await Promise.race([other.quit().catch(() => undefined), wait(3000)]);
      // What the killed browser left lying would be taken for a running one.
      for (const left of ['DevToolsActivePort', 'SingletonLock', 'SingletonCookie', 'SingletonSocket'])
        rmSync(join(profile, left), { force: true });
      other = (await openBrowser(1280, 800, profile)).driver;
      if ((await reach(new StudioPage(other, base), address)) !== String(100 + k)) lost.push(k);
    }
    await other.quit();
    expect(lost).toEqual([]);
  });
});

test('a number typed without Enter is taken on Back, on reload and in another stage', async () => {
  const address = await stepCard(page);
  const typeOnly = async (text: string): Promise<void> => {
    const field = await page.field('depth');
    await field.click();
    await field.sendKeys(Key.chord(Key.CONTROL, 'a'), text);
  };
  await typeOnly('41');
  await driver.navigate().back();
  await find(driver, 'main li');
  await show(page, address);
  expect(await page.valueOf('depth')).toBe('41');
  await typeOnly('42');
  await driver.navigate().refresh();
  await show(page, address);
  expect(await page.valueOf('depth')).toBe('42');
  await typeOnly('43');
  await page.stage('Prove');
  await page.stage('Build');
  expect(await page.valueOf('depth')).toBe('43');
});

test('undo and redo reach over a reload', async () => {
  const address = await stepCard(page);
  for (const mm of ['31', '32', '33']) await page.type('depth', mm);
  await driver.findElement(By.css('body')).click();
  await (await find(driver, '[aria-label^="Undo:"]')).click();
  await again(address);
  expect(await page.valueOf('depth')).toBe('32');
  await (await find(driver, '[aria-label^="Redo:"]')).click();
  await eventually(driver, '33 again', async () => (await page.valueOf('depth')) === '33');
  for (const mm of ['32', '31']) {
    await (await find(driver, '[aria-label^="Undo:"]')).click();
    await eventually(driver, mm, async () => (await page.valueOf('depth')) === mm);
  }
});

describe('two tabs', () => {
  /** A tab that was out of sight may hear of it only now, and takes what is typed before it is whole. */
  const typeUntil = (mm: string): Promise<boolean> =>
    eventually(driver, `depth ${mm}`, async () => {
      await page.type('depth', mm);
      return (await page.valueOf('depth')) === mm;
    });
  const tabs: string[] = [];
  const to = (k: number): Promise<void> => driver.switchTo().window(tabs[k]);
  afterEach(async () => {
    for (const t of tabs.splice(1)) {
      await driver.switchTo().window(t);
      await driver.close();
    }
    if (tabs.length) await driver.switchTo().window(tabs[0]);
    tabs.length = 0;
  });
  const second = async (address: string): Promise<void> => {
    tabs.push(await driver.getWindowHandle());
    await driver.switchTo().newWindow('tab');
    tabs.push(await driver.getWindowHandle());
    await show(page, address);
  };
  test('the second follows, changes nothing, and takes over when asked to', async () => {
    await second(await stepCard(page));
    await band('open in another tab');
    await page.type('depth', '77');
    expect(await page.valueOf('depth')).not.toBe('77');
    // A field in the hand in which nothing is typed follows as well.
    await driver.findElement(By.css('body')).click();
    await (await page.field('depth')).click();
    await to(0);
    await typeUntil('51');
    await to(1);
    await eventually(driver, 'the change of the first', async () => (await page.valueOf('depth')) === '51');
    await (await findText(driver, 'button', 'Write here instead')).click();
    await eventually(driver, 'the right to write', async () => !(await page.text()).includes('open in another tab'));
    await typeUntil('52');
    await to(0);
    await band('open in another tab');
    await eventually(driver, 'the change of the second', async () => (await page.valueOf('depth')) === '52');
  });
  test('where they truly part both are kept', async () => {
    const unlocked = 'Object.defineProperty(navigator, "locks", { value: undefined }); delete window.BroadcastChannel;';
    const undo = await beforePages(driver, unlocked);
    const address = await stepCard(page);
    await driver
      .findElement(By.css('[aria-label="Name of the card"]'))
      .sendKeys(Key.chord(Key.CONTROL, 'a'), 'Parting', Key.ENTER);
    await page.saved();
    tabs.push(await driver.getWindowHandle());
    await driver.switchTo().newWindow('tab');
    tabs.push(await driver.getWindowHandle());
    await beforePages(driver, unlocked);
    await show(page, address);
    await page.type('depth', '61');
    await to(0);
    await page.type('depth', '62');
    await band('changed in another tab as well');
    await page.type('depth', '63');
    // The address is that of the card that is written: a reload opens it as it is.
    const own = await driver.getCurrentUrl();
    expect(new URL(own).searchParams.get('id')).not.toBe(new URL(address).searchParams.get('id'));
    await again(own);
    expect(await page.valueOf('depth')).toBe('63');
    await visit(driver, base);
    await page.openCard('Parting, as changed here');
    await (await find(driver, '[data-mechanism=step-fold-1]')).click();
    expect(await page.valueOf('depth')).toBe('63');
    await show(page, address);
    expect(await page.valueOf('depth')).toBe('61');
    await undo();
  });
  test('a card removed in one says so in the other, and can be taken off the shelf there', async () => {
    const address = await stepCard(page);
    await driver
      .findElement(By.css('[aria-label="Name of the card"]'))
      .sendKeys(Key.chord(Key.CONTROL, 'a'), 'Shelved', Key.ENTER);
    await page.saved();
    tabs.push(await driver.getWindowHandle());
    await driver.switchTo().newWindow('tab');
    tabs.push(await driver.getWindowHandle());
    await visit(driver, base);
    await (await find(driver, '[aria-label="Remove Shelved"]')).click();
    await find(driver, '[aria-label="Put Shelved back"]');
    await driver.navigate().refresh();
    await find(driver, '[aria-label="Put Shelved back"]');
    await to(0);
    await band('shelf of removed cards');
    await page.type('depth', '44');
    await (await findText(driver, 'button', 'Take it off the shelf')).click();
    await again(address);
    expect(await page.valueOf('depth')).toBe('44');
  });
});

test('a card whose shelf was emptied in another tab is said to be gone, and kept as a new one', async () => {
  const address = await stepCard(page);
  await driver
    .findElement(By.css('[aria-label="Name of the card"]'))
    .sendKeys(Key.chord(Key.CONTROL, 'a'), 'Emptied', Key.ENTER);
  await page.saved();
  const here = await driver.getWindowHandle();
  await driver.switchTo().newWindow('tab');
  await visit(driver, base);
  await (await find(driver, '[aria-label="Remove Emptied"]')).click();
  await (await findText(driver, 'button', 'Empty the shelf')).click();
  await (await findText(driver, 'button', 'Empty it')).click();
  // A tab that is closed before it has emptied its shelf has emptied nothing.
  await eventually(driver, 'the shelf to be empty', async () => {
    const left = await driver.findElements(By.css('[aria-label="Put Emptied back"]'));
    return left.length === 0;
  });
  await driver.close();
  await driver.switchTo().window(here);
  await band('removed for good in another tab');
  await (await findText(driver, 'button', 'Keep it as a new card')).click();
  await page.type('depth', '47');
  await page.saved();
  const own = await driver.getCurrentUrl();
  expect(own).not.toBe(address);
  await again(own);
  expect(await page.valueOf('depth')).toBe('47');
});

test('a browser whose small stores throw shows the application all the same', async () => {
  const undo = await beforePages(
    driver,
    `Object.defineProperty(window, 'localStorage', { get() { throw new DOMException('denied', 'SecurityError'); } });`,
  );
  try {
    await visit(driver, base);
    await findText(driver, 'button', 'Begin from');
    await stepCard(page);
    await page.type('depth', '33');
    await page.saved();
  } finally {
    await undo();
  }
});

describe('a store that fails', () => {
  const FULL = `
    for (const name of ['put', 'add']) {
      const plain = IDBObjectStore.prototype[name];
      IDBObjectStore.prototype[name] = function (...args) {
        if (window.full) throw new DOMException('no room', 'QuotaExceededError');
        return plain.apply(this, args);
      };
    }`;
  /** The driver answers such a question by itself, so it is put by hand. */
  const asksToStay = (): Promise<boolean> =>
    driver.executeScript(
      "const e = new Event('beforeunload', { cancelable: true }); window.dispatchEvent(e); return e.defaultPrevented;",
    );
  test('full: said in its own words, the card goes on, leaving asks, and it is stored once there is room', async () => {
    const undo = await beforePages(driver, FULL);
    const address = await stepCard(page);
    await driver.executeScript('window.full = true');
    await page.type('depth', '55');
    await band('no room left');
    await page.type('depth', '56');
    expect(await page.valueOf('depth')).toBe('56');
    await findText(driver, 'button', 'Save it as a file');
    expect(await asksToStay()).toBe(true);
    await driver.executeScript('window.full = false');
    await (await findText(driver, 'button', 'Try now')).click();
    await page.saved();
    expect(await asksToStay()).toBe(false);
    await again(address);
    expect(await page.valueOf('depth')).toBe('56');
    await undo();
  });
  test('none: a card is begun and worked on all the same', async () => {
    const undo = await beforePages(driver, 'Object.defineProperty(window, "indexedDB", { value: undefined });');
    await page.beginCard();
    await band('keeps no data');
    expect(await page.proved()).toBe('Ready to cut');
    await driver.get(base).catch(() => undefined);
    await driver
      .switchTo()
      .alert()
      .then(
        (a) => a.accept(),
        () => undefined,
      );
    await band('keeps no data');
    await undo();
  });
  test('made by a newer version: said, and nothing of it is touched', async () => {
    // Another name of this machine is another origin, with a database of its own.
    const elsewhere = base.replace('127.0.0.1', 'localhost');
    await visit(driver, `${elsewhere}/nowhere`);
    await driver.executeAsyncScript(
      'const r = indexedDB.open("rhabdoplex", 99); r.onsuccess = () => { r.result.close(); arguments[0](); };',
    );
    await visit(driver, elsewhere);
    await band('made by a newer Rhabdoplex');
  });
});

describe('workers', () => {
  const WATCHED = `
    const Plain = Worker;
    window.made = [];
    window.Worker = class extends Plain {
      constructor(url, options) {
        super(window.unloadable ? '/no-such-worker.js' : url, options);
        window.made.push(this);
      }
    };`;
  let undo: () => Promise<void>;
  beforeAll(async () => {
    await page.show('both');
    undo = await beforePages(driver, WATCHED);
  });
  afterAll(() => undo());
  const posedAt = async (deg: number): Promise<void> => {
    await eventually(driver, `posed at ${deg}`, async () =>
      ((await (await find(driver, '[data-testid=posed]')).getAttribute('aria-label')) ?? '').includes(`${deg} degrees`),
    );
  };
  test('all of them ended: it is told, and posing and proving go on', async () => {
    await page.openCard('Terrace night');
    await page.proved();
    await driver.executeScript('window.made.forEach((w) => w.terminate())');
    await band('stopped and was started again');
    await driver.findElement(By.css('body')).click();
    await page.press(']');
    await posedAt(105);
    await page.press(Key.HOME);
    await posedAt(0);
    await page.stage('Brief');
    await page.type('reachA', '151');
    await page.stage('Build');
    expect(await page.proved()).toMatch(/cut/);
  });
  test('one that does not load: said once, not for ever, and the next one goes on', async () => {
    await page.openCard('Terrace night');
    await page.proved();
    await driver.executeScript('window.unloadable = true; window.made.forEach((w) => w.terminate())');
    await band('stopped');
    await driver.findElement(By.css('body')).click();
    await page.press('{');
    await eventually(driver, 'the reason', async () => /stopped over this 2 times/.test(await page.text()));
    await driver.executeScript('window.unloadable = false');
    await page.press('{');
    await posedAt(98);
  });
});

describe('without graphics', () => {
  const turned = async (): Promise<string> =>
    (await (await find(driver, '[data-testid=posed] svg')).getAttribute('innerHTML')) ?? '';
  test('the solver’s drawing stands in, is turned by the pointer, and chosen from', async () => {
    const undo = await beforePages(
      driver,
      `const plain = HTMLCanvasElement.prototype.getContext;
       HTMLCanvasElement.prototype.getContext = function (kind, ...rest) {
         return /webgl/.test(kind) ? null : plain.call(this, kind, ...rest);
       };`,
    );
    await visit(driver, base);
    await (await find(driver, '[data-open="Terrace night"]')).click();
    await find(driver, '[data-testid=posed][data-drawn=true] svg path');
    const before = await turned();
    const view = await find(driver, '[data-testid=posed]');
    await driver.actions().move({ origin: view }).press().move({ origin: view, x: 80, y: -30 }).release().perform();
    await eventually(driver, 'a turned drawing', async () => (await turned()) !== before);
    await (await findText(driver, 'button', 'above')).click();
    await eventually(driver, 'another view', async () => (await turned()) !== before);
    await eventually(driver, 'a mechanism chosen in the drawing', async () => {
      for (const part of await driver.findElements(By.css('[data-testid=posed] svg path:not([data-of=card])'))) {
        await part.click().catch(() => undefined);
        const chosen = await part.getAttribute('data-of');
        const row = await driver.findElements(By.css(`[data-mechanism="${chosen}"][aria-current=true]`));
        if (row.length > 0) return true;
      }
      return false;
    });
    expect(await page.proved()).toMatch(/cut/);
    await undo();
  });
  test('graphics that are lost on the way: the drawing takes over, and 3D can be tried again', async () => {
    await page.openCard('Terrace night');
    await page.proved();
    await driver.executeScript(
      `document.querySelector('[data-testid=posed] canvas').getContext('webgl2')
         .getExtension('WEBGL_lose_context').loseContext();`,
    );
    await find(driver, '[data-testid=posed][data-drawn=true] svg path');
    await (await findText(driver, 'button', 'Try 3D again')).click();
    await find(driver, '[data-testid=posed] canvas');
  });
});

test.each(['the mark', 'Back'])('opening a card and leaving it by %s keeps nothing of it', async (by) => {
  const tools = driver as chrome.Driver;
  await tools.sendDevToolsCommand('Performance.enable', {});
  const counts = async (): Promise<{ Nodes: number; JSEventListeners: number }> => {
    for (let k = 0; k < 2; k++) await tools.sendDevToolsCommand('HeapProfiler.collectGarbage', {});
    const { metrics } = (await tools.sendAndGetDevToolsCommand('Performance.getMetrics', {})) as unknown as {
      metrics: { name: string; value: number }[];
    };
    const of = (name: string): number => metrics.find((m) => m.name === name)!.value;
    return { Nodes: of('Nodes'), JSEventListeners: of('JSEventListeners') };
  };
  const seen: { Nodes: number; JSEventListeners: number }[] = [];
  await visit(driver, base);
  for (let k = 0; k < 4; k++) {
    await (await find(driver, '[data-open="Terrace night"]')).click();
    await find(driver, '[data-testid=posed] canvas');
    if (by === 'Back') await driver.navigate().back();
    else await (await find(driver, '[aria-label="All cards"]')).click();
    await find(driver, 'main li svg path');
    await wait(1500);
    seen.push(await counts());
  }
  // What still moves is pictures that are drawn or not yet.
  expect(seen[3].Nodes - seen[1].Nodes).toBeLessThan(400);
  expect(seen[3].JSEventListeners - seen[1].JSEventListeners).toBeLessThan(30);
});
