/** Headless Chromium for the browser tests and the screenshots. */
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Builder, By, error, Origin, until, type WebDriver, type WebElement } from 'selenium-webdriver';
import chrome from 'selenium-webdriver/chrome';

/** @param profile folder of an earlier browser to go on with; a new one unless given */
export async function openBrowser(
  width = 1280,
  height = 800,
  profile?: string,
): Promise<{ driver: WebDriver; downloads: string }> {
  const downloads = mkdtempSync(join(tmpdir(), 'rhabdoplex-downloads-'));
  const options = new chrome.Options();
  options.setChromeBinaryPath(process.env.CHROMIUM ?? '/usr/bin/chromium');
  options.addArguments(
    '--headless=new',
    '--no-sandbox',
    '--disable-dev-shm-usage',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
    '--disable-quic',
    '--disable-gpu-compositing',
    '--use-gl=angle',
    '--use-angle=swiftshader',
    '--enable-unsafe-swiftshader',
    `--window-size=${width},${height}`,
    '--force-device-scale-factor=1',
    '--hide-scrollbars',
    '--lang=en-GB',
    ...(profile ? [`--user-data-dir=${profile}`] : []),
  );
  options.setUserPreferences({ 'download.default_directory': downloads, 'download.prompt_for_download': false });
  const service = new chrome.ServiceBuilder(process.env.CHROMEDRIVER ?? '/usr/bin/chromedriver');
  const driver = await new Builder().forBrowser('chrome').setChromeOptions(options).setChromeService(service).build();
  await driver.manage().setTimeouts({ pageLoad: LOAD_MS });
  // The window's frame takes part of its height; the page itself is to be the size asked for.
  await (driver as chrome.Driver).sendDevToolsCommand('Emulation.setDeviceMetricsOverride', {
    width,
    height,
    deviceScaleFactor: 1,
    mobile: false,
  });
  return { driver, downloads };
}

/** A page that does not load in this time is asked for again by `visit`. */
const LOAD_MS = 30_000;
/**
 * Loads a page. A load that is asked for right after another may never begin: the browser's own log of the network
 * shows no request then, and the page that is left is not asked to go. Such a load is asked for once more, and said.
 */
export async function visit(driver: WebDriver, address: string): Promise<void> {
  try {
    await driver.get(address);
  } catch (fault) {
    if (!(fault instanceof error.TimeoutError)) throw fault;
    console.error(`${address} did not begin to load: it is asked for once more.`);
    await driver.get(address);
  }
}

export const WAIT_MS = 40_000;
/** What is waited for is looked for this often; the driver's own pause is longer than most waits. */
const LOOK_EVERY_MS = 80;
export const find = (driver: WebDriver, css: string): Promise<WebElement> =>
  driver.wait(until.elementLocated(By.css(css)), WAIT_MS, `nothing matches ${css}`, LOOK_EVERY_MS);
export const findText = (driver: WebDriver, tag: string, text: string): Promise<WebElement> =>
  driver.wait(
    until.elementLocated(By.xpath(`//${tag}[contains(normalize-space(.), ${JSON.stringify(text)})]`)),
    WAIT_MS,
    `no ${tag} says "${text}"`,
    LOOK_EVERY_MS,
  );
/** Waits until `read` gives something true, and gives that. */
export async function eventually<T>(driver: WebDriver, what: string, read: () => Promise<T>): Promise<NonNullable<T>> {
  return (await driver.wait(
    async () => {
      try {
        return await read();
      } catch {
        return null;
      }
    },
    WAIT_MS,
    what,
    LOOK_EVERY_MS,
  )) as NonNullable<T>;
}
/** Presses on something, moves so far, px, and lets go. */
export const drag = (driver: WebDriver, element: WebElement, x: number, y = 0): Promise<void> =>
  driver.actions().move({ origin: element }).press().move({ origin: Origin.POINTER, x, y }).release().perform();
/** Clicks what matches, looking again where the page has just drawn it anew. */
export const click = (driver: WebDriver, css: string): Promise<boolean> =>
  eventually(driver, `a click on ${css}`, async () => {
    await driver.findElement(By.css(css)).click();
    return true;
  });

/** Runs `source` in every page of this tab before its own scripts, until the function returned is called. */
export async function beforePages(driver: WebDriver, source: string): Promise<() => Promise<void>> {
  const tools = driver as chrome.Driver;
  const added = (await tools.sendAndGetDevToolsCommand('Page.addScriptToEvaluateOnNewDocument', {
    source,
  })) as unknown as { identifier: string };
  return () => tools.sendDevToolsCommand('Page.removeScriptToEvaluateOnNewDocument', { ...added });
}
