'use client';
import { Box, chakra } from '@chakra-ui/react';
import { setLayer } from '@/core/build/placing';
import { sideOf, type Layer } from '@/core/document/design';
import { inSentence, nameOfPart } from '@/core/document/words';
import { cutterSize } from '@/core/units/length';
import { canBeDressed } from '@/workers/protocol';
import { useActions, useStudio } from '@/store/context';
import { deg, mm, UNSET } from '../common/asked';
import { Action } from '../common/Action';
import { Choice, NumberField, YesNo } from '../common/Field';
import { layerId } from '@/core/ids';
import { MeantField } from '../common/MeantField';
import { FREE, NOTHING_FREE, type FreeSide } from './free-sides';
import { MarginsLine } from './MarginsLine';
import { SideChoice } from './SideChoice';
import { WindowLine } from './WindowLine';
import { useBoxes } from './useBoxes';

const FIELDS = {
  x: mm('layer-x', 'Across', -5000, 5000),
  y: mm('layer-y', 'Up', -5000, 5000),
  width: mm('layer-width', 'Width', 0.1, 5000, UNSET),
  height: mm('layer-height', 'Height', 0.1, 5000, UNSET),
  foamMm: mm('layer-foam', 'Foam', 0, 10),
  foamInsetMm: mm('layer-foam-inset', 'Foam inside by', 0, 100),
};
const GLUE_INSET = mm('layer-glue-inset', 'Glue inside by', 0, 100);
const TURN = deg('layer-turn', 'Turned');
const PLACES = ['low', 'middle', 'high'] as const;
const WORDS = {
  x: { low: 'left edge', middle: 'middle', high: 'right edge' },
  y: { low: 'lower edge', middle: 'middle', high: 'upper edge' },
} as const;

/** A layer that is being changed, and a change of it with what it is called in undo. */
interface Own {
  readonly layer: Layer;
  readonly put: (label: string, change: Partial<Layer>) => void;
}

/** What a layer is, where it lies, and what it is made of. */
export function LayerFields({ layer }: { readonly layer: Layer }) {
  const { edit } = useActions();
  const box = useBoxes().get(layer.id);
  const put = (label: string, change: Partial<Layer>): void =>
    edit(`${layer.name}: ${label}`, (d) => setLayer(d, layer.id, change));
  const own = { layer, put };
  return (
    <Box border="1px solid var(--rule)" bg="sheet" borderRadius="card" p="9px 11px">
      <Name {...own} />
      <Choice
        label="It is"
        value={layer.as}
        choices={[
          { id: 'layer', name: 'a layer' },
          { id: 'window', name: 'a window' },
          { id: 'drawn', name: 'drawn' },
        ]}
        onChange={(as) => put(as, { as: as as Layer['as'] })}
      />
      <Place {...own} />
      {layer.as === 'layer' && <Made {...own} />}
      {box && (
        <chakra.p className="dim" m="0" fontSize="13px">
          {cutterSize(box.max[0] - box.min[0], box.max[1] - box.min[1])}
        </chakra.p>
      )}
      {layer.as === 'window' ? <WindowLine layer={layer} /> : <MarginsLine of={layerId(layer.id)} />}
    </Box>
  );
}

/** One of its lengths. */
function LengthField({ layer, put, of }: Own & { readonly of: keyof typeof FIELDS }) {
  const unit = useStudio((s) => s.design.units);
  const { label, default: none } = FIELDS[of];
  return (
    <NumberField
      parameter={FIELDS[of]}
      value={layer[of]}
      unit={unit}
      follows="as drawn"
      onChange={(v) => put(inSentence(label), { [of]: v ?? (none === null ? null : 0) })}
    />
  );
}

function Name({ layer: l, put }: Own) {
  const { show } = useActions();
  const asset = 'asset' in l.shape ? l.shape.asset : null;
  return (
    <Box display="flex" gap="6px" mb="6px">
      <chakra.input
        aria-label="Name of the layer"
        defaultValue={l.name}
        key={l.id}
        maxLength={80}
        onBlur={(e) => {
          const name = e.currentTarget.value.trim();
          if (name && name !== l.name) put('name', { name });
        }}
        flex="1"
        bg="transparent"
        fontWeight="700"
        borderBottom="1px dashed var(--rule)"
      />
      {asset && (
        <Action small onClick={() => show({ kind: 'workshop', asset })}>
          Work on it…
        </Action>
      )}
    </Box>
  );
}

function Place({ layer: l, put }: Own) {
  const design = useStudio((s) => s.design);
  const facets = useStudio((s) => s.scene?.facets) ?? [];
  const { turnUp } = useActions();
  const gone = facets.some((f) => f.id === l.facet)
    ? []
    : [{ id: l.facet, name: `${nameOfPart(design, l.facet)} (not there)` }];
  return (
    <>
      <Choice
        asList
        label="On"
        value={l.facet}
        choices={[...facets.filter(canBeDressed).map((f) => ({ id: f.id, name: nameOfPart(design, f.id) })), ...gone]}
        onChange={(facet) => put(`on the ${nameOfPart(design, facet)}`, { facet })}
      />
      <SideChoice
        side={sideOf(l)}
        onChange={(side) => {
          put(side, { side });
          turnUp(side);
        }}
      />
      {(['x', 'y'] as const).map((axis) => (
        <Box key={axis}>
          <Choice
            asList
            label={axis === 'x' ? 'Measured across from' : 'Measured up from'}
            value={l.from[axis]}
            choices={PLACES.map((p) => ({ id: p, name: WORDS[axis][p] }))}
            onChange={(p) => put('measured from', { from: { ...l.from, [axis]: p as Layer['from']['x'] } })}
          />
          <LengthField layer={l} put={put} of={axis} />
        </Box>
      ))}
      <NumberField
        parameter={TURN}
        value={l.turnDeg}
        unit={design.units}
        onChange={(v) => put('turned', { turnDeg: v ?? 0 })}
      />
      <LengthField layer={l} put={put} of="width" />
      <LengthField layer={l} put={put} of="height" />
    </>
  );
}

/** Its paper, colour and foam, and whether it is cut once more for the inside. */
function Made({ layer: l, put }: Own) {
  const stocks = useStudio((s) => s.design.stocks);
  const stopsFeet = useStudio((s) => s.scene?.footings.includes(l.facet) ?? false);
  return (
    <>
      <Choice
        asList
        label="Paper"
        value={l.stock}
        choices={stocks.map((s) => ({ id: s.id, name: s.name }))}
        onChange={(stock) => put('paper', { stock })}
      />
      <Colour layer={l} put={put} />
      <LengthField layer={l} put={put} of="foamMm" />
      {l.foamMm > 0 && <LengthField layer={l} put={put} of="foamInsetMm" />}
      <Stuck layer={l} put={put} />
      <MeantField of={layerId(l.id)} />
      <YesNo
        label="Cut off at its facet’s edge"
        value={l.trimmed === true}
        onChange={(trimmed) => put('cut off at its facet’s edge', { trimmed })}
      />
      <YesNo
        label="One more for inside"
        value={l.doubled === true}
        onChange={(doubled) => put('one more for the inside', { doubled })}
      />
      {stopsFeet && (
        <YesNo
          label="Stops the foot"
          value={l.stops === true}
          yes="yes, and follows"
          onChange={(stops) => put('stops the foot', { stops })}
        />
      )}
    </>
  );
}

/** Where it is stuck; what is not is free paper, held against all that it meets. */
function Stuck({ layer: l, put }: Own) {
  const unit = useStudio((s) => s.design.units);
  const { glued = {} } = l;
  const { free = NOTHING_FREE } = glued;
  return (
    <chakra.details mb="10px" open={l.glued !== undefined || undefined}>
      <chakra.summary cursor="pointer">Where it is stuck</chakra.summary>
      <Box pl="10px" pt="4px">
        <YesNo
          label="Only on its own facet"
          value={glued.onFacet === true}
          onChange={(onFacet) => put('where it is stuck', { glued: { ...glued, onFacet } })}
        />
        <NumberField
          parameter={GLUE_INSET}
          value={glued.insetMm ?? 0}
          unit={unit}
          onChange={(v) => put('glue inside by', { glued: { ...glued, insetMm: v ?? 0 } })}
        />
        {(Object.keys(FREE) as FreeSide[]).map((side) => (
          <NumberField
            key={side}
            parameter={FREE[side]}
            value={free[side]}
            unit={unit}
            onChange={(v) =>
              put(inSentence(FREE[side].label), { glued: { ...glued, free: { ...free, [side]: v ?? 0 } } })
            }
          />
        ))}
      </Box>
    </chakra.details>
  );
}

function Colour({ layer: l, put }: Own) {
  const { edit } = useActions();
  const asItsPaper = (): void =>
    edit(`${l.name}: colour of its paper`, (d) => ({
      ...d,
      layers: d.layers.map((x) => {
        if (x.id !== l.id) return x;
        const { colour: _gone, ...rest } = x;
        return rest;
      }),
    }));
  return (
    <Box display="flex" alignItems="center" gap="8px" mb="10px">
      <chakra.label htmlFor="layer-colour" flex="1">
        Colour
      </chakra.label>
      <input
        id="layer-colour"
        type="color"
        value={l.colour ?? '#c9d3e6'}
        onChange={(e) => put('colour', { colour: e.currentTarget.value })}
      />
      {l.colour && (
        <Action small onClick={asItsPaper}>
          Of its paper
        </Action>
      )}
    </Box>
  );
}
