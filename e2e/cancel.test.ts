/** Long work: caught while it runs, given up, and left with its card; each time its worker is seen to end. */
import { Key, type WebDriver } from 'selenium-webdriver';
import { click, find, findText } from './support/browser';
import { session } from './support/session';
import type { StudioPage } from './support/studio';

let driver: WebDriver;
let page: StudioPage;
session(180_000, async (s) => {
  ({ driver, page } = s);
  // A worker that goes straight to work takes its lock only when it first pauses.
  await driver.manage().setTimeouts({ script: 120_000 });
});

/** Each worker holds a lock as long as it lives (Web Locks API): its name says what the worker is for. */
const workersFor = (purpose: string): Promise<string[]> =>
  driver.executeAsyncScript<string[]>(
    `const [purpose, done] = arguments;
     navigator.locks.query().then(({ held }) =>
       done(held.map((l) => l.name).filter((n) => n.startsWith('rhabdoplex-worker-' + purpose + '-'))))`,
    purpose,
  );
/** A button of this name, or nothing yet. */
const BUTTON = `const button = (of, name) => [...document.querySelectorAll(of + ' button')]
  .find((b) => b.textContent.trim() === name && b.getAttribute('role') !== 'tab');
const held = async (purpose) => (await navigator.locks.query()).held.map((l) => l.name)
  .filter((n) => n.startsWith('rhabdoplex-worker-' + purpose + '-'));
const until = async (read) => {
  for (;;) {
    const found = await read();
    if (found) return found;
    await new Promise((on) => setTimeout(on, 10));
  }
};`;
/** Begins the work, and tells the lock of the worker that is at it once it can be given up. */
const begun = ({ purpose, of, begin, giveUp }: Work): Promise<string> =>
  driver.executeAsyncScript<string>(
    `${BUTTON}
     const [purpose, of, begin, giveUp, done] = arguments;
     (async () => {
       (await until(() => button(of, begin))).click();
       await until(() => button(of, giveUp));
       done((await until(async () => (await held(purpose)).at(-1))));
     })();`,
    ...[purpose, of, begin, giveUp],
  );
/** Begins it and gives it up at once; how long a worker for it lived after that, ms. */
const endedAfterMs = ({ purpose, of, begin, giveUp }: Work): Promise<number> =>
  driver.executeAsyncScript<number>(
    `${BUTTON}
     const [purpose, of, begin, giveUp, done] = arguments;
     (async () => {
       (await until(() => button(of, begin))).click();
       (await until(() => button(of, giveUp))).click();
       const from = performance.now();
       await until(async () => (await held(purpose)).length === 0);
       const ms = performance.now() - from;
       // One that had only just been started would take its lock by now.
       await new Promise((on) => setTimeout(on, 500));
       done((await held(purpose)).length === 0 ? ms : Infinity);
     })();`,
    ...[purpose, of, begin, giveUp],
  );

interface Work {
  readonly purpose: string;
  /** Where it is begun, and what is pressed for it. */
  readonly at: () => Promise<void>;
  /** Round its buttons. */
  readonly of: string;
  readonly begin: string;
  readonly giveUp: string;
}
/** A lift that no card of this size has: the search for it goes on for long. */
const OUT_OF_REACH = '900';
const prove = (tab: string) => async (): Promise<void> => {
  await page.stage('Prove');
  await click(driver, `[role=tab][data-value="${tab}"]`);
};
const search = async (): Promise<void> => {
  await prove('search')();
  const value = await find(driver, 'input[name="want-value"]');
  await value.sendKeys(Key.chord(Key.CONTROL, 'a'), OUT_OF_REACH, Key.ENTER);
};
const WORK: Readonly<Record<string, Work>> = {
  study: {
    purpose: 'decide',
    at: prove('scatter'),
    of: '[data-testid=scatter]',
    begin: 'Make 400 cards',
    giveUp: 'Give up',
  },
  search: { purpose: 'decide', at: search, of: '[data-testid=search]', begin: 'Search', giveUp: 'Give up' },
  film: {
    purpose: 'show',
    at: async () => {
      await page.stage('Build');
      await click(driver, '[aria-label="Flat view"] [aria-label="Both views"]');
      await click(driver, '[aria-label="Picture or film…"]');
    },
    of: 'section[aria-label=Film]',
    begin: 'Make the film',
    giveUp: 'Give up',
  },
  archive: {
    purpose: 'write',
    at: () => page.stage('Make'),
    of: 'main',
    begin: 'Everything, ZIP',
    giveUp: 'Give up the archive',
  },
  booklet: {
    purpose: 'write',
    at: () => page.stage('Make'),
    of: 'main',
    begin: 'Booklet, PDF',
    giveUp: 'Give up the booklet',
  },
  nest: { purpose: 'nest', at: () => page.stage('Sheets'), of: 'main', begin: 'Lay out tighter', giveUp: 'Give up' },
};
describe.each(Object.keys(WORK))('%s', (name) => {
  const work = WORK[name];

  test('given up, its worker ends within a second, and it can be begun again', async () => {
    await page.openCard('Orrery');
    await work.at();
    expect(await endedAfterMs(work)).toBeLessThan(1000);
    await findText(driver, 'button', work.begin);
  });

  test('left with its card, its worker ends', async () => {
    const lock = await begun(work);
    await driver.navigate().back();
    await find(driver, '[data-open="Orrery"]');
    expect(await workersFor(work.purpose)).not.toContain(lock);
  });
});
