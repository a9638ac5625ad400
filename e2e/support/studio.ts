/** What a maker does in the workbench, in steps that tests can say. */
import { By, Key, type WebDriver, type WebElement } from 'selenium-webdriver';
import { eventually, find, findText, visit } from './browser';

/** What Build and Dress show: the flat view alone, or the posed one beside it. */
export type Views = 'flat' | 'both';
const DRAWN: Readonly<Record<Views, string>> = { flat: '.flat-drawing', both: '[data-testid=posed] canvas' };
const KEPT: Readonly<Record<Views, string>> = {
  flat: JSON.stringify({ flat: 50, full: 'flat' }),
  both: JSON.stringify({ flat: 50, full: null }),
};

export class StudioPage {
  /** `another` gives a new browser in place of one whose tab has crashed, from which nothing can be asked any more. */
  constructor(
    public driver: WebDriver,
    readonly base: string,
    private readonly another?: () => Promise<WebDriver>,
  ) {}

  /** There once a card is drawn. */
  private drawn = DRAWN.both;
  /** From now on Build and Dress show these views; the page that is open is loaded anew with them. */
  async show(views: Views): Promise<void> {
    this.drawn = DRAWN[views];
    const address = await this.driver.getCurrentUrl();
    if (!address.startsWith(this.base)) await visit(this.driver, `${this.base}/licences`);
    await this.driver.executeScript(`localStorage.setItem('rhabdoplex.views', arguments[0])`, KEPT[views]);
    if (address.startsWith(this.base)) await visit(this.driver, address);
  }

  /** The start page; where its tab crashes while it loads, in a new browser, and said. */
  async begin(): Promise<void> {
    try {
      await visit(this.driver, this.base);
    } catch (error) {
      if (!this.another || !/tab crashed/.test(String(error))) throw error;
      console.error('The tab crashed while the start page loaded: a new browser takes its place.');
      this.driver = await this.another();
      await visit(this.driver, this.base);
    }
  }
  /** Every card of the list that is in sight has its picture. */
  async pictured(): Promise<void> {
    await eventually(this.driver, 'a picture of every card in sight', () =>
      this.driver.executeScript<boolean>(`
        const inSight = [...document.querySelectorAll('main li')].filter((card) => {
          const { top, bottom } = card.getBoundingClientRect();
          return top < innerHeight && bottom > 0;
        });
        return inSight.length > 0 && inSight.every((card) => card.querySelector('svg[role=img]'));`),
    );
  }
  async beginCard(): Promise<void> {
    await this.begin();
    await (await findText(this.driver, 'button', 'Begin a card')).click();
    await find(this.driver, this.drawn);
  }
  async openCard(name: string): Promise<void> {
    await this.begin();
    await (await find(this.driver, `[data-open="${name}"]`)).click();
    await find(this.driver, this.drawn);
  }
  /** A kind from the sheet of things to put on, on the face of leaf B that is seen from inside. */
  async putInside(kind: string): Promise<void> {
    await this.press('n');
    await (await findText(this.driver, 'dialog//label', 'a face')).click();
    await (await findText(this.driver, 'dialog//label', 'inside')).click();
    await (await find(this.driver, `[data-kind=${kind}]`)).click();
    await find(this.driver, `[data-drive^="${kind}-1."]`);
  }
  /** Goes to a stage, and waits until it is there: it may have to be loaded. */
  async stage(name: string): Promise<void> {
    await (await findText(this.driver, 'nav/button', name)).click();
    await find(this.driver, `main[aria-label="${name.toLowerCase()} stage"] > div:last-child:not(:empty)`);
  }
  async field(key: string): Promise<WebElement> {
    return find(this.driver, `[aria-label=Parameters] input[name="${key}"], main input[name="${key}"]`);
  }
  async type(key: string, text: string): Promise<void> {
    const field = await this.field(key);
    await field.click();
    await field.sendKeys(Key.chord(Key.CONTROL, 'a'), text, Key.ENTER);
  }
  async valueOf(key: string): Promise<string> {
    return (await this.field(key)).getAttribute('value') as Promise<string>;
  }
  /** The flat drawing, and what can be taken hold of on it, are of the card as it is now. */
  async settled(): Promise<void> {
    await find(this.driver, '.flat-drawing[aria-busy=false]');
  }
  async press(...keys: string[]): Promise<void> {
    await this.driver
      .actions()
      .sendKeys(...keys)
      .perform();
  }
  async proved(): Promise<string> {
    await eventually(this.driver, 'the proof to end', async () => !/proving…/i.test(await this.text()));
    return (await find(this.driver, '[data-testid=verdict]')).getText();
  }
  async saved(): Promise<void> {
    await eventually(this.driver, 'the card to be saved', async () =>
      (await this.text()).includes('saved in this browser'),
    );
  }
  /** What can be read on the page: asked of the browser, since the driver's own way takes half a second of the page. */
  text(): Promise<string> {
    return this.driver.executeScript<string>('return document.body.innerText');
  }
  async opening(): Promise<number> {
    return parseFloat(await (await find(this.driver, '[data-testid=opening]')).getText());
  }
  async mechanisms(): Promise<string[]> {
    const rows = await this.driver.findElements(By.css('[data-mechanism]'));
    return Promise.all(rows.map(async (r) => (await r.getAttribute('data-mechanism'))!));
  }
  async findings(): Promise<string[]> {
    const cards = await this.driver.findElements(By.css('[data-finding]'));
    return Promise.all(cards.map(async (c) => (await c.getAttribute('data-finding'))!));
  }
  /** Wait until the browser's console has said nothing bad. */
  async complaints(): Promise<string[]> {
    const logs = await this.driver.manage().logs().get('browser');
    return logs.filter((l) => l.level.name === 'SEVERE').map((l) => l.message);
  }
}
