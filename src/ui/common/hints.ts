/** What the next step could be, where a hand hesitates, by stage; those that come first matter most. */
import { CARD } from '@/core/ids';
import type { Stage, Studio } from '@/store/studio';

type Seen = Pick<Studio, 'design' | 'selected' | 'proof' | 'proving'>;
interface Hint {
  readonly id: string;
  readonly stage: Stage;
  readonly says: string;
  readonly when: (seen: Seen) => boolean;
}

const bare = ({ design }: Seen): boolean => design.mechanisms.length === 0 && !design.card.template;
const stands = ({ design }: Seen): boolean => design.mechanisms.length > 0;
const verdict = ({ proof, proving }: Seen): string | undefined => (proving ? undefined : proof?.verdict);

export const HINTS: readonly Hint[] = [
  {
    id: 'envelope',
    stage: 'brief',
    says: 'Choose the envelope first: the largest card that goes in it is one click then.',
    when: bare,
  },
  { id: 'empty', stage: 'build', says: 'Click the gutter, or press N, to stand something on it.', when: bare },
  {
    id: 'held',
    stage: 'build',
    says: 'Drag its lines, its paper, its corners in the posed view; type a number meanwhile.',
    when: ({ selected }) => selected !== CARD,
  },
  {
    id: 'travel',
    stage: 'build',
    says: 'Drag along the strip at the foot, or press P, and watch it open and close.',
    when: stands,
  },
  {
    id: 'blocked',
    stage: 'build',
    says: 'Something blocks. Prove shows where it happens, and offers what would mend it.',
    when: (seen) => verdict(seen) === 'blocked',
  },
  {
    id: 'proved',
    stage: 'build',
    says: 'It is proved. Sheets lays it on your stock, Make saves the cut files.',
    when: (seen) => stands(seen) && verdict(seen) === 'clear',
  },
  {
    id: 'facet',
    stage: 'dress',
    says: 'Click a facet, then bring in, draw or letter a shape and put it there.',
    when: ({ design }) => design.layers.length === 0,
  },
  {
    id: 'mend',
    stage: 'prove',
    says: 'A button under a finding is a change that was proved to end it; undo takes it back.',
    when: ({ proof }) => proof?.findings.some((f) => f.remedies?.length) ?? false,
  },
  {
    id: 'what-if',
    stage: 'prove',
    says: 'What if tries a number over all of its room before the card is changed.',
    when: stands,
  },
  {
    id: 'tighter',
    stage: 'sheets',
    says: 'Lay out tighter looks for a layout that takes less paper; keep the best so far whenever you like.',
    when: () => true,
  },
  {
    id: 'measure-print',
    stage: 'make',
    says: 'Printed the PDF? Measure its 50 mm bar before you cut: printers like to scale.',
    when: () => true,
  },
];

/** What to say on a stage, of what was not put away yet. */
export const hintFor = (stage: Stage, seen: Seen, away: readonly string[]): Hint | undefined =>
  HINTS.find((h) => h.stage === stage && !away.includes(h.id) && h.when(seen));
