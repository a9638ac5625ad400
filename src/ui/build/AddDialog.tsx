'use client';
import { Box, chakra } from '@chakra-ui/react';
import { useEffect, useState } from 'react';
import type { Picture } from '@/core/formats/picture';
import { faceMounting, GUTTER, KINDS, SIDES, type Kind, type Side } from '@/core/kinds';
import { addMechanism, naturalFace, naturalMount } from '@/core/document/standing';
import { blankDesign, CENTRE } from '@/core/document/design';
import { fittingFace, fittingParameters } from '@/core/document/fitting';
import { nameOfPart } from '@/core/document/words';
import { formatLength } from '@/core/units/length';
import { useActions, useStudio } from '@/store/context';
import { engine } from '@/workers/client';
import { TILE } from '../common/tile';
import { Choice } from '../common/Field';
import { FoldingPicture } from '../common/PosedPicture';
import { offeredOn } from './offered';
import { Sheet } from '../common/Sheet';

/** Places of the travel, in parts of it. */
const ANGLES = [0.07, 0.17, 0.27, 0.37, 0.47, 0.57, 0.67, 0.77, 0.87, 0.955];
/** A small card of each kind, posed by the solver itself; worked out once for the page. */
const pictures = new Map<string, Promise<readonly Picture[]>>();
function framesOf(id: string): Promise<readonly Picture[]> {
  const known = pictures.get(id);
  if (known) return known;
  const card = blankDesign(id, 120, 80);
  const kind = KINDS.get(id)!;
  const small =
    kind.mount === 'crease'
      ? addMechanism(card, id, GUTTER, fittingParameters(id, { lengthMm: 120, reachA: 80, reachB: 80 }))
      : addMechanism(card, id, ON_PICTURE, fittingFace(id, { widthMm: 80, heightMm: 120 }));
  const asked = engine('shape')
    .moving({ ...small.design, dressing: [] }, ANGLES, PICTURE_OPEN)
    .then((a) => (a.ok ? a.value : []));
  pictures.set(id, asked);
  return asked;
}
/** What is moved by hand is shown on the leaf that lies before the reader. */
const ON_PICTURE = { on: 'leafA', mount: { ...CENTRE, side: 'inside' as const } };
const PICTURE_OPEN = 150;

const MOUNTS = [
  { id: 'crease', name: 'a crease' },
  { id: 'face', name: 'a face' },
] as const;

export function AddDialog() {
  const adding = useStudio((s) => s.adding);
  const scene = useStudio((s) => s.scene);
  const design = useStudio((s) => s.design);
  const { units } = design;
  const { add, edit, select, light } = useActions();
  const host = scene?.hosts.find((h) => h.crease === adding);
  const [side, setSide] = useState<Side>('outside');
  const cover = naturalFace(design, 'outside').on;
  const face = scene?.faces.find((f) => f.facet === adding);
  /** What belongs behind the cover goes there where the cover was meant. */
  const placeOf = (kind: Kind, on: string) =>
    faceMounting(kind)?.behindCover && on === cover
      ? naturalMount(design, kind.id)
      : { on, mount: { ...CENTRE, side } };
  const put = (kind: Kind): void => {
    const where = host?.crease ?? face?.facet;
    if (where === undefined) return;
    let made = '';
    edit(`${kind.title} on ${nameOfPart(design, where)}`, (d) => {
      const added = host
        ? addMechanism(d, kind.id, where, fittingParameters(kind.id, host, d.units))
        : addMechanism(d, kind.id, placeOf(kind, where), fittingFace(kind.id, face!, d.units));
      made = added.id;
      return added.design;
    });
    select(made);
    light([]);
    add(null);
  };
  const kinds = offeredOn(face ? 'face' : 'crease');
  return (
    <Sheet title="Put something on" shown={adding !== null} onClose={() => add(null)} width={860}>
      {(host || face) && (
        <>
          <Box display="flex" gap="22px" flexWrap="wrap" alignItems="center">
            <Choice
              label="On"
              value={face ? 'face' : 'crease'}
              choices={MOUNTS}
              onChange={(mount) => add(mount === 'face' ? cover : (scene?.hosts[0]?.crease ?? null))}
            />
            {face ? (
              <>
                <Choice
                  asList
                  label="Facet"
                  value={face.facet}
                  choices={(scene?.faces ?? []).map((f) => ({ id: f.facet, name: nameOfPart(design, f.facet) }))}
                  onChange={(f) => add(f)}
                />
                <Choice
                  label="Side"
                  value={side}
                  choices={SIDES.map((id) => ({ id, name: id }))}
                  onChange={(s) => setSide(s as Side)}
                />
              </>
            ) : (
              <Choice
                asList
                label="Crease"
                value={host!.crease}
                choices={(scene?.hosts ?? []).map((h) => ({
                  id: h.crease,
                  name: `${nameOfPart(design, h.crease)} · ${formatLength(h.lengthMm, units)} ${units}`,
                }))}
                onChange={(c) => add(c)}
              />
            )}
          </Box>
          <Box display="grid" gridTemplateColumns="1fr 1fr 1fr" gap="14px" mt="10px">
            {kinds.map((k, i) => (
              <chakra.button
                {...TILE}
                key={k.id}
                data-first={i === 0 ? '' : undefined}
                data-kind={k.id}
                onClick={() => put(k)}
                p="12px"
              >
                <KindPicture kind={k.id} title={k.title} />
                <Box fontWeight="700" mt="6px">
                  {k.title}
                </Box>
                <Box className="dim" fontSize="13px">
                  {k.says}
                </Box>
              </chakra.button>
            ))}
          </Box>
        </>
      )}
    </Sheet>
  );
}

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
