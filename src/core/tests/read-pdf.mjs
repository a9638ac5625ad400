// Reads a PDF with pdf.js, an independent reader, and prints its pages, straight lines and curves in mm. Run by the
// format tests in a Node of its own.
import { readFileSync } from 'node:fs';
import { getDocument, OPS } from 'pdfjs-dist/legacy/build/pdf.mjs';

const MM = 25.4 / 72;
const pdf = await getDocument({ data: new Uint8Array(readFileSync(process.argv[2])), verbosity: 0 }).promise;
const pages = [];
for (let n = 1; n <= pdf.numPages; n++) {
  const page = await pdf.getPage(n);
  const [, , w, h] = page.view;
  const { fnArray, argsArray } = await page.getOperatorList();
  const [lines, curves] = [[], []];
  fnArray.forEach((fn, i) => {
    if (fn !== OPS.constructPath) return;
    // In one array for each path: 0 moveTo x y, 1 lineTo x y, 2 curveTo with three points, 4 closePath. A moveTo may be
    // written twice.
    const packed = [...(argsArray[i][1][0] ?? [])];
    let [from, start] = [null, null];
    for (let k = 0; k < packed.length;) {
      const op = packed[k];
      const args = packed.slice(k + 1, k + 1 + { 0: 2, 1: 2, 2: 6, 4: 0 }[op]).map((v) => v * MM);
      k += 1 + args.length;
      const to = op === 4 ? start : args.slice(-2);
      if (op === 0) start = to;
      if ((op === 1 || op === 4) && from && Math.hypot(to[0] - from[0], to[1] - from[1]) > 1e-9)
        lines.push([...from, ...to]);
      if (op === 2) curves.push([...from, ...args]);
      from = to;
    }
  });
  const text = (await page.getTextContent()).items.map((t) => t.str).join(' ');
  pages.push({ width: w * MM, height: h * MM, lines, curves, text });
}
console.log(JSON.stringify(pages));
