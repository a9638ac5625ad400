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

/** `begin` runs once all is there; a test may take `mostMs`. */
export function session(mostMs: number, begin: (s: Session) => void | Promise<void>): void {
  jest.setTimeout(mostMs);
  let end = async (): Promise<void> => undefined;
  beforeAll(async () => {
    const server = await serve();
    end = async () => server.stop();
    const { driver, downloads } = await openBrowser();
    end = async () => {
      await driver.quit();
      server.stop();
    };
    await begin({ driver, downloads, base: server.base, page: new StudioPage(driver, server.base) });
  });
  afterAll(() => end());
}
