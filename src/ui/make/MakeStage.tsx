'use client';
import { Box, chakra } from '@chakra-ui/react';
import { useEffect, useState } from 'react';
import type { Picture } from '@/core/formats/picture';
import { useStudio } from '@/store/context';
import { engine } from '@/workers/client';
import type { CutListing, Laid, PicturedStep } from '@/workers/protocol';
import { Choice } from '../common/Field';
import { Hint } from '../common/Hint';
import { PosedPicture } from '../common/PosedPicture';
import { CutListTable } from './CutListTable';
import { CutterView } from './CutterView';
import { FilesPanel } from './FilesPanel';
import { MachinePanel } from './MachinePanel';
import { WorkSteps } from './WorkSteps';

const PARTS = [
  { id: 'work', name: 'steps' },
  { id: 'list', name: 'cut list' },
  { id: 'cutter', name: 'cutter' },
] as const;
type Part = (typeof PARTS)[number]['id'];

interface Found {
  readonly laid: Laid | null;
  readonly listing: CutListing | null;
  readonly work: { readonly steps: readonly PicturedStep[]; readonly rings: readonly (readonly string[])[] } | null;
  readonly named: readonly { readonly id: string; readonly name: string; readonly picture: Picture }[];
}
const NOTHING: Found = { laid: null, listing: null, work: null, named: [] };

/** Files and the machine; beside them the work step by step, the cut list, and the simulated cutter. */
export function MakeStage() {
  const design = useStudio((s) => s.design);
  const [found, setFound] = useState<Found>(NOTHING);
  const [part, setPart] = useState<Part>('work');
  useEffect(() => {
    let live = true;
    const take =
      <K extends keyof Found>(key: K) =>
      (a: { readonly ok: true; readonly value: Found[K] } | { readonly ok: false }): void => {
        if (live && a.ok) setFound((f) => ({ ...f, [key]: a.value }));
      };
    const study = engine('study');
    void study.layout(design, []).then(take('laid'));
    void study.cutList(design).then(take('listing'));
    void study.steps(design).then(take('work'));
    void study.named(design).then(take('named'));
    return () => {
      live = false;
    };
  }, [design]);
  const { laid, listing, work, named } = found;
  return (
    <Box display="grid" gridTemplateColumns="330px minmax(0, 1fr)" height="100%" minHeight="0">
      <Box bg="panel" p="12px 16px" overflowY="auto" borderRight="1px solid var(--rule)">
        <Hint />
        <FilesPanel laid={laid} listing={listing} />
        <MachinePanel />
      </Box>
      <Box overflowY="auto" p="14px 20px" minWidth="0">
        <Box maxWidth="330px">
          <Choice label="Show" value={part} choices={PARTS} onChange={(id) => setPart(id as Part)} />
        </Box>
        {part === 'work' && work && <WorkSteps work={work} />}
        {part === 'work' && <Named named={named} />}
        {part === 'list' && listing && <CutListTable listing={listing} />}
        {part === 'cutter' && <CutterView laid={laid} />}
      </Box>
    </Box>
  );
}

function Named({ named }: Pick<Found, 'named'>) {
  if (named.length === 0) return null;
  return (
    <>
      <chakra.h2 className="heading" mb="8px !important">
        States by name
      </chakra.h2>
      <Box
        display="grid"
        gridTemplateColumns="repeat(auto-fill, minmax(180px, 1fr))"
        gap="16px"
        mb="18px"
        data-testid="named-pictures"
      >
        {named.map(({ id, name, picture }) => (
          <chakra.figure key={id} m="0" border="1px solid var(--rule)" borderRadius="card" p="8px 12px">
            <PosedPicture picture={picture} height={110} label={`${name}, picture`} />
            <figcaption>{name}</figcaption>
          </chakra.figure>
        ))}
      </Box>
    </>
  );
}
