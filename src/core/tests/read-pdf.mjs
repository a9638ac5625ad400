// Reads a PDF with pdf.js, an independent reader, and prints its pages and straight lines in mm. Run by the format
// tests in a Node of its own.
import { readFileSync } from 'node:fs';
import { getDocument, OPS } from 'pdfjs-dist/legacy/build/pdf.mjs';

const MM = 25.4 / 72;
const pdf = await getDocument({ data: new Uint8Array(readFileSync(process.argv[2])), verbosity: 0 }).promise;
const pages = [];
for (let n = 1; n <= pdf.numPages; n++) {
  const page = await pdf.getPage(n);
  const [, , w, h] = page.view;
  const { fnArray, argsArray } = await page.getOperatorList();
  const lines = [];
  fnArray.forEach((fn, i) => {
    if (fn !== OPS.constructPath) return;
    // 0 moveTo x y and 1 lineTo x y, packed in one array for each path; a moveTo may be written twice.
    const packed = [...(argsArray[i][1][0] ?? [])];
    let from = null;
    for (let k = 0; k + 2 < packed.length; k += 3) {
      const to = [packed[k + 1] * MM, packed[k + 2] * MM];
      if (packed[k] === 1 && from) lines.push([...from, ...to]);
      from = to;
    }
  });
  const text = (await page.getTextContent()).items.map((t) => t.str).join(' ');
  pages.push({ width: w * MM, height: h * MM, lines, text });
}
console.log(JSON.stringify(pages));
