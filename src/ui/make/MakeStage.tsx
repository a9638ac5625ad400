'use client';
import { openOf } from '@/core/drives';
import { Box, chakra } from '@chakra-ui/react';
import { useEffect, useState } from 'react';
import type { ExportFormat } from '@/core/formats/export';
import type { Picture } from '@/core/formats/picture';
import { cutListCsv } from '@/core/formats/csv';
import type { WorkStep } from '@/core/build/steps';
import type { CutListRow } from '@/core/sheets/cutlist';
import type { Layout } from '@/core/sheets/pack';
import { formatLength } from '@/core/units/length';
import { useStudio } from '@/store/context';
import { sideOf } from '@/core/document/design';
import type { Side } from '@/core/kinds';
import { engine } from '@/workers/client';
import { SideChoice } from '../dress/SideChoice';
import { TILE } from '../common/tile';
import { Action, Choice } from '../common/Field';
import { designJson, fileName, saveAs } from '../common/files';
import { PosedPicture } from '../common/PosedPicture';

const FILES: readonly (readonly [format: ExportFormat, name: string, says: string])[] = [
  ['svg', 'SVG', 'lines in mm, a group for each role'],
  ['dxf', 'DXF', 'lines in mm, a layer for each role'],
  ['pdf', 'PDF', 'true scale, tiled, with a 50 mm check bar'],
  ['plt', 'HP-GL/2', 'moves of the tool, a pen for each pass'],
  ['gcode', 'G-code', 'moves of the tool, a tool for each pass'],
  ['fold', 'FOLD', 'crease pattern of one piece'],
  ['glb', 'GLB', 'the posed model'],
];
/** What can hold the drawings of the outside. */
const DRAWINGS: readonly ExportFormat[] = ['svg', 'dxf', 'pdf'];
/** Named here again: importing them with the writers would bring every writer into the page. */
const MIME: Readonly<Record<ExportFormat, string>> = {
  svg: 'image/svg+xml',
  dxf: 'image/vnd.dxf',
  pdf: 'application/pdf',
  plt: 'application/vnd.hp-hpgl',
  gcode: 'text/plain',
  fold: 'application/json',
  glb: 'model/gltf-binary',
};

/** Files, the cut list, and folding and gluing in order. */
export function MakeStage() {
  const design = useStudio((s) => s.design);
  const state = useStudio((s) => s.state);
  const verdict = useStudio((s) => s.proof?.verdict);
  const [found, setFound] = useState<{ layout: Layout; cutList: readonly CutListRow[] } | null>(null);
  const [steps, setSteps] = useState<readonly { step: WorkStep; picture: Picture }[]>([]);
  const [named, setNamed] = useState<readonly { id: string; name: string; picture: Picture }[]>([]);
  const [what, setWhat] = useState('all');
  const [side, setSide] = useState<Side>('inside');
  const [message, setMessage] = useState<{ text: string; bad: boolean } | null>(null);
  useEffect(() => {
    let live = true;
    void engine('study')
      .layout(design)
      .then((a) => {
        if (live && a.ok) setFound(a.value);
      });
    void engine('study')
      .steps(design)
      .then((a) => {
        if (live && a.ok) setSteps(a.value);
      });
    void engine('study')
      .named(design)
      .then((a) => {
        if (live && a.ok) setNamed(a.value);
      });
    return () => {
      live = false;
    };
  }, [design]);

  const choices = [
    { id: 'all', name: 'all pieces, one above the other' },
    ...(found?.layout.sheets.map((s, i) => ({ id: `sheet ${i}`, name: `sheet ${i + 1}: ${s.stock.name}` })) ?? []),
    ...(found?.cutList.filter((r) => !r.counted).map((r) => ({ id: `piece ${r.piece}`, name: `piece ${r.piece}` })) ??
      []),
  ];
  const drawnOutside = design.layers.some((l) => l.as === 'drawn' && sideOf(l) === 'outside');
  const chosen = choices.some((c) => c.id === what) ? what : 'all';
  const write = async (format: ExportFormat): Promise<void> => {
    setMessage({ text: `Writing ${format.toUpperCase()}…`, bad: false });
    const [kind, ...rest] = chosen.split(' ');
    const piece = kind === 'piece' ? { piece: rest.join(' ') } : {};
    const sheet = kind === 'sheet' ? { sheet: Number(rest[0]) } : {};
    const drawings = drawnOutside && side === 'outside' ? { side } : {};
    const answer = await engine('study').export(design, { format, state, ...piece, ...sheet, ...drawings });
    if (!answer.ok) return setMessage({ text: `Nothing was written: ${answer.why}.`, bad: true });
    const part = kind === 'all' ? '' : `-${fileName(chosen)}`;
    const name = `${fileName(design.name)}${part}${drawings.side ? '-outside' : ''}.${format}`;
    saveAs(name, answer.value, MIME[format]);
    setMessage({ text: `Wrote ${name}, ${Math.max(1, Math.round(answer.value.length / 1024))} kB.`, bad: false });
  };
  const show = (x: number): string => formatLength(x, design.units);
  return (
    <Box display="grid" gridTemplateColumns="330px minmax(0, 1fr)" height="100%" minHeight="0">
      <Box bg="panel" p="12px 16px" overflowY="auto" borderRight="1px solid var(--rule)">
        <chakra.h2 className="heading" mb="10px !important">
          Files
        </chakra.h2>
        {verdict === 'blocked' && (
          <Box borderLeft="4px solid var(--bad)" bg="var(--bad-wash)" p="8px 11px" mb="10px">
            The proof still has findings that block. Cutting now may waste the sheet.
          </Box>
        )}
        <Choice asList label="Of" value={chosen} choices={choices} onChange={setWhat} />
        {drawnOutside && (
          <>
            <SideChoice side={side} onChange={setSide} />
            {side === 'outside' && (
              <chakra.p className="dim" fontSize="12.5px" mt="-6px" mb="10px">
                Only what is drawn on the outside, mirrored as the sheet lies turned over about its upright middle.
              </chakra.p>
            )}
          </>
        )}
        {FILES.filter(([f]) => side === 'inside' || !drawnOutside || DRAWINGS.includes(f)).map(
          ([format, name, says]) => (
            <chakra.button
              {...TILE}
              key={format}
              data-export={format}
              onClick={() => void write(format)}
              display="grid"
              gridTemplateColumns="58px 1fr"
              alignItems="baseline"
              width="100%"
              bg="field"
              p="8px 11px"
              mb="7px"
            >
              <b>{name}</b>
              <chakra.span className="dim" fontSize="13px">
                {says}
              </chakra.span>
            </chakra.button>
          ),
        )}
        <Box display="flex" gap="7px" flexWrap="wrap" mt="4px">
          <Action
            small
            onClick={() =>
              found && saveAs(`${fileName(design.name)}-cut-list.csv`, cutListCsv(found.cutList), 'text/csv')
            }
          >
            Cut list, CSV
          </Action>
          <Action small onClick={() => saveAs(`${fileName(design.name)}.json`, designJson(design), 'application/json')}>
            Card file
          </Action>
          <Action small onClick={() => window.print()}>
            Print this page
          </Action>
        </Box>
        {message && (
          <chakra.p role="status" mt="10px" color={message.bad ? 'bad' : 'ink2'}>
            {message.text}
          </chakra.p>
        )}
        <chakra.p className="dim" fontSize="12.5px" mt="10px">
          GLB is written as the card stands now, {openOf(state).toFixed(0)}° open. To print at true scale use the PDF at
          100 % and measure its check bar.
        </chakra.p>
      </Box>
      <Box overflowY="auto" p="14px 20px" minWidth="0">
        <chakra.h2 className="heading" mb="8px !important">
          Cut list
        </chakra.h2>
        <chakra.table
          width="100%"
          fontSize="13.5px"
          mb="20px"
          css={{
            '& th': { textAlign: 'left', color: 'var(--ink-2)', fontWeight: 600 },
            '& td, & th': { padding: '4px 10px 4px 0', borderBottom: '1px solid var(--rule)' },
          }}
        >
          <thead>
            <tr>
              <th>Piece</th>
              <th className="num">Size, {design.units}</th>
              <th>Stock</th>
              <th className="num">Count</th>
              <th>Creases</th>
              <th>Glue</th>
            </tr>
          </thead>
          <tbody>
            {found?.cutList.map((r) => (
              <tr key={r.piece}>
                <td>
                  {r.title}
                  <chakra.span className="dim">
                    {' '}
                    {r.piece}
                    {r.side && ', outside'}
                  </chakra.span>
                </td>
                <td className="num">{r.width_mm > 0 ? `${show(r.width_mm)} × ${show(r.height_mm)}` : '–'}</td>
                <td>
                  {!r.counted && (
                    <chakra.span
                      display="inline-block"
                      width="11px"
                      height="11px"
                      bg={r.colour}
                      border="1px solid var(--ink-2)"
                      mr="6px"
                    />
                  )}
                  {r.stock}
                </td>
                <td className="num">{r.count}</td>
                <td>{r.creases.length}</td>
                <td>{r.glue.length || '–'}</td>
              </tr>
            ))}
          </tbody>
        </chakra.table>
        {named.length > 0 && (
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
        )}
        <chakra.h2 className="heading" mb="8px !important">
          Folding and gluing, in order
        </chakra.h2>
        <Box
          as="ol"
          listStyleType="none"
          m="0"
          p="0"
          display="grid"
          gridTemplateColumns="repeat(auto-fill, minmax(210px, 1fr))"
          gap="16px"
        >
          {steps.map(({ step, picture }, i) => (
            <Box as="li" key={i} border="1px solid var(--rule)" borderRadius="card" p="10px 12px">
              <PosedPicture picture={picture} height={120} lit={step.subjects} label={`${step.title}, picture`} />
              <Box fontWeight="700" mt="5px">
                {i + 1}. {step.title}
              </Box>
              <Box fontSize="13px">{step.text}</Box>
            </Box>
          ))}
        </Box>
      </Box>
    </Box>
  );
}
