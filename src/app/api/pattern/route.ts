import Joi from 'joi';
import { EXPORT_FORMATS, ExportError, exportDesign, MIME, type ExportFormat } from '@/core/formats/export';
import { DesignError } from '@/core/build/build';
import { designFrom, refuse } from '../body';

const query = Joi.object({
  as: Joi.valid(...EXPORT_FORMATS).required(),
  piece: Joi.string().max(100),
  open: Joi.number().min(0).max(180).default(90),
});

/** POST a design, get the file that `rhabdoplex pattern` writes. */
export async function POST(request: Request): Promise<Response> {
  const asked = query.validate(Object.fromEntries(new URL(request.url).searchParams));
  if (asked.error) return refuse(400, asked.error.message);
  const { as, piece, open } = asked.value as { as: ExportFormat; piece?: string; open: number };
  const design = await designFrom(request);
  if (design instanceof Response) return design;
  try {
    const bytes = await exportDesign(design, { format: as, openDeg: open, ...(piece === undefined ? {} : { piece }) });
    return new Response(new Uint8Array(bytes), {
      headers: { 'content-type': MIME[as], 'content-disposition': `attachment; filename="pattern.${as}"` },
    });
  } catch (error) {
    if (error instanceof DesignError || error instanceof ExportError) return refuse(422, error.message);
    throw error;
  }
}
