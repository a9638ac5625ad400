'use client';
import { Box, chakra } from '@chakra-ui/react';
import { useEffect, useState } from 'react';
import type { Picture } from '@/core/formats/picture';
import { KINDS } from '@/core/kinds';
import { addMechanism } from '@/core/document/standing';
import { blankDesign } from '@/core/document/design';
import { fittingParameters } from '@/core/document/fitting';
import { nameOfPart } from '@/core/document/words';
import { formatLength } from '@/core/units/length';
import { useActions, useStudio } from '@/store/context';
import { engine } from '@/workers/client';
import { TILE } from '../common/tile';
import { Choice } from '../common/Field';
import { FoldingPicture } from '../common/PosedPicture';
import { Sheet } from '../common/Sheet';

const ANGLES = [12, 30, 48, 66, 84, 102, 120, 138, 156, 172];
/** A small card of each kind, posed by the solver itself; worked out once for the page. */
const pictures = new Map<string, Promise<readonly Picture[]>>();
function framesOf(kind: string): Promise<readonly Picture[]> {
  const known = pictures.get(kind);
  if (known) return known;
  const card = blankDesign(kind, 120, 80);
  const small = addMechanism(
    card,
    kind,
    'card.gutter',
    fittingParameters(kind, { lengthMm: 120, reachA: 80, reachB: 80 }),
  ).design;
  const asked = engine('shape')
    .frames({ ...small, dressing: [] }, ANGLES)
    .then((a) => (a.ok ? a.value : []));
  pictures.set(kind, asked);
  return asked;
}

export function AddDialog() {
  const adding = useStudio((s) => s.adding);
  const scene = useStudio((s) => s.scene);
  const design = useStudio((s) => s.design);
  const { units } = design;
  const { add, edit, select, light } = useActions();
  const host = scene?.hosts.find((h) => h.crease === adding);
  const stand = (kind: string): void => {
    if (!host) return;
    let made = '';
    edit(`${KINDS.get(kind)!.title} on ${nameOfPart(design, host.crease)}`, (d) => {
      const added = addMechanism(d, kind, host.crease, fittingParameters(kind, host, d.units));
      made = added.id;
      return added.design;
    });
    select(made);
    light([]);
    add(null);
  };
  return (
    <Sheet title="Stand something on a crease" shown={adding !== null} onClose={() => add(null)} width={860}>
      {host && (
        <>
          <Choice
            asList
            label="Crease"
            value={host.crease}
            choices={(scene?.hosts ?? []).map((h) => ({
              id: h.crease,
              name: `${nameOfPart(design, h.crease)} · ${formatLength(h.lengthMm, units)} ${units}`,
            }))}
            onChange={(c) => add(c)}
          />
          <Box display="grid" gridTemplateColumns="1fr 1fr 1fr" gap="14px" mt="10px">
            {[...KINDS.values()].map((k, i) => (
              <chakra.button
                {...TILE}
                key={k.id}
                data-first={i === 0 ? '' : undefined}
                data-kind={k.id}
                onClick={() => stand(k.id)}
                p="12px"
              >
                <KindPicture kind={k.id} title={k.title} />
                <Box fontWeight="700" mt="6px">
                  {k.title}
                </Box>
                <Box className="dim" fontSize="13px">
                  {SAYS[k.id]}
                </Box>
              </chakra.button>
            ))}
          </Box>
        </>
      )}
    </Sheet>
  );
}

const SAYS: Readonly<Record<string, string>> = {
  'step-fold': 'A box step, cut through the fold or glued over it. Stands square when the card is at 90°.',
  'plane-stack': 'Planes that stand one behind the other, each tied back by a platform others can stand on.',
  'strut-figure': 'A silhouette cut free from the page, on feet, held from its high points by struts.',
  'half-cut': 'The part of a silhouette past the fold stays up when the leaf behind folds away.',
  'floating-band': 'A band between two slits lifts a figure off the crease, folded on its own axis.',
  'v-fold': 'A glued piece whose spine rises out of the crease as the card opens.',
};

function KindPicture({ kind, title }: { kind: string; title: string }) {
  const [frames, setFrames] = useState<readonly Picture[]>([]);
  useEffect(() => {
    let live = true;
    void framesOf(kind).then((f) => live && setFrames(f));
    return () => {
      live = false;
    };
  }, [kind]);
  return (
    <Box height="120px">
      {frames.length > 0 && <FoldingPicture frames={frames} height={120} label={`${title}, folding`} />}
    </Box>
  );
}
