'use client';
import { Box, chakra } from '@chakra-ui/react';
import { addMechanism } from '@/core/document/standing';
import { fittingParameters } from '@/core/document/fitting';
import { CENTRE, newLayer, type Design } from '@/core/document/design';
import { freeAssetId, usesOf } from '@/core/build/workshop';
import { KINDS, type Kind, type ShapeUse } from '@/core/kinds';
import type { ShapeAsset } from '@/core/shapes/shape';
import { nameOfFace } from '@/core/document/words';
import { useActions, useStudio } from '@/store/context';
import { engine } from '@/workers/client';
import { Action } from '../common/Action';

/** A figure of a new mechanism is so high, in parts of the shorter leaf, and at least so high, mm. */
const FIGURE = { part: 0.5, leastMm: 6 } as const;

/** What can be done with a kept shape: mechanisms on the gutter, or mechanism, layer or window on the facet picked. */
function useUses(asset: ShapeAsset) {
  const design = useStudio((s) => s.design);
  const scene = useStudio((s) => s.scene);
  const facet = useStudio((s) => s.facet) ?? 'leafA';
  const side = useStudio((s) => s.sideUp);
  const face = nameOfFace(design, facet, side);
  const { edit, select, selectAlso, show, go, selectFacet, pickLayers } = useActions();
  const host = scene?.hosts[0];
  const stand = ({ id: kind, title, mount }: Kind, use: ShapeUse): void => {
    if (!host) return;
    let made = '';
    // What is fixed on a face goes on the facet that is picked, on the side that is seen.
    const on = mount === 'face' ? { on: facet, mount: { ...CENTRE, side } } : host.crease;
    edit(`${asset.name} as ${title.toLowerCase()}`, (d) => {
      const height = Math.max(FIGURE.leastMm, Math.round(Math.min(host.reachA, host.reachB) * FIGURE.part));
      const own = { ...fittingParameters(kind, host), ...use.values({ asset: asset.id }, height) };
      const added = addMechanism(d, kind, on, own);
      made = added.id;
      return {
        ...added.design,
        mechanisms: added.design.mechanisms.map((m) => (m.id === made ? { ...m, name: asset.name } : m)),
      };
    });
    show(null);
    select(made);
    go('build');
  };
  const lay = (as: 'layer' | 'window'): void => {
    let id = '';
    edit(`${asset.name} as ${as} on ${face}`, (d) => {
      id = freeLayerId(d, asset.id);
      return {
        ...d,
        layers: [
          ...d.layers,
          newLayer({
            id,
            name: asset.name,
            facet,
            ...(side === 'outside' ? { side } : {}),
            shape: { asset: asset.id },
            as,
            stock: d.stocks[d.stocks.length - 1].id,
          }),
        ],
      };
    });
    show(null);
    go('dress');
    selectFacet(facet);
    pickLayers([id]);
  };
  const letters = async ({ id: kind }: Kind, values: NonNullable<ShapeUse['letters']>['values']): Promise<void> => {
    if (!('text' in asset.source) || !host) return;
    const answer = await engine('shape').letters(asset.source.text);
    if (!answer.ok) return;
    const middle = (Math.min(...answer.value.map((l) => l.x)) + Math.max(...answer.value.map((l) => l.x))) / 2;
    const made: string[] = [];
    edit(`${asset.name}, letter by letter`, (d) =>
      answer.value.reduce<Design>((all, l, i) => {
        // The reader's right is the low end of the gutter.
        const own = values({ path: l.path }, host, Math.round((middle - l.x) * 100) / 100);
        const added = addMechanism(all, kind, host.crease, own);
        made[i] = added.id;
        return {
          ...added.design,
          mechanisms: added.design.mechanisms.map((m) =>
            m.id === added.id ? { ...m, name: `Letter ${l.letter} (${i + 1})` } : m,
          ),
        };
      }, d),
    );
    show(null);
    go('build');
    // Each has numbers of its own: they are in one table while all are taken together.
    made.forEach((id, k) => (k === 0 ? select(id) : selectAlso(id)));
  };
  const shapeCard = (): void =>
    edit(`card shaped as ${asset.name}`, (d) => ({
      ...d,
      card: { ...d.card, parameters: { ...d.card.parameters, shape: { asset: asset.id } } },
    }));
  const duplicate = (): void => {
    let id = '';
    edit(`another ${asset.name}`, (d) => {
      id = freeAssetId(d, asset.name);
      return { ...d, shapes: [...d.shapes, { ...asset, id, name: `${asset.name} 2`.slice(0, 80) }] };
    });
    show({ kind: 'workshop', asset: id });
  };
  const remove = (): void => {
    edit(`without ${asset.name}`, (d) => ({ ...d, shapes: d.shapes.filter((s) => s.id !== asset.id) }));
    show(null);
  };
  return { face, stand, lay, letters, shapeCard, duplicate, remove };
}

/** @param parts that the shape falls into; null until that is known */
export function AssetUses({ asset, parts }: { readonly asset: ShapeAsset; readonly parts: number | null }) {
  const design = useStudio((s) => s.design);
  const { face, stand, lay, letters, shapeCard, duplicate, remove } = useUses(asset);
  const uses = usesOf(design, asset.id);
  return (
    <Box mt="14px" borderTop="1px solid var(--rule)" pt="10px">
      <chakra.h3 className="heading" mb="7px !important">
        Put it to use
      </chakra.h3>
      <Box display="flex" gap="6px" flexWrap="wrap">
        {[...KINDS.values()].map(
          (k) =>
            k.shapeUse &&
            (parts === 1 || !k.shapeUse.ofOnePart) && (
              <Action key={k.id} small data-use={k.id} onClick={() => stand(k, k.shapeUse!)}>
                {k.shapeUse.says}
              </Action>
            ),
        )}
        {'text' in asset.source &&
          [...KINDS.values()].map((k) => {
            const use = k.shapeUse?.letters;
            return (
              use && (
                <Action key={k.id} small onClick={() => void letters(k, use.values)}>
                  {use.says}
                </Action>
              )
            );
          })}
        <Action small data-use="layer" onClick={() => lay('layer')}>
          Layer on {face}
        </Action>
        <Action small data-use="window" onClick={() => lay('window')}>
          Window in {face}
        </Action>
        <Action small onClick={shapeCard}>
          Shape the card by it
        </Action>
        <Action small onClick={duplicate}>
          Duplicate
        </Action>
        <Action
          small
          danger
          disabled={uses.length > 0}
          title={uses.length > 0 ? `In use: ${uses.join(', ')}` : ''}
          onClick={remove}
        >
          Remove
        </Action>
      </Box>
      {uses.length > 0 && (
        <chakra.p className="dim" fontSize="13px" m="7px 0 0">
          In use: {uses.join(', ')}.
        </chakra.p>
      )}
    </Box>
  );
}

export function freeLayerId(d: Design, base: string): string {
  const taken = new Set([...d.layers.map((l) => l.id), ...d.mechanisms.map((m) => m.id)]);
  let n = 1;
  while (taken.has(`${base.slice(0, 30)}-${n}`)) n++;
  return `${base.slice(0, 30)}-${n}`;
}
