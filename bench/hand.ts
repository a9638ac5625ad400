/** What a hand feels: frames while it scrubs, from key to pose, the first load, the start of the command line. */
import { spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { By, type WebDriver } from 'selenium-webdriver';
import { find, openBrowser } from '../e2e/support/browser';
import { serve } from '../e2e/support/server';
import { fortyMechanisms } from './forty';
import type { Tools } from './paper';

const FORTY = 'forty mechanisms';
const CARDS = ['Terrace night', 'Dome skyline', 'Orrery', 'Terraces in tiers'];
/** The first time a page draws, graphics programs are made: that is let go by, ms. */
const WARM_MS = 2500;
const MEASURED_MS = 4000;

export async function benchHand({ row }: Pick<Tools, 'row'>): Promise<void> {
  benchStart(row);
  if (!existsSync('.next/BUILD_ID')) return console.log('\nIn the browser: build first (npm run build) to see it');
  const { base, stop } = await serve();
  const { driver } = await openBrowser();
  try {
    console.log('\nIn the browser, drawn by software; frames a second while the travel plays');
    await driver.get(base);
    await driver.sleep(4000);
    const kilobytes = await driver.executeScript<number>(
      `return performance.getEntriesByType('resource').filter((e) => e.name.endsWith('.js'))
         .reduce((sum, e) => sum + e.encodedBodySize, 0) / 1024;`,
    );
    row('  script of the start page, as sent', `${kilobytes.toFixed(0)} kB`);
    const forty = join(mkdtempSync(join(tmpdir(), 'rhabdoplex-bench-')), 'forty.json');
    writeFileSync(forty, JSON.stringify(fortyMechanisms()));
    for (const name of [...CARDS, FORTY]) {
      await driver.get(base);
      if (name === FORTY) await (await driver.findElement(By.css('input[type=file]'))).sendKeys(forty);
      else await (await find(driver, `[data-open="${name}"]`)).click();
      await find(driver, '[data-testid=posed] canvas');
      await driver.sleep(7000);
      const [frames, keyToPose] = [await framesWhilePlaying(driver), await fromKeyToPose(driver)];
      row(
        `  ${name}`,
        `${frames.toFixed(0)} frames, ${(frames / 30).toFixed(2)} x 30`,
        `key to pose ${keyToPose.toFixed(0)} ms, ${(keyToPose / (1000 / 60)).toFixed(1)} frames of 60 Hz`,
      );
    }
  } finally {
    await driver.quit();
    stop();
  }
}

function benchStart(row: Tools['row']): void {
  console.log('\nCommand line, from start to answer, beside Node alone');
  const once = (args: readonly string[]): number => {
    const from = performance.now();
    spawnSync(process.execPath, args, { stdio: 'ignore' });
    return performance.now() - from;
  };
  const least = (args: readonly string[]): number => Math.min(...[1, 2, 3, 4].map(() => once(args)));
  const bare = least(['-e', '0']);
  for (const verb of [['kinds'], ['prove', 'examples/dome-note.json']]) {
    const took = least(['scripts/rhabdoplex.mjs', ...verb]);
    row(`  ${verb.join(' ')}`, `${took.toFixed(0)} ms`, `${(took / bare).toFixed(1)} x Node alone`);
  }
}

const framesWhilePlaying = (driver: WebDriver): Promise<number> =>
  driver.executeAsyncScript<number>(
    `const done = arguments[arguments.length - 1];
     const P = WebGL2RenderingContext.prototype; const plain = [P.drawElements, P.drawArrays];
     let drawn = new Set(), now = 0, from = Infinity;
     P.drawElements = function (...a) { drawn.add(now); return plain[0].apply(this, a); };
     P.drawArrays = function (...a) { drawn.add(now); return plain[1].apply(this, a); };
     const button = (name) => [...document.querySelectorAll('button')].find((b) => b.textContent === name);
     button('Play').click();
     setTimeout(() => { drawn = new Set(); from = performance.now(); }, ${WARM_MS});
     requestAnimationFrame(function frame(t) {
       now = t;
       if (performance.now() - from < ${MEASURED_MS} || from === Infinity) return requestAnimationFrame(frame);
       [P.drawElements, P.drawArrays] = plain;
       button('Stop')?.click();
       done(drawn.size / (${MEASURED_MS} / 1000));
     });`,
  );

/** The median of several presses, from the key to the pose that it asked for. */
const fromKeyToPose = (driver: WebDriver): Promise<number> =>
  driver.executeAsyncScript<number>(
    `const done = arguments[arguments.length - 1];
     const posed = document.querySelector('[data-testid=posed]');
     const took = []; let from = 0, way = ']';
     new MutationObserver(() => { if (from) { took.push(performance.now() - from); from = 0; } })
       .observe(posed, { attributes: true, attributeFilter: ['aria-label'] });
     const press = () => {
       if (took.length >= 9) return done(took.sort((a, b) => a - b)[4]);
       if (took.length % 6 === 5) way = '[';
       from = performance.now();
       window.dispatchEvent(new KeyboardEvent('keydown', { key: way, bubbles: true }));
       setTimeout(press, 350);
     };
     press();`,
  );
