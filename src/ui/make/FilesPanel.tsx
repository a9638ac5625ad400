'use client';
import { Box, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import { openOf } from '@/core/drives';
import { designText } from '@/core/document/design-text';
import { sideOf } from '@/core/document/design';
import type { ExportChoice, ExportFormat } from '@/core/formats/export';
import { cutListCsv } from '@/core/formats/csv';
import type { Side } from '@/core/kinds';
import { PASS_WORDS, PASSES, type Pass } from '@/core/paper/machine';
import { SHEETS } from '@/core/paper/sizes';
import { useStudio } from '@/store/context';
import { engine } from '@/workers/client';
import type { CutListing, Laid } from '@/workers/protocol';
import { Everything, kilobytes, type Message } from './Everything';
import { SideChoice } from '../dress/SideChoice';
import { Action } from '../common/Action';
import { Choice } from '../common/Field';
import { fileName, saveAs } from '../common/files';
import { TILE } from '../common/tile';

const FILES: readonly (readonly [format: ExportFormat, name: string, says: string])[] = [
  ['svg', 'SVG', 'lines in mm, a group for each role'],
  ['dxf', 'DXF', 'lines in mm, a layer for each role'],
  ['pdf', 'PDF', 'true scale, no piece split that fits, with a 50 mm check bar'],
  ['plt', 'HP-GL/2', 'moves of the tool, a pen for each pass'],
  ['gcode', 'G-code', 'moves of the tool, a tool for each pass'],
  ['fold', 'FOLD', 'crease pattern of one piece'],
  ['glb', 'GLB', 'the posed model'],
];
/** What can hold the drawings of the outside. */
const DRAWINGS: readonly ExportFormat[] = ['svg', 'dxf', 'pdf'];
/** What is written of a sheet, a pass or the strip. */
const FLAT: readonly ExportFormat[] = ['svg', 'dxf', 'pdf', 'plt', 'gcode'];
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
const EVERY_PASS = 'every';
const OWN_PAGES = 'own';

/** What is written, of what, and everything at once. */
export function FilesPanel({ laid, listing }: { readonly laid: Laid | null; readonly listing: CutListing | null }) {
  const design = useStudio((s) => s.design);
  const state = useStudio((s) => s.state);
  const verdict = useStudio((s) => s.proof?.verdict);
  const [what, setWhat] = useState('all');
  const [pass, setPass] = useState<Pass | typeof EVERY_PASS>(EVERY_PASS);
  const [page, setPage] = useState(OWN_PAGES);
  const [side, setSide] = useState<Side>('inside');
  const [message, setMessage] = useState<Message | null>(null);
  const choices = [
    { id: 'all', name: 'all pieces, one above the other' },
    ...(laid?.layout.sheets.map((s, i) => ({ id: `sheet ${i}`, name: `sheet ${i + 1}: ${s.stock.name}` })) ?? []),
    ...(laid?.beds?.beds.map((_, i) => ({ id: `bed ${i}`, name: `bed ${i + 1}` })) ?? []),
    { id: 'strip', name: 'test strip for the settings' },
    ...(listing?.rows.filter((r) => !r.counted).map((r) => ({ id: `piece ${r.piece}`, name: `piece ${r.title}` })) ??
      []),
  ];
  const drawnOutside = design.layers.some((l) => l.as === 'drawn' && sideOf(l) === 'outside');
  const chosen = choices.some((c) => c.id === what) ? what : 'all';
  const [kind, ...rest] = chosen.split(' ');
  const outside = drawnOutside && side === 'outside';
  const flatOnly = kind === 'sheet' || kind === 'bed' || kind === 'strip' || pass !== EVERY_PASS;
  const offered = FILES.filter(([f]) => (outside ? DRAWINGS : flatOnly ? FLAT : FILES.map(([g]) => g)).includes(f));
  const write = async (format: ExportFormat): Promise<void> => {
    setMessage({ text: `Writing ${format.toUpperCase()}…`, bad: false });
    const choice: ExportChoice = {
      format,
      state,
      ...(kind === 'piece' ? { piece: rest.join(' ') } : {}),
      ...(kind === 'sheet' ? { sheet: Number(rest[0]) } : {}),
      ...(kind === 'bed' ? { bed: Number(rest[0]) } : {}),
      ...(kind === 'strip' ? { strip: true } : {}),
      ...(outside ? { side } : {}),
      ...(pass !== EVERY_PASS && FLAT.includes(format) ? { pass } : {}),
      ...(format === 'pdf' && page !== OWN_PAGES ? { page } : {}),
    };
    const answer = await engine('study').export(design, choice);
    if (!answer.ok) return setMessage({ text: `Nothing was written: ${answer.why}.`, bad: true });
    const parts = [kind === 'all' ? '' : fileName(chosen), pass === EVERY_PASS ? '' : pass, outside ? 'outside' : ''];
    const name = `${[fileName(design.name), ...parts.filter(Boolean)].join('-')}.${format}`;
    saveAs(name, answer.value, MIME[format]);
    setMessage({ text: `Wrote ${name}, ${kilobytes(answer.value)}.`, bad: false });
  };
  const writePrint = async (): Promise<void> => {
    setMessage({ text: 'Writing the pages to print…', bad: false });
    const answer = await engine('study').export(design, { format: 'pdf', print: true });
    if (!answer.ok) return setMessage({ text: `Nothing was written: ${answer.why}.`, bad: true });
    const name = `${fileName(design.name)}-print.pdf`;
    saveAs(name, answer.value, MIME.pdf);
    setMessage({ text: `Wrote ${name}, ${kilobytes(answer.value)}.`, bad: false });
  };
  return (
    <>
      <chakra.h2 className="heading" mb="10px !important">
        Files
      </chakra.h2>
      {verdict === 'blocked' && (
        <Box borderLeft="4px solid var(--bad)" bg="var(--bad-wash)" p="8px 11px" mb="10px">
          The proof still has findings that block. Cutting now may waste the sheet.
        </Box>
      )}
      <Choice asList label="Of" value={chosen} choices={choices} onChange={setWhat} />
      <Choice
        asList
        label="Lines of"
        value={pass}
        choices={[{ id: EVERY_PASS, name: 'every pass' }, ...PASSES.map((p) => ({ id: p, name: PASS_WORDS[p] }))]}
        onChange={(id) => setPass(id as Pass)}
      />
      <Choice
        asList
        label="Pages of the PDF"
        value={page}
        choices={[
          { id: OWN_PAGES, name: 'as large as the sheets' },
          ...SHEETS.map((s) => ({ id: s.id, name: `${s.name}, laid out for it` })),
        ]}
        onChange={setPage}
      />
      {drawnOutside && (
        <>
          <SideChoice side={side} onChange={setSide} />
          {outside && (
            <chakra.p className="dim" fontSize="12.5px" mt="-6px" mb="10px">
              Only what is drawn on the outside, mirrored as the sheet lies turned over about its upright middle.
            </chakra.p>
          )}
        </>
      )}
      {(design.artwork?.length ?? 0) > 0 && kind === 'all' && !outside && (
        <FileTile
          id="print"
          name="Print"
          says="PDF of the artwork with its bleed, in the axes of the cut files"
          onClick={() => void writePrint()}
        />
      )}
      {offered.map(([format, name, says]) => (
        <FileTile key={format} id={format} name={name} says={says} onClick={() => void write(format)} />
      ))}
      <Box display="flex" gap="7px" flexWrap="wrap" mt="4px">
        <Everything onMessage={setMessage} />
        <Booklet onMessage={setMessage} />
        <CutListFiles listing={listing} />
        <Action small onClick={() => saveAs(`${fileName(design.name)}.json`, designText(design), 'application/json')}>
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
    </>
  );
}

interface TileProps {
  readonly id: string;
  readonly name: string;
  readonly says: string;
  readonly onClick: () => void;
}
const FileTile = ({ id, name, says, onClick }: TileProps) => (
  <chakra.button
    {...TILE}
    data-export={id}
    onClick={onClick}
    display="grid"
    gridTemplateColumns="58px 1fr"
    alignItems="baseline"
    width="100%"
    bg="field"
    p="7px 11px"
    mb="6px"
  >
    <b>{name}</b>
    <chakra.span className="dim" fontSize="13px">
      {says}
    </chakra.span>
  </chakra.button>
);

function CutListFiles({ listing }: { readonly listing: CutListing | null }) {
  const name = useStudio((s) => `${fileName(s.design.name)}-cut-list`);
  const json = (l: CutListing): void => saveAs(`${name}.json`, JSON.stringify(l.rows, null, 1), 'application/json');
  return (
    <>
      <Action
        small
        disabled={!listing}
        onClick={() => listing && saveAs(`${name}.csv`, cutListCsv(listing.rows), 'text/csv')}
      >
        Cut list, CSV
      </Action>
      <Action small disabled={!listing} onClick={() => listing && json(listing)}>
        Cut list, JSON
      </Action>
    </>
  );
}

type Telling = { readonly onMessage: (message: Message) => void };

function Booklet({ onMessage }: Telling) {
  const design = useStudio((s) => s.design);
  const [giveUp, setGiveUp] = useState<AbortController | null>(null);
  const write = async (): Promise<void> => {
    const leave = new AbortController();
    setGiveUp(leave);
    onMessage({ text: 'Writing the booklet…', bad: false });
    const answer = await engine('write', leave.signal).booklet(design);
    setGiveUp(null);
    if (!answer.ok) return onMessage({ text: `No booklet was written: ${answer.why}.`, bad: !answer.stopped });
    const name = `${fileName(design.name)}-booklet.pdf`;
    saveAs(name, answer.value, MIME.pdf);
    onMessage({ text: `Wrote ${name}, ${kilobytes(answer.value)}.`, bad: false });
  };
  if (giveUp)
    return (
      <Action small onClick={() => giveUp.abort()}>
        Give up the booklet
      </Action>
    );
  return (
    <Action small data-export="booklet" onClick={() => void write()}>
      Booklet, PDF
    </Action>
  );
}
