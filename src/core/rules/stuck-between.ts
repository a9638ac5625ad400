/**
 * `bind`: what is stuck on leaves what moves between two sheets room over its thickness. And what a hand's ways were
 * not looked at closely enough.
 */
import { ownerOfId } from '../ids';
import { byHandOf } from './by-hand';
import { ABOVE_MM, type Tight } from './flat-pairs';
import { finding, leversOf, type Evidence, type Finding, type Rule } from './rule';
import { wordsFor } from './words';

export const stuckBetween: Rule = {
  id: 'bind',
  needs: 'travel',
  check: (evidence) => byHandOf(evidence).tight.map((tight) => told(evidence, tight)),
};

function told(evidence: Evidence, { drive, mover, by, roomMm, at }: Tight): Finding {
  const { facets } = evidence.assembly;
  const say = wordsFor(evidence);
  const facet = facets[mover.facet];
  const layer = by.layer!;
  const room = roomMm < 0 ? `lacks ${say.fine(-roomMm)} of room` : `has ${say.fine(roomMm)} of room`;
  return finding({
    rule: 'bind',
    severity: roomMm < 0 ? 'blocks' : 'risk',
    mechanism: facet.mechanism,
    piece: facet.piece,
    measured: roomMm,
    limit: ABOVE_MM,
    at,
    aspect: `${drive.id} under ${layer.id}`,
    message: `${say.partOf(facet.id)} ${room} over and under it with ${layer.title}; it needs ${say.fine(ABOVE_MM)}.`,
    subjects: [facet.id, layer.id],
    levers: leversOf(layer.id, 'foamMm', 'x', 'y', 'width', 'height'),
  });
}

/** Ways of which not every place was looked at: said, never passed over. */
export const notLookedAt: Rule = {
  id: 'collision',
  needs: 'travel',
  check: (evidence) => {
    const say = wordsFor(evidence);
    const { assembly } = evidence;
    const name = (id: string): string => {
      const drive = assembly.drives.find((d) => d.id === id)!;
      return `${drive.label} of ${say.title(ownerOfId(id))}`;
    };
    const ways = new Map(byHandOf(evidence).missed.map((drives) => [drives.join(' '), drives]));
    return [...ways.values()].map((drives) =>
      finding({
        rule: 'collision',
        severity: 'note',
        mechanism: ownerOfId(drives[0]),
        measured: drives.length,
        unit: 'count',
        aspect: `not looked at ${drives.join(' ')}`,
        message:
          `Not looked at everywhere: ${drives.map(name).join(' together with ')}. ` +
          `So much comes near there that only a part of the places was tried.`,
        subjects: [],
      }),
    );
  },
};
