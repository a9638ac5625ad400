/** A browser for the tests of one file, started before them and ended after. */
import type { WebDriver } from 'selenium-webdriver';
import { openBrowser } from './browser';
import { StudioPage, type Views } from './studio';

export interface Session {
  readonly driver: WebDriver;
  readonly downloads: string;
  readonly base: string;
  readonly page: StudioPage;
}

/**
 * `begin` runs once all is there, and again where a browser is gone and another takes its place; a test may take
 * `mostMs`. Paper is drawn in space only where a file asks for both `views`: that takes as long as all the rest.
 */
export function session(mostMs: number, begin: (s: Session) => void | Promise<void>, views: Views = 'flat'): void {
  jest.setTimeout(mostMs);
  const base = process.env.RHABDOPLEX_BASE!;
  let driver: WebDriver | undefined;
  let page: StudioPage | undefined;
  const open = async (): Promise<WebDriver> => {
    const opened = await openBrowser();
    ({ driver } = opened);
    page ??= new StudioPage(driver, base, async () => {
      await quit();
      return open();
    });
    page.driver = driver;
    if (views === 'flat') await page.show(views);
    await begin({ ...opened, base, page });
    return driver;
  };
  const quit = async (): Promise<void> => driver?.quit().catch(() => undefined);
  beforeAll(async () => {
    await open();
  });
  beforeEach(async () => {
    if (await answers(driver!)) return;
    await quit();
    await open();
  });
  afterAll(quit);
}

const answers = (driver: WebDriver): Promise<boolean> =>
  driver.executeScript('return 1').then(
    () => true,
    () => false,
  );
