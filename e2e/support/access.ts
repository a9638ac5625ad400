/** The rules of WCAG 2.2 A and AA that a machine can check, by a general accessibility engine (axe-core). */
import { readFileSync } from 'node:fs';
import type { WebDriver } from 'selenium-webdriver';

const ENGINE = readFileSync(require.resolve('axe-core/axe.min.js'), 'utf8');
const RULES = {
  runOnly: { type: 'tag', values: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'] },
  // Off unless asked for: the least size of targets (2.5.8).
  rules: { 'target-size': { enabled: true } },
  resultTypes: ['violations'],
};

/** What breaks a rule on the page as it is: the rule, and where. */
export async function brokenRules(driver: WebDriver): Promise<string[]> {
  await driver.executeScript(`if (!window.axe) { ${ENGINE} }`);
  return driver.executeAsyncScript<string[]>(
    `const done = arguments[arguments.length - 1];
     window.axe.run(document, ${JSON.stringify(RULES)}).then(
       ({ violations }) => done(violations.flatMap(({ id, nodes }) => nodes.map((n) =>
         id + ': ' + n.html.slice(0, 200) + ' · ' + n.failureSummary.replace(/\\s+/g, ' ').slice(0, 200)))),
       (error) => done(['the engine failed: ' + error]));`,
  );
}
