/** A served application and a browser for the tests of one file, started before them and ended after. */
import type { WebDriver } from 'selenium-webdriver';
import { openBrowser } from './browser';
import { serve } from './server';
import { StudioPage } from './studio';

export interface Session {
  readonly driver: WebDriver;
  readonly downloads: string;
  readonly base: string;
  readonly page: StudioPage;
}

/**
 * `begin` runs once all is there, and again where a browser is gone and another takes its place; a test may take
 * `mostMs`.
 */
export function session(mostMs: number, begin: (s: Session) => void | Promise<void>): void {
  jest.setTimeout(mostMs);
  let server: Awaited<ReturnType<typeof serve>> | undefined;
  let driver: WebDriver | undefined;
  let page: StudioPage | undefined;
  const open = async (): Promise<WebDriver> => {
    const opened = await openBrowser();
    ({ driver } = opened);
    page ??= new StudioPage(driver, server!.base, async () => {
      await quit();
      return open();
    });
    page.driver = driver;
    await begin({ ...opened, base: server!.base, page });
    return driver;
  };
  const quit = async (): Promise<void> => driver?.quit().catch(() => undefined);
  beforeAll(async () => {
    server = await serve();
    await open();
  });
  beforeEach(async () => {
    if (await answers(driver!)) return;
    await quit();
    await open();
  });
  afterAll(async () => {
    await quit();
    server?.stop();
  });
}

const answers = (driver: WebDriver): Promise<boolean> =>
  driver.executeScript('return 1').then(
    () => true,
    () => false,
  );
