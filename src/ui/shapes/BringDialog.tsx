'use client';
import { Box, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import { LARGEST_DRAWING, type Shape } from '@/core/shapes/shape';
import { STARTER_SHAPES } from '@/core/shapes/starter';
import { useActions, useStudio } from '@/store/context';
import { engine } from '@/workers/client';
import { TILE } from '../common/tile';
import { Action } from '../common/Action';
import { textOf } from '../common/files';
import { Panes } from '../common/Panes';
import { Sheet } from '../common/Sheet';
import { OtherCardsPane } from './OtherCardsPane';
import { BASICS, ShapeFields } from './ShapeFields';
import { ShapePicture, ShapeThumb, useOutline } from './ShapePicture';
import { TracePane } from './TracePane';
import { useKeep } from './useKeep';

/** A new shape for the card's shelf: from the set, by numbers, lettered, from a drawing or traced. */
export function BringDialog() {
  const shown = useStudio((s) => s.dialog?.kind === 'bring');
  const { show } = useActions();
  const [way, setWay] = useState<string>('starter');
  return (
    <Sheet title="Bring in a shape" shown={shown} onClose={() => show(null)} width={760}>
      <Box minHeight="400px">
        <Panes label="Where it comes from" shown={way} panes={WAYS} onShow={setWay} />
      </Box>
    </Sheet>
  );
}

const WAYS = [
  { id: 'starter', name: 'Quillmoor set', pane: <StarterPane /> },
  { id: 'basic', name: 'Exact shapes', pane: <BasicPane /> },
  { id: 'letters', name: 'Letters', pane: <LettersPane /> },
  { id: 'drawing', name: 'A drawing', pane: <DrawingPane /> },
  { id: 'picture', name: 'A picture', pane: <TracePane /> },
  { id: 'others', name: 'Other cards', pane: <OtherCardsPane /> },
];

function StarterPane() {
  const keep = useKeep();
  return (
    <Box
      display="grid"
      gridTemplateColumns="repeat(auto-fill, minmax(104px, 1fr))"
      gap="8px"
      maxHeight="56vh"
      overflowY="auto"
    >
      {STARTER_SHAPES.map((s, i) => (
        <chakra.button
          {...TILE}
          key={s.id}
          data-first={i === 0 ? '' : undefined}
          data-starter={s.id}
          onClick={() => keep(s.name, s.source)}
          p="8px"
        >
          <ShapeThumb shape={s.source} height={58} label={s.name} />
          <Box fontSize="12.5px" mt="4px">
            {s.name}
          </Box>
        </chakra.button>
      ))}
    </Box>
  );
}

function BasicPane() {
  const keep = useKeep();
  const unit = useStudio((s) => s.design.units);
  const [id, setId] = useState<string>('rect');
  const [shape, setShape] = useState<Shape>(BASICS[0].start);
  const { value, why } = useOutline(shape);
  return (
    <Box display="grid" gridTemplateColumns="150px 1fr 220px" gap="18px">
      <Box>
        {BASICS.map((b) => (
          <chakra.button
            key={b.id}
            type="button"
            aria-pressed={b.id === id}
            onClick={() => {
              setId(b.id);
              setShape(b.start);
            }}
            display="block"
            width="100%"
            textAlign="left"
            px="9px"
            py="5px"
            borderRadius="card"
            cursor="pointer"
            bg={b.id === id ? 'accentWash' : 'transparent'}
            fontWeight={b.id === id ? 700 : 400}
          >
            {b.name}
          </chakra.button>
        ))}
      </Box>
      <Box>{why ? <p role="alert">{why}</p> : <ShapePicture outline={value} height={300} label={id} />}</Box>
      <Box>
        <ShapeFields shape={shape} unit={unit} onChange={setShape} />
        <Action strong onClick={() => keep(BASICS.find((b) => b.id === id)!.name, shape)}>
          Keep this shape
        </Action>
      </Box>
    </Box>
  );
}

function LettersPane() {
  const keep = useKeep();
  const unit = useStudio((s) => s.design.units);
  const [shape, setShape] = useState<Shape>({ text: { string: 'QUILLMOOR', font: 'stardos-stencil', size: 30 } });
  const { value, why } = useOutline(shape);
  const text = 'text' in shape ? shape.text : null;
  return (
    <Box display="grid" gridTemplateColumns="1fr 250px" gap="18px">
      <Box>
        {why ? <p role="alert">{why}</p> : <ShapePicture outline={value} height={280} label={text?.string ?? ''} />}
        {value && value.islands > 0 && (
          <chakra.p className="dim" fontSize="13px">
            {value.islands} {value.islands === 1 ? 'island falls' : 'islands fall'} out where this is cut as a window;
            ties hold them, or take a stencil font.
          </chakra.p>
        )}
      </Box>
      <Box>
        <ShapeFields shape={shape} unit={unit} onChange={setShape} />
        <Action strong onClick={() => keep(text?.string.split('\n')[0].slice(0, 40) || 'Letters', shape)}>
          Keep these letters
        </Action>
      </Box>
    </Box>
  );
}

function DrawingPane() {
  const keep = useKeep();
  const { show } = useActions();
  const [text, setText] = useState('');
  const [name, setName] = useState('Drawing');
  const [state, setState] = useState<{
    why?: string;
    leftOut?: readonly string[];
    path?: string;
    outline?: Parameters<typeof ShapePicture>[0]['outline'];
  }>({});
  const read = async (svg: string): Promise<void> => {
    if (svg.trim() === '') return setState({});
    const answer = await engine('shape').bringSvg(svg);
    setState(answer.ok ? answer.value : { why: answer.why });
  };
  const take = async (file: File | undefined): Promise<void> => {
    if (!file) return;
    const whole = await textOf(file, LARGEST_DRAWING, 'a drawing');
    if (!whole.ok) return setState(whole);
    const svg = whole.text;
    setName(file.name.replace(/\.\w+$/, '').slice(0, 60) || 'Drawing');
    setText(svg.length < 20_000 ? svg : '');
    await read(svg);
  };
  return (
    <Box
      display="grid"
      gridTemplateColumns="1fr 300px"
      gap="18px"
      onDragOver={(e) => e.preventDefault()}
      onDrop={(e) => {
        e.preventDefault();
        void take(e.dataTransfer.files[0]);
      }}
    >
      <Box>
        <chakra.label display="block" mb="8px">
          SVG file{' '}
          <input
            type="file"
            accept=".svg,image/svg+xml"
            aria-label="SVG file"
            onChange={(e) => void take(e.currentTarget.files?.[0])}
          />
        </chakra.label>
        <chakra.label htmlFor="svg-text" display="block" mb="3px">
          or paste SVG here
        </chakra.label>
        <chakra.textarea
          id="svg-text"
          value={text}
          rows={9}
          spellCheck={false}
          onChange={(e) => {
            setText(e.currentTarget.value);
            void read(e.currentTarget.value);
          }}
          width="100%"
          fontFamily="monospace"
          fontSize="12px"
          bg="field"
          border="1px solid var(--rule)"
          borderRadius="card"
          p="6px"
        />
        <chakra.p className="dim" fontSize="13px">
          Sizes are taken over in true millimetres. For a whole card with cut and fold lines,{' '}
          <chakra.button
            type="button"
            className="plain"
            textDecoration="underline"
            onClick={() => show({ kind: 'template' })}
          >
            bring it in as a template
          </chakra.button>
          .
        </chakra.p>
      </Box>
      <Box>
        {state.why && (
          <Box role="alert" bg="badWash" borderLeft="4px solid var(--bad)" p="8px 10px">
            {state.why} Nothing was lost.
          </Box>
        )}
        {state.outline && <ShapePicture outline={state.outline} height={220} label={name} />}
        {state.outline && (
          <Box className="dim" fontSize="13px" mb="6px">
            {(state.outline.max[0] - state.outline.min[0]).toFixed(1)} ×{' '}
            {(state.outline.max[1] - state.outline.min[1]).toFixed(1)} mm
          </Box>
        )}
        {state.leftOut && state.leftOut.length > 0 && (
          <Box role="status" bg="warnWash" borderLeft="4px solid var(--warn)" p="8px 10px" mb="8px">
            Left out: {state.leftOut.join(', ')}.
          </Box>
        )}
        {state.path && (
          <Action strong onClick={() => keep(name, { path: state.path! })}>
            Keep this drawing
          </Action>
        )}
      </Box>
    </Box>
  );
}
