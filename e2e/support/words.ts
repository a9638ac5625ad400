/** Everything a person can read on a page or be told by it: text, labels, titles, what fields hold. */
import type { WebDriver } from 'selenium-webdriver';

export async function wordsOnPage(driver: WebDriver): Promise<string[]> {
  return driver.executeScript<string[]>(`
    const out = new Set();
    const add = (text) => { const t = (text ?? '').replace(/\\s+/g, ' ').trim(); if (t) out.add(t); };
    const walk = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
    while (walk.nextNode()) {
      const { parentElement: e } = walk.currentNode;
      if (e && !/^(SCRIPT|STYLE|NOSCRIPT|TEMPLATE)$/i.test(e.tagName)) add(walk.currentNode.nodeValue);
    }
    const names = ['aria-label', 'title', 'placeholder', 'aria-valuetext', 'aria-roledescription'];
    for (const e of document.querySelectorAll(names.map((n) => '[' + n + ']').join()))
      for (const name of names)
        add(e.getAttribute(name));
    return [...out];
  `);
}
