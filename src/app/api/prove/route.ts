import Joi from 'joi';
import { DEFAULT_STEPS, MOST_STEPS } from '@/core/proof/prove';
import { answerWith } from '@/server/pool';
import { refuse, textFrom } from '../body';

const query = Joi.object({ steps: Joi.number().integer().min(2).max(MOST_STEPS).default(DEFAULT_STEPS) });

/** POST a design, get the proof that `rhabdoplex prove` prints. */
export async function POST(request: Request): Promise<Response> {
  const asked = query.validate(Object.fromEntries(new URL(request.url).searchParams));
  if (asked.error) return refuse(400, asked.error.message);
  const { steps } = asked.value as { steps: number };
  return answerWith(request, async (hold) => {
    const text = await textFrom(request, hold);
    return text instanceof Response ? text : { kind: 'prove', text, steps };
  });
}
