import Joi from 'joi';
import { DesignError } from '@/core/build/build';
import { DEFAULT_STEPS, MOST_STEPS, prove } from '@/core/proof/prove';
import { designFrom, refuse } from '../body';

const query = Joi.object({ steps: Joi.number().integer().min(2).max(MOST_STEPS).default(DEFAULT_STEPS) });

/** POST a design, get the proof that `rhabdoplex prove` prints. */
export async function POST(request: Request): Promise<Response> {
  const asked = query.validate(Object.fromEntries(new URL(request.url).searchParams));
  if (asked.error) return refuse(400, asked.error.message);
  const design = await designFrom(request);
  if (design instanceof Response) return design;
  try {
    return Response.json(prove(design, (asked.value as { steps: number }).steps));
  } catch (error) {
    if (error instanceof DesignError) return refuse(422, error.message);
    throw error;
  }
}
