'use client';
import { Box, chakra } from '@chakra-ui/react';
import { useEffect, useState } from 'react';
import { borrowShape } from '@/core/build/borrow';
import type { Design } from '@/core/document/design';
import { useStudio } from '@/store/context';
import { listProjects } from '@/store/projects';
import { TILE } from '../common/tile';
import { readDesignFrom } from '../common/files';
import { ShapeThumb } from './ShapePicture';
import { useShelve } from './useKeep';

/** Shapes kept in other cards: of this browser, or of a card's file. They come with their steps. */
export function OtherCardsPane() {
  const own = useStudio((s) => s.id);
  const shelve = useShelve();
  const [cards, setCards] = useState<readonly { readonly id: string; readonly design: Design }[] | null>(null);
  const [why, setWhy] = useState<string | null>(null);
  useEffect(() => {
    listProjects().then(
      ({ projects }) => setCards(projects.filter((p) => p.id !== own && p.design.shapes.length > 0)),
      (error: Error) => {
        setCards([]);
        setWhy(`The cards of this browser do not read: ${error.message}.`);
      },
    );
  }, [own]);
  const take = async (file: File | undefined): Promise<void> => {
    if (!file) return;
    const read = await readDesignFrom(file);
    if (!read.ok) return setWhy(read.why);
    setWhy(read.design.shapes.length === 0 ? `${file.name} keeps no shapes on its shelf. Nothing was lost.` : null);
    if (read.design.shapes.length > 0)
      setCards((known) => [
        { id: `file ${file.name}`, design: read.design },
        ...(known ?? []).filter((c) => c.id !== `file ${file.name}`),
      ]);
  };
  return (
    <Box maxHeight="56vh" overflowY="auto">
      <chakra.label display="block" mb="10px">
        A card’s file{' '}
        <input
          type="file"
          accept=".json,application/json"
          aria-label="Card file"
          onChange={(e) => void take(e.currentTarget.files?.[0])}
        />
      </chakra.label>
      {why && (
        <Box role="alert" bg="badWash" borderLeft="4px solid var(--bad)" p="8px 10px" mb="10px">
          {why}
        </Box>
      )}
      {cards?.length === 0 && !why && (
        <chakra.p className="dim">No other card in this browser keeps shapes yet.</chakra.p>
      )}
      {cards?.map(({ id, design }) => (
        <Box key={id} as="section" aria-label={design.name} mb="14px">
          <chakra.h3 className="heading" mb="6px !important">
            {design.name}
          </chakra.h3>
          <Box display="grid" gridTemplateColumns="repeat(auto-fill, minmax(104px, 1fr))" gap="8px">
            {design.shapes.map((s) => (
              <chakra.button
                {...TILE}
                key={s.id}
                data-borrow={s.id}
                onClick={() => shelve(`shape ${s.name} from ${design.name}`, (d) => borrowShape(d, design, s.id))}
                p="8px"
              >
                <ShapeThumb shape={{ asset: s.id }} of={design} height={58} label={s.name} />
                <Box fontSize="12.5px" mt="4px">
                  {s.name}
                </Box>
              </chakra.button>
            ))}
          </Box>
        </Box>
      ))}
    </Box>
  );
}
