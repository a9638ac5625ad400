/** The work as a booklet: what it takes, then step by step in its groups, each with its picture and a box to tick. */
import { rgb, type PDFPage } from 'pdf-lib';
import type { Assembly } from '../assembly/assembly';
import { GROUP_WORDS, workOf, type WorkGroup, type WorkStep } from '../build/steps';
import { distinct, takenWords } from '../build/taken';
import type { Design } from '../document/design';
import { sheetById, type FlatSize } from '../paper/sizes';
import type { Vec2 } from '../plane/vec2';
import { cutList, type CutListRow } from '../sheets/cutlist';
import { formatLength, rulerInches } from '../units/length';
import { beginPdf, colourOf, fitting, pt, rule, winAnsi, write, type Paper } from './pdf-draw';
import { arrowHead } from './step-mark';
import { stepPicture, type StepPicture } from './step-picture';

const MARGIN = 14;
const COLUMNS = 2;
const ROWS = 3;
const GUTTER = 8;
const HEAD = 16;
/** What is lit, what is glued, what is folded: the colours of the application. */
const LIT = '#f6dcc4';
const LIT_EDGE = '#b3541e';
const GLUE = '#6f6787';
const INK = rgb(0.12, 0.16, 0.19);
const DIM = rgb(0.4, 0.42, 0.42);

/** A4, or US Letter for those who measure in inches. */
const paperOf = ({ units }: Design): FlatSize => sheetById(units === 'in' ? 'letter' : 'A4')!;

export async function toBooklet(design: Design, assembly: Assembly): Promise<Uint8Array> {
  const out = await beginPdf(`${design.name}: how it is made`);
  const book = new Book(out, design);
  const work = workOf(design, assembly);
  book.front(cutList(design, assembly), work.steps, work.rings);
  work.steps.forEach((step, k) => book.step(step, k + 1, stepPicture(design, step)));
  book.numbers();
  return out.pdf.save();
}

/** Pages one after another. */
class Book {
  private page: PDFPage;
  private cell = 0;
  private group: WorkGroup | null = null;
  private readonly width: number;
  private readonly height: number;

  constructor(
    private readonly out: Paper,
    private readonly design: Design,
  ) {
    const { shortMm, longMm } = paperOf(design);
    [this.width, this.height] = [shortMm, longMm];
    this.page = this.turn();
  }

  private turn(): PDFPage {
    this.page = this.out.pdf.addPage([pt(this.width), pt(this.height)]);
    this.cell = 0;
    return this.page;
  }
  private say(words: string, at: Vec2, size: number, dim = false): void {
    const text = fitting(this.out.font, words, this.width - MARGIN - at[0], size);
    this.page.drawText(text, { x: pt(at[0]), y: pt(at[1]), size, font: this.out.font, color: dim ? DIM : INK });
  }

  /** Name, cut list, and everything that is taken up for it. */
  front(rows: readonly CutListRow[], steps: readonly WorkStep[], rings: readonly (readonly string[])[]): void {
    let y = this.height - MARGIN - 8;
    const line = (words: string, size = 9, dim = false): void => {
      if (y < MARGIN + 10) {
        this.turn();
        y = this.height - MARGIN - 8;
      }
      this.say(words, [MARGIN, y], size, dim);
      y -= size * 0.55;
    };
    line(this.design.name, 20);
    line('How it is made', 12, true);
    y -= 4;
    line('To cut', 12);
    for (const r of rows.filter((x) => !x.counted)) line(this.rowWords(r));
    const counted = rows.filter((x) => x.counted);
    const bought = counted.map((r) => `${r.count} x ${r.title}`);
    // What is bought is counted in the cut list.
    const used = distinct(steps.flatMap((s) => s.takes)).filter((t) => t.of !== 'bought');
    y -= 3;
    line('To have at hand', 12);
    for (const words of [...bought, ...used.map((t) => takenWords(t, this.design.units))]) line(words);
    for (const ring of rings)
      line(`${ring.join(' and ')} stand in each other's way: the first is glued first, with the other bent aside.`);
    this.turn();
  }
  private rowWords({ count, title, width_mm, height_mm, stock }: CutListRow): string {
    const { units } = this.design;
    const say = (mm: number): string => (units === 'in' ? rulerInches(mm) : formatLength(mm, units));
    const size = `${say(width_mm)} x ${say(height_mm)} ${units}`;
    return `${count} x ${title}, ${size}, ${stock}`;
  }

  step(step: WorkStep, number: number, drawn: StepPicture): void {
    if (step.group !== this.group) {
      // A group begins a row, where it has one to begin.
      this.cell = Math.ceil(this.cell / COLUMNS) * COLUMNS;
      this.group = step.group;
    }
    if (this.cell >= COLUMNS * ROWS) this.turn();
    const w = (this.width - 2 * MARGIN - (COLUMNS - 1) * GUTTER) / COLUMNS;
    const h = (this.height - 2 * MARGIN - ROWS * HEAD) / ROWS;
    const [column, row] = [this.cell % COLUMNS, Math.floor(this.cell / COLUMNS)];
    const x = MARGIN + column * (w + GUTTER);
    const top = this.height - MARGIN - row * (h + HEAD);
    if (column === 0) this.say(GROUP_WORDS[step.group], [x, top - 4], 11, true);
    this.tickBox(x, top - 10);
    const done = (this.design.done ?? []).includes(step.id);
    if (done) write(this.page, this.out.font, 'x', [x + 0.7, top - 9.2], 9);
    write(
      this.page,
      this.out.font,
      fitting(this.out.font, `${number}. ${step.title}`, w - 6, 10),
      [x + 5, top - 9.4],
      10,
    );
    const takes = step.takes.map((t) => takenWords(t, this.design.units)).join(', ');
    const words = [step.text, ...(takes ? [`Takes ${takes}.`] : [])];
    const lines = words.flatMap((t) => wrapped(this.out, t, w, 8));
    lines.slice(0, MOST_LINES).forEach((t, k) => write(this.page, this.out.font, t, [x, top - 14.5 - 3.6 * k], 8));
    const used = 16 + 3.6 * Math.min(MOST_LINES, lines.length);
    this.picture(drawn, x, top - used, w, h + HEAD - used - 6);
    this.cell++;
  }

  private tickBox(x: number, y: number): void {
    const corners: Vec2[] = [[x, y], [x + 3, y], [x + 3, y + 3], [x, y + 3]]; // prettier-ignore
    corners.forEach((c, k) => rule(this.page, c, corners[(k + 1) % 4], 0.6));
  }

  /** Parts from far to near, what the step is about lit, its marks over all. */
  private picture({ picture, marks, lit }: StepPicture, x: number, top: number, w: number, h: number): void {
    const { box, parts } = picture;
    const scale = Math.min(w / box.width, h / box.height);
    const left = x + (w - box.width * scale) / 2;
    const at = { x: pt(left - box.x * scale), y: pt(top + box.y * scale), scale: pt(scale) };
    const path = (rings: readonly (readonly (readonly [number, number])[])[], open = false): string =>
      rings
        .map((r) => `M${r.map(([px, py]) => `${px.toFixed(3)} ${py.toFixed(3)}`).join('L')}${open ? '' : 'Z'}`)
        .join('');
    const thin = 0.5 / pt(scale);
    for (const p of parts) {
      const on = lit.has(p.id);
      const edge = on ? LIT_EDGE : p.goesOn ? p.fill : '#4a4f4c';
      this.page.drawSvgPath(path([p.points, ...p.holes]), {
        ...at,
        color: colourOf(on ? LIT : p.fill),
        borderColor: colourOf(edge),
        borderWidth: on ? 2 * thin : thin,
      });
    }
    for (const { kind, points } of marks) {
      const glue = kind === 'glue';
      const line = { ...at, borderColor: colourOf(glue ? GLUE : LIT_EDGE), borderWidth: 2 * thin };
      this.page.drawSvgPath(path([points], !glue), {
        ...line,
        ...(glue ? { borderDashArray: [4 * thin, 3 * thin] } : {}),
      });
      if (!glue) this.page.drawSvgPath(path([arrowHead(points, 6 * thin)]), { ...at, color: colourOf(LIT_EDGE) });
    }
  }

  numbers(): void {
    const pages = this.out.pdf.getPages();
    pages.forEach((page, k) => {
      const words = `${winAnsi(this.design.name).slice(0, 60)} - ${k + 1} of ${pages.length}`;
      write(page, this.out.font, words, [MARGIN, MARGIN / 2], 7);
    });
  }
}

/** Lines of text that fit above a picture. */
const MOST_LINES = 6;

/** Words in lines no wider than `mm`. */
function wrapped({ font }: Paper, text: string, mm: number, size: number): string[] {
  const lines: string[] = [];
  let line = '';
  for (const word of winAnsi(text).split(/\s+/)) {
    const longer = line === '' ? word : `${line} ${word}`;
    if (line !== '' && font.widthOfTextAtSize(longer, size) > pt(mm)) {
      lines.push(line);
      line = word;
    } else line = longer;
  }
  return line === '' ? lines : [...lines, line];
}
