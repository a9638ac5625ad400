'use client';
import { Box, chakra } from '@chakra-ui/react';
import { GUIDES, KINDS, type Parameter } from '@/core/kinds';
import { parametersOf } from '@/core/document/fields';
import { Action } from '../common/Action';
import { KindPicture } from './KindPicture';

/** A kind for those new to it: its picture moving, what it is good for, usual sizes, what goes wrong with it. */
export function KindGuide({
  kind,
  onBack,
  onPut,
}: {
  readonly kind: string;
  readonly onBack: () => void;
  readonly onPut: () => void;
}) {
  const known = KINDS.get(kind);
  const guide = GUIDES[kind];
  if (!known || !guide) return null;
  return (
    <Box data-testid="kind-guide" display="grid" gridTemplateColumns="340px 1fr" gap="22px">
      <Box>
        <KindPicture kind={kind} title={known.title} height={250} rounds={3} />
        <Box display="flex" gap="6px" mt="12px">
          <Action strong onClick={onPut}>
            Put it on
          </Action>
          <Action onClick={onBack}>Back to all</Action>
        </Box>
      </Box>
      <Box>
        <chakra.h3 fontSize="17px" fontWeight="700" m="0 0 4px">
          {known.title}
        </chakra.h3>
        <chakra.p mt="0">{known.says}</chakra.p>
        <Told head="Good for">{guide.goodFor}</Told>
        <Told head="Usual sizes">{guide.sizes}</Told>
        <chakra.h4 className="heading" mt="12px !important">
          What goes wrong
        </chakra.h4>
        <Box as="ul" m="4px 0 0" pl="18px">
          {guide.goesWrong.map((w) => (
            <li key={w}>{w}</li>
          ))}
        </Box>
        <chakra.h4 className="heading" mt="12px !important">
          Its numbers
        </chakra.h4>
        <Box as="dl" display="grid" gridTemplateColumns="150px 1fr" rowGap="3px" m="4px 0 0" fontSize="13.5px">
          {parametersOf(kind)
            .filter((p: Parameter) => p.unit !== 'parts')
            .map((p) => (
              <Box key={p.key} display="contents">
                <chakra.dt fontWeight="600">{p.label}</chakra.dt>
                <chakra.dd m="0" className="dim">
                  {p.note}
                </chakra.dd>
              </Box>
            ))}
        </Box>
      </Box>
    </Box>
  );
}

function Told({ head, children }: { readonly head: string; readonly children: string }) {
  return (
    <>
      <chakra.h4 className="heading" mt="12px !important">
        {head}
      </chakra.h4>
      <chakra.p m="4px 0 0">{children}</chakra.p>
    </>
  );
}
