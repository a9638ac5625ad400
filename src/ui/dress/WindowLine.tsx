'use client';
import { chakra } from '@chakra-ui/react';
import { useMemo } from 'react';
import { marginsOf } from '@/core/build/margins';
import { sideOf, type Layer } from '@/core/document/design';
import { nameOfPart } from '@/core/document/words';
import { layerId } from '@/core/ids';
import { formatArea } from '@/core/units/length';
import { useStudio } from '@/store/context';
import { ToEdges } from './MarginsLine';

/** What of a window is left open, what hides the rest, and the paper that is left round it. */
export function WindowLine({ layer }: { readonly layer: Layer }) {
  const design = useStudio((s) => s.design);
  const opening = useStudio((s) => s.scene?.openings.find((o) => o.id === layerId(layer.id)));
  const facet = useStudio((s) => s.scene?.facets.find((f) => f.id === opening?.facet));
  const margins = useMemo(
    // Its own hole is no edge of its facet.
    () => facet && opening && marginsOf([facet.rings[0]], opening.rings, sideOf(layer)),
    [facet, opening, layer],
  );
  if (!opening || !margins) return null;
  const { openMm2, leftMm2, hiddenBy } = opening;
  return (
    <chakra.div className="dim" m="2px 0 0" fontSize="13px" data-opening={opening.id}>
      <p>
        {hiddenBy.length > 0
          ? `${formatArea(leftMm2, design.units)} of ${formatArea(openMm2, design.units)} left open: under ` +
            hiddenBy.map((id) => nameOfPart(design, id)).join(', ')
          : `${formatArea(openMm2, design.units)}, all of it open`}
      </p>
      <p>
        Paper round it, {design.units}: <ToEdges margins={margins} />
        {margins.least === null && ', past the edge'}
      </p>
    </chakra.div>
  );
}
