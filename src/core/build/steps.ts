/** Order of folding and gluing, with the pose each step's picture shows. */
import { FLAT, moved, openTo, type State } from '../drives';
import type { Assembly } from '../assembly/assembly';
import { sideOf, type Design, type Mechanism } from '../document/design';
import { baseKindOf, cardValues } from '../document/fields';
import { nameOfPart } from '../document/words';
import { idOfLayer, ownerOfId, wordsOfPart } from '../ids';
import { faceMounting, KINDS, SIDES, type Side } from '../kinds';
import { adhesive } from '../paper/adhesives';
import type { GlueArea } from '../pattern/pattern';
import { inStandingOrder } from './build';

export interface WorkStep {
  readonly title: string;
  readonly text: string;
  /** How the card stands in the picture. */
  readonly state: State;
  /** Mechanisms that are there by then. */
  readonly shown: readonly string[];
  /** Facets and glue areas the step is about. */
  readonly subjects: readonly string[];
}

/**
 * Mats first while the paper is flat, cut mechanisms next from the lowest, then glued pieces in the order in which they
 * stand on each other: each is stuck while what carries it is still within reach (common practice, no source).
 */
export function workSteps(design: Design, assembly: Assembly): WorkStep[] {
  const order = inStandingOrder(design);
  const onFace = (m: Mechanism): boolean => m.mount !== undefined;
  const isGlued = (id: string): boolean => assembly.bonds.some((b) => b.b.piece.startsWith(`${id}.`));
  const cut = order.filter((m) => !onFace(m) && !isGlued(m.id));
  const glued = order.filter((m) => !onFace(m) && isGlued(m.id));
  const steps: WorkStep[] = [];
  const shown: string[] = [assembly.base.mechanism, ...cut.map((m) => m.id)];
  const add = (title: string, text: string, state: State, subjects: readonly string[] = []): void => {
    steps.push({ title, text, state, shown: [...shown], subjects });
  };
  const flat = baseKindOf(design).flat ?? FLAT;
  const pieces = assembly.pieces.map((p) => p.title.toLowerCase()).join(', ');
  add('Score and cut', `Score every fold, cut the inner lines, then the outlines: ${pieces}.`, flat);
  for (const side of SIDES) {
    const on = matted(design, side);
    const text = 'Covering paper goes on while everything still lies flat. Keep adhesive off the creases.';
    if (on.length > 0 && side === 'inside') add('Stick the mats', text, flat, on);
    if (on.length > 0 && side === 'outside') add('Turn it over and stick the mats of the outside', text, flat, on);
  }
  if (!design.card.template)
    for (const { title, text, openDeg, parts } of baseKindOf(design).order(cardValues(design)))
      add(title, text, openTo(openDeg), parts);
  for (const m of cut) {
    const creases = assembly.creases.filter((c) => c.mechanism === m.id);
    const folds = [...new Set(creases.map((c) => `${wordsOfPart(c.id)} ${c.role}`))].join(', ');
    add(
      `Fold ${m.name}`,
      `${folds}. Push it forward with the card half open, then close the card over it and burnish.`,
      openTo(110),
      assembly.facets.filter((f) => f.mechanism === m.id).map((f) => f.id),
    );
  }
  for (const m of glued) {
    shown.push(m.id);
    const areas = assembly.pieces.flatMap((p) => p.glue).filter((g) => g.mechanism === m.id);
    const tabs = areas.map((g) => `${wordsOfPart(g.facet)} to the ${nameOfPart(design, g.onto.facet)}${stuckWith(g)}`);
    add(
      `Glue ${m.name}`,
      `Fold it flat. Stick ${tabs.join(', then ')}; close the card while the second tab sets.`,
      openTo(60),
      assembly.facets.filter((f) => f.mechanism === m.id).map((f) => f.id),
    );
  }
  for (const m of order.filter(onFace)) {
    shown.push(m.id);
    const kind = KINDS.get(m.kind);
    const sentences = faceMounting(kind)?.order ?? [];
    sentences.forEach((text, k) => {
      const title = k === 0 ? `Put ${m.name} on the ${nameOfPart(design, m.on)}, ${m.mount!.side}` : m.name;
      const parts = assembly.facets.filter((f) => f.mechanism === m.id).map((f) => f.id);
      add(title, text, flat, parts);
      // At the last step it can be moved, and is shown moved.
      if (k === sentences.length - 1)
        steps[steps.length - 1] = { ...steps[steps.length - 1], state: partWay(assembly, m.id, flat) };
    });
  }
  const outer = assembly.layers.filter((l) => l.side === 'outside' && idOfLayer(l.id) !== null);
  if (outer.length > 0)
    add(
      'Stick what goes on the outside',
      `With the card shut, so that nothing inside is pressed out of place: ${outer.map((l) => l.title).join(', ')}.`,
      openTo(0),
      outer.map((l) => l.id),
    );
  add('Open and close it', 'Open it slowly to flat and close it again before it goes in an envelope.', openTo(100));
  return steps;
}

/** What a glue area is stuck with, where that is no wet glue. */
const stuckWith = ({ adhesive: id }: GlueArea): string =>
  id === undefined || id === 'wet' ? '' : ` (${adhesive(id).name})`;

/** Facets that have mats on a side. */
const matted = (design: Design, side: Side): string[] =>
  design.dressing.filter((d) => sideOf(d) === side && d.mats.length > 0).map((d) => d.facet);

/** Flat open, everything of a mechanism that is moved by hand a third of its way. */
const partWay = (assembly: Assembly, mechanism: string, flat: State): State =>
  assembly.drives
    .filter((d) => ownerOfId(d.id) === mechanism)
    .reduce((state, d) => moved(state, d.id, d.from + (d.to - d.from) / 3), flat);

/** The design with only some of its mechanisms, for a step's picture. */
export const onlyWith = (design: Design, shown: readonly string[]): Design => ({
  ...design,
  mechanisms: design.mechanisms.filter((m) => shown.includes(m.id)),
});
