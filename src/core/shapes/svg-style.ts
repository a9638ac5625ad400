/**
 * Style sheets of an SVG, as far as they say how a line is drawn: rules by class, id and element name (CSS Selectors 3,
 * compound selectors only). Parsed by css-tree; values are used as words and never reach a page.
 */
import * as csstree from 'css-tree';

export interface StyleRule {
  readonly element: string | null;
  readonly id: string | null;
  readonly classes: readonly string[];
  readonly declarations: Readonly<Record<string, string>>;
  /** Weight of its selector: ids, then classes, then element names. */
  readonly specificity: number;
}
export interface StyleSheet {
  readonly rules: readonly StyleRule[];
  /** What could not be taken over, in words. */
  readonly leftOut: readonly string[];
}

const LARGEST_SHEET = 200_000;
const MOST_RULES = 2000;
/** The properties that are asked for; everything else in a sheet is passed over. */
export const STYLE_PROPERTIES = new Set(['fill', 'stroke', 'stroke-dasharray', 'fill-rule', 'display', 'visibility']);

export function readStyleSheet(text: string): StyleSheet {
  const leftOut = new Set<string>();
  if (text.length > LARGEST_SHEET) return { rules: [], leftOut: ['a style sheet of more than 200 kB'] };
  const tree = csstree.parse(text, {
    parseValue: false,
    parseCustomProperty: false,
    onParseError: () => leftOut.add('a part of a style sheet that is not CSS'),
  });
  const rules: StyleRule[] = [];
  if (tree.type !== 'StyleSheet') return { rules, leftOut: [...leftOut] };
  tree.children.forEach((node) => {
    if (node.type === 'Atrule') leftOut.add(`@${node.name.slice(0, 30)} in a style sheet`);
    if (node.type !== 'Rule' || node.prelude.type !== 'SelectorList') return;
    const declarations: Record<string, string> = {};
    node.block.children.forEach((d) => {
      const property = d.type === 'Declaration' ? d.property.toLowerCase() : '';
      if (d.type === 'Declaration' && STYLE_PROPERTIES.has(property))
        declarations[property] = csstree.generate(d.value).trim();
    });
    if (Object.keys(declarations).length === 0) return;
    node.prelude.children.forEach((selector) => {
      const compound = selector.type === 'Selector' ? compoundOf(selector) : null;
      if (!compound || rules.length >= MOST_RULES) leftOut.add('style rules for elements by where they stand');
      else rules.push({ ...compound, declarations });
    });
  });
  return {
    rules: rules
      .map((r, i) => ({ r, i }))
      .sort((a, b) => a.r.specificity - b.r.specificity || a.i - b.i)
      .map(({ r }) => r),
    leftOut: [...leftOut],
  };
}

function compoundOf(selector: csstree.Selector): Omit<StyleRule, 'declarations'> | null {
  let [element, id]: (string | null)[] = [null, null];
  const classes: string[] = [];
  let simple = true;
  selector.children.forEach((part) => {
    if (part.type === 'TypeSelector') element = part.name === '*' ? null : part.name.toLowerCase();
    else if (part.type === 'ClassSelector') classes.push(part.name);
    else if (part.type === 'IdSelector' && id === null) id = part.name;
    else simple = false;
  });
  return simple
    ? { element, id, classes, specificity: (id ? 10_000 : 0) + 100 * classes.length + (element ? 1 : 0) }
    : null;
}

/** Rules by the most telling word of their selector, so that an element meets only those that may be its own. */
export class RuleIndex {
  private readonly byWord = new Map<string, { readonly rule: StyleRule; readonly order: number }[]>();

  /** @param rules weakest first */
  constructor(rules: readonly StyleRule[]) {
    rules.forEach((rule, order) => {
      const word = rule.id !== null ? `#${rule.id}` : rule.classes[0] ? `.${rule.classes[0]}` : (rule.element ?? '*');
      const own = this.byWord.get(word);
      if (own) own.push({ rule, order });
      else this.byWord.set(word, [{ rule, order }]);
    });
  }

  /** What the sheet says of an element: later and more specific rules win. */
  declarationsFor(
    name: string,
    id: string | undefined,
    classNames: string | undefined,
  ): Readonly<Record<string, string>> {
    if (this.byWord.size === 0) return {};
    const own = new Set((classNames ?? '').split(/\s+/).filter((c) => c !== ''));
    const words = [...(id === undefined ? [] : [`#${id}`]), ...[...own].map((c) => `.${c}`), name, '*'];
    const fitting = words
      .flatMap((w) => this.byWord.get(w) ?? [])
      .filter(
        ({ rule: r }) =>
          (r.element === null || r.element === name) &&
          (r.id === null || r.id === id) &&
          r.classes.every((c) => own.has(c)),
      )
      .sort((a, b) => a.order - b.order);
    return Object.assign({}, ...fitting.map(({ rule }) => rule.declarations)) as Record<string, string>;
  }
}
