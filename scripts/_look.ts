import { writeFileSync } from 'node:fs';
import { openBrowser, find, eventually } from '../e2e/support/browser';
import { serve } from '../e2e/support/server';
import { StudioPage } from '../e2e/support/studio';
void (async () => {
  const server = await serve();
  const { driver } = await openBrowser();
  const page = new StudioPage(driver, server.base);
  const shot = async (n: string) => writeFileSync(`/tmp/look/${n}.png`, await driver.takeScreenshot(), 'base64');
  try {
    await page.openCard('Terrace night');
    await page.proved();
    console.log(
      await driver.executeScript(
        `const c=document.querySelector('[data-testid=posed] canvas'); const g=c.getContext('webgl2'); window.ev=[]; c.addEventListener('webglcontextlost',()=>window.ev.push('lost')); const x=g&&g.getExtension('WEBGL_lose_context'); x&&x.loseContext(); return [!!g,!!x]`,
      ),
    );
    await new Promise((r) => setTimeout(r, 2500));
    console.log(
      await driver.executeScript(
        `return [window.ev, document.querySelector('[data-testid=posed]').dataset.drawn, document.querySelectorAll('[data-testid=posed] svg path').length]`,
      ),
    );
    await shot('lost');
    console.log(await page.complaints());
    await driver.executeScript(
      `const r=indexedDB.open('rhabdoplex'); r.onsuccess=()=>{const s=r.result.transaction('projects','readwrite').objectStore('projects'); s.put({id:'bad',updated:1,design:{rhabdoplex:2,name:'Aurora of the north hall',mechanisms:[{id:'x'}]}}); s.put({id:'new',updated:1,design:{rhabdoplex:9,name:'Equinox (from a newer version)'}}); s.get;}`,
    );
    await driver.get(server.base);
    await (await find(driver, '[aria-label="Remove Terrace night"]')).click();
    await find(driver, '[aria-label="Put Terrace night back"]');
    await driver.executeScript('window.scrollTo(0, document.body.scrollHeight)');
    await new Promise((r) => setTimeout(r, 2500));
    await shot('start');
  } finally {
    await driver.quit();
    server.stop();
  }
})();
