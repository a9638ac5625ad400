/** The work in order: what is printed, cut, folded, dressed and glued after what, with the pose each picture shows. */
import { FLAT, moved, openTo, within, type State } from '../drives';
import type { Assembly, AttachedLayer } from '../assembly/assembly';
import { poseAt } from '../assembly/pose';
import { sideOf, type Design, type Mechanism } from '../document/design';
import { baseKindOf, cardValues, valuesOf } from '../document/fields';
import { nameOfPart, wordsOfOwnPart } from '../document/words';
import { CARD, idOfLayer, isPartOf, ownerOfId } from '../ids';
import { faceMounting, handledIn, KINDS, sharedOut, SIDES, THE_REST } from '../kinds';
import type { BaseStep, FaceStep, Hardware, Side, WorkFacts } from '../kinds';
import { adhesive } from '../paper/adhesives';
import type { GlueArea } from '../pattern/pattern';
import { inStandingOrder } from './build';
import { inOrder, type Task } from './order';
import { coveredBy } from './reach';
import { bought, distinct, hardwareTitle, lengthSaid, stuckWith, type Taken } from './taken';

/** As people work: everything of one sort together, where nothing has to wait. */
export const WORK_GROUPS = ['print', 'cut', 'fold', 'dress', 'glue', 'try'] as const;
export type WorkGroup = (typeof WORK_GROUPS)[number];
export const GROUP_WORDS: Readonly<Record<WorkGroup, string>> = {
  print: 'Print',
  cut: 'Cut',
  fold: 'Score and fold',
  dress: 'Dress',
  glue: 'Glue',
  try: 'Try it',
};

/** Creases that a step names; a figure on many struts has more. */
const MOST_TOLD = 8;

export interface WorkStep {
  /** Stays the same while its mechanism does: what is ticked off is kept by it. */
  readonly id: string;
  readonly group: WorkGroup;
  readonly title: string;
  readonly text: string;
  /** How the card stands in the picture. */
  readonly state: State;
  /** Mechanisms that are there by then. */
  readonly shown: readonly string[];
  /** Facets and glue areas the step is about. */
  readonly subjects: readonly string[];
  /** Facets of mechanisms that are shown which are put there only later. */
  readonly absent: readonly string[];
  /** Glue areas that are stuck in it, and creases that are folded, by id. */
  readonly glue: readonly string[];
  readonly folds: readonly string[];
  /** What it takes beside paper: adhesives, rivets, foam. */
  readonly takes: readonly Taken[];
  /** Steps that must be done before it, by id. */
  readonly needs: readonly string[];
}
type Draft = Omit<WorkStep, 'shown'> & Task & { readonly brings: readonly string[] };

export interface Work {
  readonly steps: readonly WorkStep[];
  /** Mechanisms that stand in each other's way, by name: the first of each ring is glued first. */
  readonly rings: readonly (readonly string[])[];
}

export const workSteps = (design: Design, assembly: Assembly): readonly WorkStep[] => workOf(design, assembly).steps;

/**
 * Paper is covered while it lies flat, what is cut from the page is folded before anything is glued, and each piece is
 * glued while what carries it is still within reach (common practice, no source). What stands on something waits for
 * it; what would cover the glue of another waits for that.
 */
export function workOf(design: Design, assembly: Assembly): Work {
  const drafts = new Drafts(design, assembly).all();
  const { order, cycles } = inOrder(drafts);
  const shown: string[] = [assembly.base.mechanism];
  const steps = order.map(({ brings, rank: _, ...step }): WorkStep => {
    shown.push(...brings);
    return { ...step, shown: [...shown] };
  });
  const titleOf = (id: string): string => drafts.find((d) => d.id === id)!.title;
  return { steps, rings: cycles.map((ring) => ring.map(titleOf)) };
}

/** Every task with what it waits for. */
class Drafts {
  private readonly flat: State;
  private readonly order: readonly Mechanism[];
  private readonly drafts: Draft[] = [];
  private readonly covered: ReadonlyMap<string, ReadonlySet<string>>;

  constructor(
    private readonly design: Design,
    private readonly assembly: Assembly,
  ) {
    this.flat = baseKindOf(design).flat ?? FLAT;
    this.order = inStandingOrder(design);
    this.covered = coveredBy(assembly, poseAt(assembly, within(assembly.drives, openTo(HAND_OPEN_DEG))));
  }

  all(): readonly Draft[] {
    this.cutting();
    const dressed = this.matting();
    const based = this.basing(dressed);
    for (const m of this.order) {
      if (m.mount !== undefined) this.putting(m, based);
      else if (this.isGlued(m.id)) this.gluing(m, based);
      else this.folding(m, based);
    }
    this.layering();
    this.ending();
    return this.drafts;
  }

  private add(draft: Partial<Draft> & Pick<Draft, 'id' | 'group' | 'title' | 'text' | 'state'>): string {
    const plain = { subjects: [], absent: [], glue: [], folds: [], takes: [], needs: [], brings: [] };
    this.drafts.push({ ...plain, rank: WORK_GROUPS.indexOf(draft.group), ...draft });
    return draft.id;
  }

  private saidOf = (text: WorkFacts['text']): string =>
    typeof text === 'string' ? text : text((mm) => lengthSaid(mm, this.design.units));

  private cutting(): void {
    const pieces = this.assembly.pieces.map((p) => p.title.toLowerCase()).join(', ');
    const text = `Score every fold, cut the inner lines, then the outlines: ${pieces}.`;
    // What is cut from the page is there from the first picture on.
    const brings = this.order.filter((m) => m.mount === undefined && !this.isGlued(m.id)).map((m) => m.id);
    this.add({ id: CUT, group: 'cut', title: 'Score and cut', text, state: this.flat, brings });
  }

  /** Covering paper, side by side; its steps by id. */
  private matting(): string[] {
    const text = 'Covering paper goes on while everything still lies flat. Keep adhesive off the creases.';
    return SIDES.flatMap((side) => {
      const subjects = mattedFacets(this.design, side);
      if (subjects.length === 0) return [];
      const title = side === 'inside' ? 'Stick the mats' : 'Turn it over and stick the mats of the outside';
      const of = this.assembly.layers.filter((l) => l.side === side && idOfLayer(l.id) === null);
      const id = `mats.${side}`;
      return [
        this.add({
          id,
          group: 'dress',
          title,
          text,
          state: this.flat,
          subjects,
          takes: this.stuckOn(of),
          needs: [CUT],
        }),
      ];
    });
  }

  /** What the base itself asks for, one after another; what the rest waits for. */
  private basing(dressed: readonly string[]): string[] {
    let before = [CUT, ...dressed];
    const { template } = this.design.card;
    const steps = template ? this.templateSteps() : baseKindOf(this.design).order(cardValues(this.design));
    const shares = this.sharesOf(CARD, steps);
    steps.forEach(({ title, openDeg, parts, text }, k) => {
      const { glue, folds, takes } = shares[k];
      const id = this.add({
        ...{ id: `base.${k + 1}`, group: glue.length + takes.length > 0 ? 'glue' : 'fold', title },
        ...{ state: openTo(openDeg), text: `${this.saidFolds(folds)}${this.saidOf(text)}` },
        ...{ subjects: parts, needs: before, glue, folds, takes },
      });
      before = [id];
    });
    return before;
  }

  private templateSteps(): readonly BaseStep[] {
    const isJoined = this.gluedBy(CARD).length + this.hardwareOf(CARD).length > 0;
    return isJoined ? [TEMPLATE_FOLDS, TEMPLATE_JOINS] : [TEMPLATE_FOLDS];
  }

  private folding(m: Mechanism, based: readonly string[]): void {
    const folds = this.creasesOf(m.id);
    this.add({
      id: `fold.${m.id}`,
      group: 'fold',
      title: `Fold ${m.name}`,
      text: `${this.saidFolds(folds)}${foldedSo(m, PUSHED)}`,
      state: openTo(110),
      subjects: this.facetsOf(m.id),
      folds,
      needs: [...based, ...this.hostStep(m)],
    });
  }

  /** Which way each crease goes, as one folds it: in towards the inside of the card, or out from it. */
  private saidFolds(ids: readonly string[]): string {
    const creases = this.assembly.creases.filter((c) => ids.includes(c.id));
    const ways = [
      ['in', 'valley'],
      ['out', 'mountain'],
    ] as const;
    return ways
      .map(([way, role]) => {
        const names = creases.filter((c) => c.role === role).map((c) => wordsOfOwnPart(this.design, c.id));
        const told = [...new Set(names)];
        const more = told.length > MOST_TOLD ? ` and ${told.length - MOST_TOLD} more` : '';
        return told.length > 0 ? `Folds ${way}: ${told.slice(0, MOST_TOLD).join(', ')}${more}. ` : '';
      })
      .join('');
  }

  private gluing(m: Mechanism, based: readonly string[]): void {
    const areas = this.gluedBy(m.id);
    const tabs = areas.map(
      (g) => `${wordsOfOwnPart(this.design, g.facet)} to the ${this.nameOf(g.onto.facet)}${saidWith(g)}`,
    );
    const folds = this.creasesOf(m.id);
    const last = tabs.length === 2 ? 'second tab' : 'last of them';
    const setting = tabs.length > 1 ? `; close the card while the ${last} sets` : '';
    const sticks = `Stick ${tabs.join(', then ')}${setting}.`;
    this.add({
      id: `glue.${m.id}`,
      group: 'glue',
      title: `Glue ${m.name}`,
      text: `${this.saidFolds(folds)}${foldedSo(m, 'Fold it flat.')} ${sticks}`,
      state: openTo(60),
      subjects: this.facetsOf(m.id),
      glue: areas.map((g) => g.id),
      folds,
      takes: [...this.adhesives(areas), ...this.hardwareOf(m.id).map(bought)],
      needs: [...based, ...this.hostStep(m), ...this.coveredFirst(m)],
      brings: [m.id],
    });
  }

  /** What is fixed on a face, as its kind says; at its last step it can be moved, and is shown moved. */
  private putting(m: Mechanism, based: readonly string[]): void {
    const steps = faceStepsOf(m);
    const shares = this.sharesOf(m.id, steps);
    const facets = this.facetsOf(m.id);
    const handled = steps.map((step) => handledIn(step, facets));
    steps.forEach(({ id, text }, k) => {
      const here = new Set(handled.slice(0, k + 1).flat());
      const { glue, folds, takes } = shares[k];
      this.add({
        id: `put.${m.id}.${id}`,
        group: 'glue',
        title: k === 0 ? `Put ${m.name} on the ${this.nameOf(m.on)}, ${m.mount!.side}` : m.name,
        text: `${this.saidFolds(folds)}${this.saidOf(text)}`,
        state: k === steps.length - 1 ? this.partWay(m.id) : this.flat,
        subjects: handled[k],
        absent: facets.filter((f) => !here.has(f)),
        ...{ glue, folds, takes },
        needs: k > 0 ? [`put.${m.id}.${steps[k - 1].id}`] : [...based, ...this.hostStep(m), ...this.coveredFirst(m)],
        brings: k === 0 ? [m.id] : [],
      });
    });
  }

  /** What each step of one owner sticks and folds, by id, and what it takes. */
  private sharesOf(owner: string, steps: readonly WorkFacts[]) {
    const areas = this.gluedBy(owner);
    const glue = sharedOut(
      areas.map((g) => g.id),
      steps.map((s) => s.glue ?? []),
    );
    const folds = sharedOut(
      this.creasesOf(owner),
      steps.map((s) => s.folds ?? []),
    );
    const told = new Set(steps.flatMap(({ takes }) => (Array.isArray(takes) ? takes.map(thingOf) : [])));
    const rest = this.hardwareOf(owner).filter((h) => !told.has(thingOf(h)));
    return steps.map(({ takes = [], sticks, foam }, k) => ({
      glue: glue[k],
      folds: folds[k],
      takes: distinct([
        ...(sticks ? [stuckWith(sticks, undefined)] : []),
        ...this.adhesives(areas.filter((g) => glue[k].includes(g.id))),
        ...(foam ? this.foamOf(owner) : []),
        ...(takes === THE_REST ? rest : takes).map(bought),
      ]),
    }));
  }

  /** Layers, on what carries them: those of the base flat, those of a mechanism raised, the outside last and shut. */
  private layering(): void {
    const own = this.assembly.layers.filter((l) => idOfLayer(l.id) !== null);
    const inner = own.filter((l) => l.side === 'inside');
    const ownerOf = (l: AttachedLayer): string => this.assembly.facets[l.facet].mechanism;
    for (const owner of new Set(inner.map(ownerOf))) {
      const on = inner.filter((l) => ownerOf(l) === owner);
      const base = owner === this.assembly.base.mechanism;
      const host = this.drafts.filter((d) => d.id === `glue.${owner}` || isPartOf(d.id, `put.${owner}`));
      this.add({
        id: `layers.${owner}`,
        group: 'dress',
        title: base ? 'Stick the layers inside' : `Stick the layers of ${this.nameOfMechanism(owner)}`,
        text: `${base ? 'While it lies flat' : 'With it raised, clear of every crease'}: ${titlesOf(on)}.`,
        state: base ? this.flat : openTo(100),
        subjects: on.map((l) => l.id),
        takes: this.stuckOn(on),
        needs: [CUT, ...host.map((d) => d.id)],
      });
    }
    const outer = own.filter((l) => l.side === 'outside');
    if (outer.length > 0)
      this.add({
        id: 'layers.outside',
        group: 'glue',
        rank: WORK_GROUPS.indexOf('glue') + 0.5,
        title: 'Stick what goes on the outside',
        text: `With the card shut, so that nothing inside is pressed out of place: ${titlesOf(outer)}.`,
        state: openTo(0),
        subjects: outer.map((l) => l.id),
        takes: this.stuckOn(outer),
        needs: this.drafts.map((d) => d.id),
      });
  }

  private ending(): void {
    this.add({
      id: 'try',
      group: 'try',
      title: 'Open and close it',
      text: 'Open it slowly to flat and close it again before it goes in an envelope.',
      state: openTo(100),
      needs: this.drafts.map((d) => d.id),
    });
  }

  /** The last step of what it stands on. */
  private hostStep(m: Mechanism): string[] {
    const host = this.order.find((o) => o.id === ownerOfId(m.on));
    if (!host) return [];
    const own = this.drafts.filter((d) => d.brings.includes(host.id) || isPartOf(d.id, `put.${host.id}`));
    const folded = this.drafts.filter((d) => d.id === `fold.${host.id}`);
    return [...own, ...folded].filter((d) => d.id !== CUT).map((d) => d.id);
  }

  /** Those whose glue it would cover, unless it is them it stands on. */
  private coveredFirst(m: Mechanism): string[] {
    return this.order
      .filter((o) => o.id !== m.id && this.covered.get(o.id)?.has(m.id) && !this.carries(m.id, o))
      .map((o) => (o.mount === undefined ? `glue.${o.id}` : `put.${o.id}.${faceStepsOf(o)[0]?.id}`));
  }
  /** `o` stands on `host`, by way of others or not. */
  private carries(host: string, o: Mechanism): boolean {
    for (let at: Mechanism | undefined = o; at; at = this.order.find((x) => x.id === ownerOfId(at!.on)))
      if (ownerOfId(at.on) === host) return true;
    return false;
  }

  private isGlued = (id: string): boolean => this.assembly.bonds.some((b) => isPartOf(b.b.piece, id));
  private gluedBy = (id: string): GlueArea[] =>
    this.assembly.pieces.flatMap((p) => p.glue).filter((g) => g.mechanism === id);
  private facetsOf = (id: string): string[] => this.assembly.facets.filter((f) => f.mechanism === id).map((f) => f.id);
  private creasesOf = (id: string): string[] =>
    this.assembly.creases.filter((c) => c.mechanism === id).map((c) => c.id);
  private nameOf = (facet: string): string => nameOfPart(this.design, facet);
  private nameOfMechanism = (id: string): string => this.order.find((m) => m.id === id)?.name ?? id;
  private hardwareOf = (owner: string) => this.assembly.hardware.filter((h) => (h.mechanism ?? CARD) === owner);
  private foamOf = (id: string): Taken[] =>
    this.assembly.foam.filter((f) => ownerOfId(f.id) === id).map((f) => stuckWith('foam', f.thickMm));
  private adhesives = (areas: readonly GlueArea[]): Taken[] =>
    distinct(areas.map(({ adhesive: id = 'wet', thickMm }) => stuckWith(id, thickMm)));
  private stuckOn = (layers: readonly AttachedLayer[]): Taken[] =>
    distinct(layers.map((l) => stuckWith(l.foamMm > 0 ? 'foam' : 'wet', l.foamMm)));

  /** Flat open, everything of a mechanism that is moved by hand a third of its way. */
  private partWay(mechanism: string): State {
    return this.assembly.drives
      .filter((d) => ownerOfId(d.id) === mechanism)
      .reduce((state, d) => moved(state, d.id, d.from + (d.to - d.from) / 3), this.flat);
  }
}

const TEMPLATE_FOLDS: BaseStep = {
  title: 'Fold the base',
  text: 'Fold each piece along its scores, press the folds flat, and open it again.',
  openDeg: 120,
  parts: [],
  folds: [THE_REST],
};
const TEMPLATE_JOINS: BaseStep = {
  title: 'Put its pieces together',
  text: 'Stick and rivet them to each other where their marks lie.',
  openDeg: 150,
  parts: [],
  glue: [THE_REST],
  takes: THE_REST,
};

/** How what is cut from its sheet is folded. */
function foldedSo({ kind }: Mechanism, otherwise: string): string {
  const known = KINDS.get(kind);
  return (known?.mount === 'crease' && known.foldedSo) || otherwise;
}
const PUSHED = 'Push it forward with the card half open, then close the card over it and burnish.';

/** How its kind puts a mechanism on a face. */
const faceStepsOf = (m: Mechanism): readonly FaceStep[] => faceMounting(KINDS.get(m.kind))?.order(valuesOf(m)) ?? [];

const CUT = 'cut';
/** So far a card is held open to work in it. */
const HAND_OPEN_DEG = 110;

const titlesOf = (layers: readonly AttachedLayer[]): string => [...new Set(layers.map((l) => l.title))].join(', ');

/** What a glue area is stuck with, where that is no wet glue. */
const saidWith = ({ adhesive: id }: GlueArea): string =>
  id === undefined || id === 'wet' ? '' : ` (${adhesive(id).name})`;

/** Facets that have mats on a side. */
const mattedFacets = (design: Design, side: Side): string[] =>
  design.dressing.filter((d) => sideOf(d) === side && d.mats.length > 0).map((d) => d.facet);

/** The design with only some of its mechanisms, for a step's picture. */
export const onlyWith = (design: Design, shown: readonly string[]): Design => ({
  ...design,
  mechanisms: design.mechanisms.filter((m) => shown.includes(m.id)),
});
/** Tells one sort of things from another. */
const thingOf = (h: Pick<Hardware, 'what' | 'sizesMm'>): string => hardwareTitle(h, 'mm');
