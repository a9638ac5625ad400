'use client';
import { Box, chakra } from '@chakra-ui/react';
import { useEffect, useMemo, useState } from 'react';
import {
  choicesIn,
  KINDS,
  OWN_LINES,
  type Group,
  type ListItem,
  type Parameter,
  type ParameterValue,
  type Path,
} from '@/core/kinds';
import { addMechanism, removeMechanism, standingOn } from '@/core/document/standing';
import { valuesIn, baseKindOf, kindIn, cardValues, parametersOf, setParameter } from '@/core/document/fields';
import { chooseShape } from '@/core/document/shape-sizes';
import type { Design } from '@/core/document/design';
import { ownerOfId } from '@/core/ids';
import { formatLength } from '@/core/units/length';
import { inSentence, nameOfPart } from '@/core/document/words';
import { useActions, useStudio, useStudioStore } from '@/store/context';
import { chosenIn } from '@/store/studio';
import { engine } from '@/workers/client';
import { Action } from '../common/Action';
import { Choice } from '../common/Field';
import { KeepOwn } from './KeepOwn';
import { FindingCard } from '../prove/FindingCard';
import { GlueFields } from './GlueFields';
import { MeantField } from '../common/MeantField';
import { PieceStocks } from '../common/PieceStocks';
import { LinesEditor } from './LinesEditor';
import { ListField } from './ListField';
import { MountFields } from './MountFields';
import { PathField } from './PathField';
import { LettersOnLine } from './LettersOnLine';
import { LiftChart } from './LiftChart';
import { MeasuredHere } from './MeasuredHere';
import { PlaneSide } from './PlaneSide';
import { SeveralPanel } from './SeveralPanel';
import { AskedRooms, RoomedNumber } from './RoomedNumber';
import { ShapeField } from './ShapeField';
import { StackSection } from './StackSection';
import { Stops } from './Stops';
import { StrutTradeTable } from './StrutTradeTable';
import type { Shape } from '@/core/shapes/shape';

/** Numbers of what is selected, each with its room, and what is wrong with it. */
export function ParameterPanel() {
  const design = useStudio((s) => s.design);
  const selected = useStudio((s) => s.selected);
  const findings = useStudio((s) => s.proof?.findings)?.filter((f) => f.mechanism === selected);
  const mechanism = design.mechanisms.find((m) => m.id === selected);
  const also = useStudio((s) => s.also);
  const chosen = chosenIn({ selected, also, design });
  return (
    <Box as="section" aria-label="Parameters" bg="panel" minHeight="0" overflowY="auto" p="12px 14px">
      {chosen.length > 1 ? (
        <SeveralPanel ids={chosen} />
      ) : mechanism ? (
        <MechanismFields key={mechanism.id} />
      ) : (
        <BaseFields />
      )}
      {findings?.map((f) => (
        <FindingCard key={`${f.rule}${f.aspect}`} finding={f} />
      ))}
    </Box>
  );
}

function useParameters(id: string): {
  parameters: readonly Parameter[];
  values: Readonly<Record<string, ParameterValue>>;
  design: Design;
} {
  const design = useStudio((s) => s.design);
  return useMemo(() => {
    const [kind, values] = [kindIn(design, id) ?? baseKindOf(design).id, valuesIn(design, id) ?? cardValues(design)];
    return { design, parameters: parametersOf(kind), values };
  }, [design, id]);
}

/** Numbers that belong together; those known by a name are chosen from a list. */
function GroupFields({ id, parameter: p, value: set }: { id: string; parameter: Parameter; value: Group | null }) {
  const { edit } = useActions();
  const fresh = Object.fromEntries(p.fields!.map((f) => [f.key, f.default as number]));
  const value = { ...fresh, ...set };
  const { presets = [] } = p;
  const named = presets.findIndex(({ values }) => Object.entries(values).every(([key, v]) => value[key] === v));
  const mayBeNone = p.default === null && (
    <Choice
      label={p.label}
      note={p.note}
      value={set ? 'with' : 'without'}
      choices={[
        { id: 'without', name: 'without' },
        { id: 'with', name: 'with' },
      ]}
      onChange={(c) => edit(inSentence(p.label), (d) => setParameter(d, id, p.key, c === 'with' ? fresh : null))}
    />
  );
  if (!set) return mayBeNone;
  return (
    <>
      {mayBeNone}
      {presets.length > 0 && (
        <Choice
          asList
          label={`${p.label}, by name`}
          value={String(named)}
          choices={[{ id: '-1', name: 'by its numbers' }, ...presets.map(({ name }, k) => ({ id: String(k), name }))]}
          onChange={(k) => {
            const chosen = presets[Number(k)];
            if (chosen) edit(chosen.name, (d) => setParameter(d, id, p.key, { ...value, ...chosen.values }));
          }}
        />
      )}
      {p
        .fields!.filter((f) => f.min === undefined || f.min !== f.max)
        .map((f) => {
          const key = `${p.key}.${f.key}`;
          return (
            <RoomedNumber
              key={key}
              id={id}
              parameter={f}
              path={key}
              value={value[f.key]}
              onChange={(v) => edit(inSentence(f.label), (d) => setParameter(d, id, key, v))}
            />
          );
        })}
    </>
  );
}

/** Rooms are worked out for so many numbers at most. */
const MOST_ROOMS = 40;
const hasRoom = ({ min, max }: Parameter, value: ParameterValue): boolean =>
  typeof value === 'number' && min !== undefined && max !== undefined;
/** Numbers of a parameter that have a room: itself, those of a group, of the entries of a list. */
function roomsIn(parameter: Parameter, value: ParameterValue): string[] {
  const { key, unit, fields = [] } = parameter;
  if (typeof value === 'number') return hasRoom(parameter, value) ? [key] : [];
  const of = (entry: Group | ListItem, at: string): string[] =>
    fields.flatMap((f) => (hasRoom(f, entry[f.key]) ? [`${at}.${f.key}`] : []));
  if (unit === 'list' && Array.isArray(value))
    return (value as readonly ListItem[]).flatMap((entry, k) => of(entry, `${key}[${k}]`));
  return unit === 'group' && value !== null ? of(value as Group, key) : [];
}

/** The fields of one mechanism or of the base; numbers with room bars. */
function Fields({ id, keys }: { id: string; keys: readonly string[] }) {
  const { parameters, values, design } = useParameters(id);
  const store = useStudioStore();
  const { edit } = useActions();
  const shown = keys.map((k) => parameters.find((p) => p.key === k)!);
  const asked = shown
    .flatMap((p) => roomsIn(p, values[p.key]))
    .slice(0, MOST_ROOMS)
    .join(' ');
  const rooms = useMemo(() => new Set(asked.split(' ')), [asked]);
  useEffect(() => {
    // Room is worked out once the hand rests: it takes many small proofs.
    const timer = setTimeout(() => store.askRooms(asked.split(' ')), 250);
    return () => clearTimeout(timer);
  }, [store, asked, design, id]);
  const change = (p: Parameter, value: ParameterValue): void => {
    const text =
      typeof value === 'object' && value !== null
        ? ''
        : typeof value === 'number' && p.unit === 'mm'
          ? `${formatLength(value, design.units)} ${design.units}`
          : String(value ?? 'follows');
    edit(`${inSentence(p.label)} ${text}`, (d) => setParameter(d, id, p.key, value));
  };
  return (
    <AskedRooms value={rooms}>
      {shown.map((p) => {
        const value = values[p.key];
        if (p.unit === 'shape')
          return (
            <ShapeField
              key={p.key}
              parameter={p}
              slot={{ mechanism: id, path: p.key }}
              value={value as Shape | null}
              onChange={(shape) => edit(inSentence(p.label), (d) => chooseShape(d, id, p.key, shape))}
            />
          );
        if (p.unit === 'group') return <GroupFields key={p.key} id={id} parameter={p} value={value as Group | null} />;
        // One choice is none.
        if (p.unit === 'choice' && p.choices!.length === 1) return null;
        if (p.unit === 'path')
          return <PathField key={p.key} id={id} parameter={p} value={value as Path} onChange={(v) => change(p, v)} />;
        if (p.unit === 'list') return <ListField key={p.key} id={id} parameter={p} value={value} />;
        if (p.unit === 'lines') return <LinesEditor key={p.key} id={id} />;
        // Parts are no number to type: they show in the views.
        if (p.unit === 'parts') return null;
        if (p.unit === 'choice')
          return (
            <Choice
              key={p.key}
              label={p.label}
              note={p.note}
              value={String(value)}
              choices={choicesIn(p)}
              onChange={(c) => change(p, c)}
            />
          );
        return (
          <RoomedNumber
            key={p.key}
            id={id}
            parameter={p.word ? { ...p, default: null } : p}
            path={p.key}
            value={value === p.word ? null : (value as number | null)}
            onChange={(v) => change(p, v ?? p.word ?? null)}
          />
        );
      })}
    </AskedRooms>
  );
}

function BaseFields() {
  const design = useStudio((s) => s.design);
  const template = useStudio((s) => s.design.card.template);
  const { show } = useActions();
  const base = baseKindOf(design);
  const silent = [...(base.silent?.(cardValues(design)) ?? []), ...(base.briefOnly ?? [])];
  const cardKeys = base.parameters.map((p) => p.key).filter((key) => !silent.includes(key));
  if (template) {
    return (
      <>
        <chakra.h2 className="heading" mb="8px !important">
          Base card
        </chakra.h2>
        <chakra.p m="0 0 10px">Brought in as the template “{template.name}”.</chakra.p>
        <Action small onClick={() => show({ kind: 'template' })}>
          Roles, faults and scale…
        </Action>
      </>
    );
  }
  return (
    <>
      <chakra.h2 className="heading" mb="12px !important">
        Base card
      </chakra.h2>
      <Fields id="card" keys={cardKeys} />
      <MeasuredHere id="card" />
      <PieceStocks id="card" />
      <GlueFields id="card" />
    </>
  );
}

/** What the kind makes of its numbers now, as lines that can be edited one by one. */
function TurnPlain({ id }: { id: string }) {
  const store = useStudioStore();
  const { edit, warn } = useActions();
  const turn = async (): Promise<void> => {
    const { design } = store.getState();
    const answer = await engine('study').plain(design, id);
    if (!answer.ok) return warn(answer.why);
    const plain = answer.value.mechanisms.find((x) => x.id === id)!;
    edit(`${plain.name} as plain lines`, (d) =>
      d === design ? { ...d, mechanisms: d.mechanisms.map((x) => (x.id === id ? plain : x)) } : d,
    );
  };
  return (
    <Action
      small
      title="Its lines can then be edited one by one; undo brings its numbers back"
      onClick={() => void turn()}
    >
      Turn into plain lines
    </Action>
  );
}

function MechanismFields() {
  const design = useStudio((s) => s.design);
  const selected = useStudio((s) => s.selected);
  const hosts = useStudio((s) => s.scene?.hosts);
  const { edit, select } = useActions();
  const m = design.mechanisms.find((x) => x.id === selected)!;
  const [name, setName] = useState<string | null>(null);
  const { parameters, values } = useParameters(m.id);
  const silent = KINDS.get(m.kind)?.silent?.(values) ?? [];
  const own = new Set(standingOn(design, m.id));
  const creases = hosts?.filter((h) => !own.has(ownerOfId(h.crease))) ?? [];
  const rename = (): void => {
    const next = name?.trim().slice(0, 80);
    setName(null);
    if (next && next !== m.name)
      edit(`name ${next}`, (d) => ({
        ...d,
        mechanisms: d.mechanisms.map((x) => (x.id === m.id ? { ...x, name: next } : x)),
      }));
  };
  return (
    <>
      <Box display="flex" alignItems="baseline" gap="8px" mb="10px">
        <chakra.input
          aria-label="Name of the mechanism"
          value={name ?? m.name}
          maxLength={80}
          onChange={(e) => setName(e.currentTarget.value)}
          onBlur={rename}
          onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
          flex="1"
          minWidth="0"
          bg="transparent"
          border="0"
          borderBottom="1px dashed var(--rule)"
          fontWeight="700"
          fontSize="15px"
          p="0"
        />
        <chakra.span className="dim" fontSize="12.5px">
          {KINDS.get(m.kind)!.title.toLowerCase()}
        </chakra.span>
      </Box>
      {m.mount ? (
        <>
          <MountFields id={m.id} on={m.on} mount={m.mount} />
          <Stops id={m.id} kind={m.kind} />
          <StackSection id={m.id} />
        </>
      ) : (
        <Choice
          asList
          label="Stands on"
          value={m.on}
          choices={[
            ...creases.map((h) => ({ id: h.crease, name: nameOfPart(design, h.crease) })),
            ...(creases.some((h) => h.crease === m.on) ? [] : [{ id: m.on, name: nameOfPart(design, m.on) }]),
          ]}
          onChange={(on) =>
            edit(`stand on the ${nameOfPart(design, on)}`, (d) => ({
              ...d,
              mechanisms: d.mechanisms.map((x) => (x.id === m.id ? { ...x, on } : x)),
            }))
          }
        />
      )}
      {KINDS.get(m.kind)?.editors?.includes('planes') && <PlaneSide id={m.id} />}
      {KINDS.get(m.kind)?.editors?.includes('planes') && <LettersOnLine id={m.id} />}
      {!m.mount && KINDS.get(m.kind)?.charts?.map((c) => <LiftChart key={c.measure} id={m.id} {...c} />)}
      <Fields id={m.id} keys={parameters.map((p) => p.key).filter((k) => !silent.includes(k))} />
      <MeasuredHere id={m.id} />
      {KINDS.get(m.kind)?.editors?.includes('struts') && <StrutTradeTable id={m.id} />}
      {(m.mount || KINDS.get(m.kind)?.ownPiece?.(values)) && (
        <Choice
          asList
          label="Cut from"
          value={m.stock}
          choices={design.stocks.map((s) => ({ id: s.id, name: s.name }))}
          onChange={(stock) =>
            edit('stock', (d) => ({ ...d, mechanisms: d.mechanisms.map((x) => (x.id === m.id ? { ...x, stock } : x)) }))
          }
        />
      )}
      <MeantField of={m.id} />
      <PieceStocks id={m.id} />
      <GlueFields id={m.id} />
      <Box display="flex" flexWrap="wrap" gap="6px" mt="4px" mb="12px">
        <Action
          small
          onClick={() => {
            let made = '';
            edit(`another ${m.name}`, (d) => {
              const added = m.mount
                ? addMechanism(d, m.kind, { on: m.on, mount: { ...m.mount, x: m.mount.x + 10 } }, m.parameters)
                : addMechanism(d, m.kind, m.on, { ...m.parameters, offset: Number(values.offset ?? 0) + 10 });
              made = added.id;
              return added.design;
            });
            select(made);
          }}
        >
          Duplicate
        </Action>
        {m.kind !== OWN_LINES && <TurnPlain id={m.id} />}
        {m.kind === OWN_LINES && <KeepOwn ids={[m.id]} />}
        <Action small danger onClick={() => edit(`remove ${m.name}`, (d) => removeMechanism(d, m.id))}>
          Remove
        </Action>
      </Box>
    </>
  );
}
