'use client';
import { VisuallyHidden } from '@chakra-ui/react';
import type { Proof } from '@/core/proof/prove';
import { RULE_WORDS } from '@/core/rules';
import { useStudio } from '@/store/context';

/** The verdict, and what stands against it, spoken when it changes: only what a finished proof says. */
export function Spoken() {
  const proof = useStudio((s) => s.proof);
  const proving = useStudio((s) => s.proving);
  return (
    <VisuallyHidden role="status" data-testid="spoken">
      {proof && !proving ? verdictSaid(proof) : ''}
    </VisuallyHidden>
  );
}

/** So many findings are said one by one. */
const MOST_SAID = 3;

export function verdictSaid({ verdict, findings }: Pick<Proof, 'verdict' | 'findings'>): string {
  const against = findings.filter((f) => f.severity !== 'note');
  const says =
    verdict === 'clear' ? 'Ready to cut.' : verdict === 'blocked' ? 'Do not cut yet.' : 'Can be cut, with risks.';
  if (against.length === 0) return says;
  const said = against.slice(0, MOST_SAID).map((f) => `${RULE_WORDS[f.rule]}: ${f.message}`);
  const more = against.length > MOST_SAID ? ` And ${against.length - MOST_SAID} more.` : '';
  return `${says} ${against.length === 1 ? 'One finding' : `${against.length} findings`}. ${said.join(' ')}${more}`;
}
