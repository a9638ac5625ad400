import { openTo } from '@/core/drives';
import Joi from 'joi';
import { EXPORT_FORMATS, type ExportFormat } from '@/core/formats/export';
import { SIDES, type Side } from '@/core/kinds';
import { answerWith } from '@/server/pool';
import { refuse, textFrom } from '../body';

const query = Joi.object({
  as: Joi.valid(...EXPORT_FORMATS).required(),
  piece: Joi.string().max(100),
  side: Joi.valid(...SIDES),
  open: Joi.number().min(0).max(180).default(90),
});

interface Asked {
  readonly as: ExportFormat;
  readonly piece?: string;
  readonly side?: Side;
  readonly open: number;
}

/** POST a design, get the file that `rhabdoplex pattern` writes. */
export async function POST(request: Request): Promise<Response> {
  const asked = query.validate(Object.fromEntries(new URL(request.url).searchParams));
  if (asked.error) return refuse(400, asked.error.message);
  const { as, piece, side, open } = asked.value as Asked;
  const choice = {
    format: as,
    state: openTo(open),
    ...(piece === undefined ? {} : { piece }),
    ...(side ? { side } : {}),
  };
  return answerWith(
    request,
    async (hold) => {
      const text = await textFrom(request, hold);
      return text instanceof Response ? text : { kind: 'pattern', text, choice };
    },
    {
      'content-disposition': `attachment; filename="pattern${side === 'outside' ? '-outside' : ''}.${as}"`,
    },
  );
}
