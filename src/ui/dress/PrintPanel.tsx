'use client';
import { Box, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import { sideOf, type Artwork, type Design } from '@/core/document/design';
import { nameOfFace, nameOfPart } from '@/core/document/words';
import { FONTS } from '@/core/shapes/fonts';
import { idOfLayer, layerId } from '@/core/ids';
import { useActions, useStudio } from '@/store/context';
import { canBeDressed } from '@/workers/protocol';
import { deg, mm } from '../common/asked';
import { Action } from '../common/Action';
import { Choice, NumberField } from '../common/Field';
import { FileButton } from '../common/FileButton';
import { takePicture } from './picture-in';
import { SideChoice } from './SideChoice';

const ACROSS = mm('art-x', 'Across', -5000, 5000, { note: 'Its middle, from the middle of what it is on.' });
const UP = mm('art-y', 'Up', -5000, 5000);
const TURN = deg('art-turn', 'Turned');
const WIDTH = mm('art-width', 'Width', 0.5, 5000);
const SIZE = mm('art-size', 'Size of the letters', 0.5, 500);
const BLEED = mm('art-bleed', 'Bleed', 0, 20, { note: 'Printed so far past the edge, so that no white shows.' });
const LETTERS_MM = 12;
const BLEED_MM = 3;

function freeId(stem: string, taken: readonly { readonly id: string }[]): string {
  let n = 1;
  while (taken.some((t) => t.id === `${stem}-${n}`)) n++;
  return `${stem}-${n}`;
}

/** Pictures and words that are printed on facets and layers, later ones over earlier ones. */
export function PrintPanel() {
  const design = useStudio((s) => s.design);
  const scene = useStudio((s) => s.scene);
  const facet = useStudio((s) => s.facet);
  const sideUp = useStudio((s) => s.sideUp);
  const { edit, turnUp } = useActions();
  const [chosen, setChosen] = useState<string | null>(null);
  const [why, setWhy] = useState<string | null>(null);
  const all = design.artwork ?? [];
  const carriers = [
    ...(scene?.facets.filter(canBeDressed).map((f) => ({ id: f.id, name: nameOfPart(design, f.id) })) ?? []),
    ...design.layers.filter((l) => l.as === 'layer').map((l) => ({ id: layerId(l.id), name: `layer ${l.name}` })),
  ];
  const on = facet ?? carriers[0]?.id ?? 'leafA';
  const begin = (what: Artwork['what'], name: string, widthMm: number, before: (d: Design) => Design): void => {
    const id = freeId('print', all);
    const art: Artwork = {
      ...{ id, name, on, what, widthMm, x: 0, y: 0, turnDeg: 0, bleedMm: BLEED_MM },
      ...(sideUp === 'outside' ? { side: 'outside' } : {}),
    };
    edit(`print ${name}`, (d) => ({ ...before(d), artwork: [...(d.artwork ?? []), art] }));
    setChosen(id);
  };
  const bring = async (given: File): Promise<void> => {
    const taken = await takePicture(given);
    if (!taken.ok) return setWhy(taken.why);
    setWhy(null);
    const id = freeId('picture', design.pictures ?? []);
    const face = scene?.faces.find((f) => f.facet === on);
    const keep = (d: Design): Design => ({ ...d, pictures: [...(d.pictures ?? []), { id, ...taken.picture }] });
    begin({ picture: id }, taken.picture.name, face ? Math.round(face.widthMm) : 60, keep);
  };
  const words = (): void =>
    begin(
      { text: { string: 'Open night', font: FONTS[0].id, size: LETTERS_MM }, colour: '#23303a' },
      'Words',
      60,
      (d) => d,
    );
  const one = all.find((a) => a.id === chosen);
  return (
    <>
      <chakra.p className="dim" fontSize="13px" mt="0">
        Printed on {nameOfFace(design, on, sideUp)}: choose another face in the flat view, or turn it over.
      </chakra.p>
      <Box display="flex" gap="7px" flexWrap="wrap" mb="10px">
        <FileButton
          label="Picture to print"
          accept="image/png,image/jpeg,image/webp,image/svg+xml"
          testId="print-file"
          onFile={(f) => void bring(f)}
        >
          A picture
        </FileButton>
        <Action small onClick={words}>
          Words
        </Action>
      </Box>
      {why && (
        <chakra.p role="alert" color="bad" fontSize="13px">
          {why}
        </chakra.p>
      )}
      <ul style={{ listStyle: 'none', margin: '0 0 10px', padding: 0 }}>
        {all.map((a) => (
          <li key={a.id}>
            <chakra.button
              type="button"
              data-art={a.id}
              aria-pressed={a.id === chosen}
              onClick={() => {
                setChosen(a.id);
                turnUp(sideOf(a));
              }}
              display="flex"
              width="100%"
              gap="8px"
              textAlign="left"
              px="8px"
              py="5px"
              borderRadius="card"
              cursor="pointer"
              bg={a.id === chosen ? 'accentWash' : 'transparent'}
            >
              <chakra.span flex="1" overflow="hidden" textOverflow="ellipsis">
                {a.name}
              </chakra.span>
              <span className="dim">{nameOfFace(design, a.on, sideOf(a))}</span>
            </chakra.button>
          </li>
        ))}
      </ul>
      {one && <ArtFields art={one} carriers={carriers} />}
    </>
  );
}

function ArtFields({
  art,
  carriers,
}: {
  art: Artwork;
  carriers: readonly { readonly id: string; readonly name: string }[];
}) {
  const units = useStudio((s) => s.design.units);
  const { edit } = useActions();
  const set = (label: string, change: Partial<Artwork>): void =>
    edit(`${label} of ${art.name}`, (d) => ({
      ...d,
      artwork: d.artwork?.map((a) => (a.id === art.id ? { ...a, ...change } : a)),
    }));
  const number = (p: typeof ACROSS, value: number, key: 'x' | 'y' | 'turnDeg' | 'widthMm' | 'bleedMm') => (
    <NumberField
      parameter={p}
      value={value}
      unit={units}
      onChange={(v) => v !== null && set(p.label.toLowerCase(), { [key]: v })}
    />
  );
  const remove = (): void =>
    edit(`${art.name} is not printed`, (d) => {
      const artwork = d.artwork?.filter((a) => a.id !== art.id) ?? [];
      const used = new Set(artwork.flatMap((a) => ('picture' in a.what ? [a.what.picture] : [])));
      return { ...d, artwork, pictures: d.pictures?.filter((p) => used.has(p.id)) ?? [] };
    });
  const onLayer = idOfLayer(art.on) !== null;
  return (
    <Box as="section" aria-label="Printed">
      <Choice
        asList
        label="On"
        value={art.on}
        choices={carriers.some((c) => c.id === art.on) ? carriers : [...carriers, { id: art.on, name: 'what is gone' }]}
        onChange={(id) => set('place', { on: id })}
      />
      {!onLayer && <SideChoice side={sideOf(art)} onChange={(side) => set('side', { side })} />}
      {'text' in art.what && <WordFields art={art} what={art.what} onSet={(what) => set('words', { what })} />}
      {'picture' in art.what && number(WIDTH, art.widthMm, 'widthMm')}
      {number(ACROSS, art.x, 'x')}
      {number(UP, art.y, 'y')}
      {number(TURN, art.turnDeg, 'turnDeg')}
      {number(BLEED, art.bleedMm, 'bleedMm')}
      <Action small danger onClick={remove}>
        Print it no more
      </Action>
    </Box>
  );
}

type Words = Extract<Artwork['what'], { readonly text: unknown }>;
function WordFields({ art, what, onSet }: { art: Artwork; what: Words; onSet: (what: Words) => void }) {
  const units = useStudio((s) => s.design.units);
  return (
    <>
      <chakra.input
        key={what.text.string}
        aria-label={`Words of ${art.name}`}
        defaultValue={what.text.string}
        maxLength={200}
        onBlur={(e) => {
          const string = e.currentTarget.value;
          if (string.trim() && string !== what.text.string) onSet({ ...what, text: { ...what.text, string } });
        }}
        onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
        width="100%"
        bg="field"
        border="1px solid var(--rule)"
        borderRadius="card"
        px="6px"
        height="28px"
        mb="8px"
      />
      <Choice
        asList
        label="Letters"
        value={what.text.font}
        choices={FONTS}
        onChange={(font) => onSet({ ...what, text: { ...what.text, font } })}
      />
      <NumberField
        parameter={SIZE}
        value={what.text.size}
        unit={units}
        onChange={(size) => size !== null && onSet({ ...what, text: { ...what.text, size } })}
      />
      <chakra.label display="flex" gap="8px" alignItems="center" mb="10px">
        <chakra.span flex="1">Ink</chakra.span>
        <input type="color" value={what.colour} onChange={(e) => onSet({ ...what, colour: e.currentTarget.value })} />
      </chakra.label>
    </>
  );
}
