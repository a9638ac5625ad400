'use client';
import { Box } from '@chakra-ui/react';
import { useEffect, useRef, useState } from 'react';
import type { Picture } from '@/core/formats/picture';
import { GUTTER, KINDS } from '@/core/kinds';
import { addMechanism, rebuiltAs } from '@/core/document/standing';
import { blankDesign, CENTRE, type Design } from '@/core/document/design';
import { fittingFace, fittingParameters } from '@/core/document/fitting';
import { engine } from '@/workers/client';
import { whenInSight } from '../common/folding';
import { FoldingPicture } from '../common/PosedPicture';

/** Places of the travel, in parts of it. */
const ANGLES = [0.07, 0.17, 0.27, 0.37, 0.47, 0.57, 0.67, 0.77, 0.87, 0.955];
/** What is moved by hand is shown on the leaf that lies before the reader. */
const ON_PICTURE = { on: 'leafA', mount: { ...CENTRE, side: 'inside' as const } };
const PICTURE_OPEN = 150;

/** A small card of each kind, posed by the solver itself; worked out once for the page. */
const pictures = new Map<string, Promise<readonly Picture[]>>();
function framesOf(id: string): Promise<readonly Picture[]> {
  const known = pictures.get(id);
  if (known) return known;
  const asked = engine('shape')
    .moving({ ...smallCard(id), dressing: [] }, ANGLES, PICTURE_OPEN)
    .then((a) => (a.ok ? a.value : []));
  pictures.set(id, asked);
  return asked;
}

/** A small plain card with one mechanism of a kind on it, or a small card built as a base. */
function smallCard(id: string): Design {
  const card = blankDesign(id, 120, 80);
  const kind = KINDS.get(id);
  if (!kind) return rebuiltAs(card, id);
  return kind.mount === 'crease'
    ? addMechanism(card, id, GUTTER, fittingParameters(id, { lengthMm: 120, reachA: 80, reachB: 80 })).design
    : addMechanism(card, id, ON_PICTURE, fittingFace(id, { widthMm: 80, heightMm: 120 })).design;
}

/** A kind or a base as it folds. */
export function KindPicture({
  kind,
  title,
  height = 120,
  rounds,
}: {
  readonly kind: string;
  readonly title: string;
  readonly height?: number;
  /** So often it folds by itself. */
  readonly rounds?: number;
}) {
  const [frames, setFrames] = useState<readonly Picture[]>([]);
  const box = useRef<HTMLDivElement>(null);
  useEffect(() => {
    let live = true;
    // A sheet has many: what is not in sight would keep those that are waiting, and all else that is asked.
    const end = whenInSight(box.current!, () => void framesOf(kind).then((f) => live && setFrames(f)));
    return () => {
      live = false;
      end();
    };
  }, [kind]);
  return (
    <Box ref={box} height={`${height}px`}>
      {frames.length > 0 && (
        <FoldingPicture frames={frames} height={height} label={`${title}, folding`} rounds={rounds} />
      )}
    </Box>
  );
}
