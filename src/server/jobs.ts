/** What the server is asked to work out, and what it answers: plain data that crosses to a worker. */
import { readDesign } from '../core/document/schema';
import { DesignError } from '../core/build/build';
import { ExportError, exportDesign, MIME, type ExportChoice } from '../core/formats/export';
import { prove } from '../core/proof/prove';
import { shelveFonts } from '../fonts/shelve';

export type Job =
  | { readonly kind: 'prove'; readonly text: string; readonly steps: number }
  | { readonly kind: 'pattern'; readonly text: string; readonly choice: ExportChoice };

export interface Done {
  readonly status: number;
  readonly type: string;
  readonly body: string | Uint8Array;
}

/** Reads the design and does the job. What is wrong with it is an answer of its own; anything else is thrown. */
export async function doJob(job: Job): Promise<Done> {
  const read = readDesign(job.text);
  if (!read.ok) return refused(400, read.why);
  // Whatever follows may set text.
  shelveFonts();
  try {
    if (job.kind === 'prove') return json(200, prove(read.design, job.steps));
    return { status: 200, type: MIME[job.choice.format], body: await exportDesign(read.design, job.choice) };
  } catch (error) {
    if (error instanceof DesignError || error instanceof ExportError) return refused(422, error.message);
    throw error;
  }
}

const json = (status: number, value: unknown): Done => ({
  status,
  type: 'application/json',
  body: JSON.stringify(value),
});
const refused = (status: number, error: string): Done => json(status, { error });
