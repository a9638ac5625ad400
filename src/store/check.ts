/**
 * The check at the door of the database. It runs in a worker, which has loaded it anyway: a page that lists cards need
 * not load what builds them.
 */
import { isTooDeep, TOO_DEEP } from '@/core/document/json';
import type { Listed } from '@/core/document/listed';
import { engine } from '@/workers/client';

/** Where there is no worker, or it gives no answer, the page does it. */
export async function checkCard(value: unknown): Promise<Listed> {
  // It cannot be copied into a worker, or would take that with it.
  if (isTooDeep(value)) return { ok: false, why: TOO_DEEP, repaired: null };
  if (typeof Worker !== 'undefined') {
    const answer = await engine('study').check(value);
    if (answer.ok) return answer.value;
  }
  const { listedCard } = await import('@/core/document/listed');
  return listedCard(value);
}
