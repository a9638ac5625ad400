import { openTo } from '@/core/drives';
import Joi from 'joi';
import { EXPORT_FORMATS, type ExportFormat } from '@/core/formats/export';
import { answerWith } from '@/server/pool';
import { refuse, textFrom } from '../body';

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
  const text = await textFrom(request);
  if (text instanceof Response) return text;
  const choice = { format: as, state: openTo(open), ...(piece === undefined ? {} : { piece }) };
  return answerWith(
    request,
    { kind: 'pattern', text, choice },
    {
      'content-disposition': `attachment; filename="pattern.${as}"`,
    },
  );
}
