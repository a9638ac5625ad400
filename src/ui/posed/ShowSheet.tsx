'use client';
import { Box, chakra } from '@chakra-ui/react';
import { useRef, useState } from 'react';
import { restOf } from '@/core/drives';
import { useActions, useStudio } from '@/store/context';
import { drivesOf } from '@/store/studio';
import { engine } from '@/workers/client';
import { Action } from '../common/Action';
import { Choice } from '../common/Field';
import { fileName, saveAs } from '../common/files';
import { Sheet } from '../common/Sheet';
import { shotNow } from './shot';
import { VIEWS } from './views';

const SIZES = [800, 1600, 3200] as const;
const FILM_SIZES = [360, 540, 720] as const;
const GROUNDS = [
  { id: 'paper', name: 'paper' },
  { id: 'none', name: 'none' },
];
const PAPER = '#fffdf5';
/** Pictures on the way there, for a second. */
const PER_SECOND = 10;

/** The card shown to others: a picture of it as it stands, or its travel as a short film. */
export function ShowSheet() {
  const shown = useStudio((s) => s.dialog?.kind === 'show');
  const { show } = useActions();
  return (
    <Sheet title="Picture and film" shown={shown} onClose={() => show(null)} width={620}>
      {shown && (
        <Box display="grid" gridTemplateColumns="1fr 1fr" gap="28px">
          <Still />
          <Film />
        </Box>
      )}
    </Sheet>
  );
}

const named = (sizes: readonly number[]) => sizes.map((s) => ({ id: String(s), name: `${s} px` }));
const viewChoices = (first: string) => [{ id: 'now', name: first }, ...VIEWS.map(([name]) => ({ id: name, name }))];
const directionOf = (view: string) => VIEWS.find(([name]) => name === view)?.[1];

function Still() {
  const design = useStudio((s) => s.design);
  const state = useStudio((s) => s.state);
  const { warn } = useActions();
  const [size, setSize] = useState<number>(1600);
  const [ground, setGround] = useState('paper');
  const [view, setView] = useState('now');
  const save = async (): Promise<void> => {
    const colour = ground === 'paper' ? PAPER : null;
    const name = `${fileName(design.name)}.png`;
    const shoot = shotNow();
    const from = directionOf(view);
    if (!from && shoot) {
      const answer = await fetch(shoot(size, colour));
      return saveAs(name, new Uint8Array(await answer.arrayBuffer()), 'image/png');
    }
    const made = await engine('study').still(design, state, { sizePx: size, ground: colour }, from);
    if (made.ok) saveAs(name, made.value, 'image/png');
    else warn(made.why);
  };
  return (
    <section aria-label="Picture">
      <chakra.h3 className="heading" mb="8px !important">
        Picture
      </chakra.h3>
      <Choice asList label="Width" value={String(size)} choices={named(SIZES)} onChange={(v) => setSize(Number(v))} />
      <Choice asList label="Seen from" value={view} choices={viewChoices('as it is looked at')} onChange={setView} />
      <Choice label="Ground" value={ground} choices={GROUNDS} onChange={setGround} />
      <Action strong onClick={() => void save()}>
        Save the picture
      </Action>
    </section>
  );
}

function Film() {
  const design = useStudio((s) => s.design);
  const state = useStudio((s) => s.state);
  const drives = useStudio(drivesOf);
  const { warn } = useActions();
  const [size, setSize] = useState<number>(540);
  const [view, setView] = useState('now');
  const [moving, setMoving] = useState<readonly string[]>([drives[0].id]);
  const [seconds, setSeconds] = useState(4);
  const [part, setPart] = useState<number | null>(null);
  const asked = useRef<AbortController | null>(null);
  const make = async (): Promise<void> => {
    const control = new AbortController();
    asked.current = control;
    setPart(0);
    const rest = restOf(drives);
    const chosen = drives.filter((d) => moving.includes(d.id));
    const ends = (end: 'rest' | 'far') =>
      Object.fromEntries(chosen.map((d) => [d.id, end === 'rest' ? rest[d.id] : d.rest === d.to ? d.from : d.to]));
    const answer = await engine('show', control.signal).film(
      design,
      {
        from: { ...state, ...ends('rest') },
        to: { ...state, ...ends('far') },
        frames: Math.round((seconds / 2) * PER_SECOND),
        view: directionOf(view),
        sizePx: size,
        ground: PAPER,
        seconds,
      },
      // What was on its way when it was given up is not taken for one that goes on.
      (made) => (control.signal.aborted ? undefined : setPart(made)),
    );
    setPart(null);
    if (answer.ok) saveAs(`${fileName(design.name)}.gif`, answer.value, 'image/gif');
    else if (!answer.stopped) warn(answer.why);
  };
  return (
    <section aria-label="Film">
      <chakra.h3 className="heading" mb="8px !important">
        Film
      </chakra.h3>
      <Choice
        asList
        label="Longer side"
        value={String(size)}
        choices={named(FILM_SIZES)}
        onChange={(v) => setSize(Number(v))}
      />
      <Choice asList label="Seen from" value={view} choices={viewChoices('the reader’s right')} onChange={setView} />
      <Choice
        asList
        label="Lasts"
        value={String(seconds)}
        choices={[2, 4, 6, 8].map((s) => ({ id: String(s), name: `${s} s, there and back` }))}
        onChange={(v) => setSeconds(Number(v))}
      />
      <Box as="fieldset" border="0" p="0" m="0 0 10px">
        <legend>What moves</legend>
        {drives.map((d) => (
          <chakra.label key={d.id} display="flex" gap="7px" alignItems="center" minHeight="24px">
            <input
              type="checkbox"
              checked={moving.includes(d.id)}
              onChange={(e) =>
                setMoving(e.currentTarget.checked ? [...moving, d.id] : moving.filter((id) => id !== d.id))
              }
            />
            {d.label}
          </chakra.label>
        ))}
      </Box>
      {part === null ? (
        <Action strong disabled={moving.length === 0} onClick={() => void make()}>
          Make the film
        </Action>
      ) : (
        <Box display="flex" gap="8px" alignItems="center">
          <progress value={part} aria-label="The film is made" data-testid="film-progress" />
          <Action small onClick={() => asked.current?.abort()}>
            Give up
          </Action>
        </Box>
      )}
    </section>
  );
}
