'use client';
import { chakra } from '@chakra-ui/react';
import { inSentence } from '@/core/document/words';
import { CARD } from '@/core/ids';
import { BASES, type AsOne, type Parameter, type ParameterValue } from '@/core/kinds';
import { rebuiltAs } from '@/core/document/standing';
import { baseKindOf, cardValues, setParameter } from '@/core/document/fields';
import type { Design } from '@/core/document/design';
import { formatLength } from '@/core/units/length';
import { keep } from '../common/kept';
import { useActions, useStudio } from '@/store/context';
import { Choice, NumberField } from '../common/Field';
import { PieceStocks } from '../common/PieceStocks';
import { CardSizes } from './CardSizes';

/** Units, how the base is built, its numbers, and what it is cut from. */
export function CardFields() {
  const design = useStudio((s) => s.design);
  const { edit } = useActions();
  const values = cardValues(design);
  const base = baseKindOf(design);
  const pageTitle = useStudio(
    (s) => s.scene?.pieces.find((p) => p.mechanism === CARD && p.id !== CARD && !design.card.template)?.title,
  );
  const field = (key: string, keys = [key], words: Partial<Parameter> = {}) => (
    <BaseField
      key={key}
      parameter={{ ...base.parameters.find((p) => p.key === key)!, ...words }}
      set={(value, said) => edit(said, (d) => keys.reduce((x, k) => setParameter(x, CARD, k, value), d))}
    />
  );
  const silent = base.silent?.(values) ?? [];
  // Where what a size would set says nothing, no size is offered.
  const followsShape = Object.keys(base.fitting(base.sizes(values))).some((key) => silent.includes(key));
  const says = (row: string | AsOne): boolean =>
    typeof row === 'string' ? !silent.includes(row) : row.keys.some((key) => !silent.includes(key));
  /** One field for numbers that are set together while they are equal; their own fields once they differ. */
  const fields = (row: string | AsOne) => {
    if (typeof row === 'string') return field(row);
    const { keys: all, ...words } = row;
    const keys = all.filter((key) => !silent.includes(key));
    const together = keys.every((key) => values[key] === values[keys[0]]);
    return together ? field(keys[0], [...keys], words) : keys.map((key) => field(key));
  };
  return (
    <>
      <chakra.h2 className="heading" mb="10px !important">
        Card
      </chakra.h2>
      <Choice
        label="Units"
        value={design.units}
        choices={[
          { id: 'mm', name: 'mm' },
          { id: 'in', name: 'inches' },
        ]}
        onChange={(u) => {
          keep('units', JSON.stringify(u));
          edit(`units ${u}`, (d) => ({ ...d, units: u as Design['units'] }));
        }}
      />
      {!design.card.template && (
        <Choice
          asList
          label="Built as"
          value={base.id}
          choices={[...BASES.values()].map((b) => ({ id: b.id, name: b.title }))}
          onChange={(id) => edit(BASES.get(id)!.title.toLowerCase(), (d) => rebuiltAs(d, id))}
        />
      )}
      {!design.card.template && (followsShape ? <p className="dim">Its size is that of its shape.</p> : <CardSizes />)}
      {!design.card.template && base.brief.filter(says).map(fields)}
      <Choice
        asList
        label="Base from"
        value={design.card.stock}
        choices={design.stocks.map((s) => ({ id: s.id, name: s.name }))}
        onChange={(stock) => edit('base stock', (d) => ({ ...d, card: { ...d.card, stock } }))}
      />
      {pageTitle && (
        <Choice
          asList
          label={`${pageTitle} from`}
          value={design.card.pageStock}
          choices={design.stocks.map((s) => ({ id: s.id, name: s.name }))}
          onChange={(pageStock) => edit('liner stock', (d) => ({ ...d, card: { ...d.card, pageStock } }))}
        />
      )}
      <PieceStocks id={CARD} />
    </>
  );
}

/** A number or a choice of the base. */
function BaseField({
  parameter: p,
  set,
}: {
  parameter: Parameter;
  set: (value: ParameterValue, words: string) => void;
}) {
  const design = useStudio((s) => s.design);
  const value = cardValues(design)[p.key];
  if (p.unit === 'choice')
    return (
      <Choice
        label={p.label}
        value={String(value)}
        choices={p.choices!.map((id) => ({ id, name: id }))}
        onChange={(c) => set(c, `${inSentence(p.label)} ${c}`)}
      />
    );
  return (
    <NumberField
      parameter={p}
      value={value}
      unit={design.units}
      onChange={(v) => set(v, `${inSentence(p.label)} ${formatLength(v ?? 0, design.units)} ${design.units}`)}
    />
  );
}
