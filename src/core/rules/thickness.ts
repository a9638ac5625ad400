/** `thickness`: the card as it is sent is as thick as its post takes. */
import { POST } from '../ids';
import { basePiece, finding, leversOf, type Rule } from './rule';
import { postedStack, postedState } from './posted';
import { wordsFor } from './words';

export const thickness: Rule = {
  id: 'thickness',
  needs: 'closed',
  check: (evidence) => {
    const { assembly, brief } = evidence;
    const map = brief.post && postedStack(evidence);
    if (!map || !brief.post) return [];
    const { greatest } = map;
    const { most, least, name } = brief.post;
    const over = greatest.mm > most.thickMm;
    const under = least !== undefined && greatest.mm < least.thickMm;
    if (!over && !under) return [];
    const limit = over ? most.thickMm : least!.thickMm;
    const say = wordsFor(evidence);
    return [
      finding({
        rule: 'thickness',
        severity: 'blocks',
        mechanism: assembly.base.mechanism,
        piece: basePiece(assembly).id,
        measured: greatest.mm,
        limit,
        at: postedState(assembly, brief),
        aspect: over ? 'most' : 'least',
        levers: over ? leversOf(POST, 'sent') : [],
        message:
          `${brief.sentOpen ? 'Open flat' : 'Closed'} it is ${say.fine(greatest.mm)} thick ` +
          `(${greatest.layers} layers at ${say.place(greatest.at)}); ` +
          `${name} takes ${over ? 'at most' : 'at least'} ${say.fine(limit)}.`,
      }),
    ];
  },
};
