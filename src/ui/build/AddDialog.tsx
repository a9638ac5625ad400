'use client';
import { Box, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import { BASES, faceMounting, SIDES, type Kind, type Side } from '@/core/kinds';
import { baseKindOf } from '@/core/document/fields';
import { addMechanism, naturalFace, naturalMount, rebuiltAs } from '@/core/document/standing';
import { CENTRE } from '@/core/document/design';
import { fittingFace, fittingParameters } from '@/core/document/fitting';
import { inSentence, nameOfPart } from '@/core/document/words';
import { formatLength } from '@/core/units/length';
import { useActions, useStudio } from '@/store/context';
import { Action } from '../common/Action';
import { Choice } from '../common/Field';
import { KindGuide } from './KindGuide';
import { KindTile } from './KindTile';
import { offeredOn } from './offered';
import { Sheet } from '../common/Sheet';
import { OwnTiles } from './OwnTiles';

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
    edit(`${kind.title} on the ${nameOfPart(design, where)}`, (d) => {
      const added = host
        ? addMechanism(d, kind.id, where, fittingParameters(kind.id, host, d.units))
        : addMechanism(d, kind.id, placeOf(kind, where), fittingFace(kind.id, face!, d.units));
      made = added.id;
      return added.design;
    });
    select(made);
    light([]);
    setTold(null);
    add(null);
  };
  const kinds = offeredOn(face ? 'face' : 'crease');
  const [told, setTold] = useState<string | null>(null);
  const guided = adding === null ? undefined : kinds.find((k) => k.id === told);
  return (
    <Sheet title="Put something on" shown={adding !== null} onClose={() => add(null)} width={860}>
      {guided && <KindGuide kind={guided.id} onBack={() => setTold(null)} onPut={() => put(guided)} />}
      {!guided && (host || face) && (
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
          {host && <OwnTiles crease={host.crease} />}
          <Box display="grid" gridTemplateColumns="1fr 1fr 1fr" gap="14px" mt="10px">
            {kinds.map((k, i) => (
              <Box key={k.id} display="grid" gridTemplateRows="1fr auto" gap="3px">
                <KindTile
                  kind={k.id}
                  title={k.title}
                  says={k.says}
                  data-first={i === 0 ? '' : undefined}
                  data-kind={k.id}
                  onClick={() => put(k)}
                />
                <Action small onClick={() => setTold(k.id)}>
                  About {inSentence(k.title)}
                </Action>
              </Box>
            ))}
          </Box>
          <OtherBases onBuilt={() => add(null)} />
        </>
      )}
    </Sheet>
  );
}

/** The card itself, built otherwise. */
function OtherBases({ onBuilt }: { readonly onBuilt: () => void }) {
  const design = useStudio((s) => s.design);
  const { edit } = useActions();
  if (design.card.template) return null;
  const others = [...BASES.values()].filter((b) => b !== baseKindOf(design));
  return (
    <>
      <chakra.h3 className="heading" mt="20px !important" mb="10px !important">
        Or build the card as
      </chakra.h3>
      <Box display="grid" gridTemplateColumns="1fr 1fr 1fr" gap="14px">
        {others.map((b) => (
          <KindTile
            key={b.id}
            kind={b.id}
            title={b.title}
            says={b.says}
            height={110}
            data-base={b.id}
            onClick={() => {
              edit(inSentence(b.title), (d) => rebuiltAs(d, b.id));
              onBuilt();
            }}
          />
        ))}
      </Box>
    </>
  );
}
