/**
 * Sums as they are typed into a field: numbers, mixed fractions and units, with + - x × * / ÷ and brackets. A number
 * without a unit is a factor where it multiplies or divides, and a size in the field's own unit where it stands alone
 * or is added: `29.7cm / 2`, `10 1/4 / 2`, `(8.5 in - 2 x 1/4 in) / 3`.
 */

/** What a number without a unit becomes, and what the units are worth. */
export interface SumUnits {
  readonly worth: Readonly<Record<string, number>>;
  /** Worth of the field's own unit. */
  readonly bare: number;
}
export type NoSum = 'not a sum' | 'unit' | 'of two sizes' | 'by nothing';
export type Sum =
  { readonly ok: true; readonly value: number } | { readonly ok: false; readonly reason: NoSum; readonly at: string };

/** A number yet without a unit, or a size. */
interface Term {
  readonly value: number;
  readonly sized: boolean;
}

const VULGAR: Readonly<Record<string, string>> = {
  '¼': '1/4',
  '½': '1/2',
  '¾': '3/4',
  '⅛': '1/8',
  '⅜': '3/8',
  '⅝': '5/8',
  '⅞': '7/8',
};
const BLANKS = /\s*/y;
const MIXED = /(?:(\d+)(?:\s+|-))?(\d+)\s*\/\s*(\d+)(?![\d.,])/y;
const PLAIN = /\d+(?:[.,]\d+)?|[.,]\d+/y;
const UNIT = /[a-zA-Z°]+|["″]/y;
const ADDED = /[+-]/y;
/** A letter stands for times only with room about it: 0x10 is none. */
const TIMES = /[×*÷/]|(?<=\s)x|x(?=[\s(])/y;

class Unread extends Error {
  constructor(
    readonly reason: NoSum,
    readonly at: string,
  ) {
    super(reason);
  }
}

/** @returns the sum in the units' worth, or why it is none and what stands there */
export function readSum(text: string, units: SumUnits): Sum {
  const tidy = text.replace(/[−–]/g, '-').replace(/[¼½¾⅛⅜⅝⅞]/g, (c) => ` ${VULGAR[c]}`);
  try {
    return { ok: true, value: new Reader(tidy.trim(), units).whole() };
  } catch (error) {
    if (error instanceof Unread) return { ok: false, reason: error.reason, at: error.at };
    throw error;
  }
}

class Reader {
  private at = 0;
  constructor(
    private readonly text: string,
    private readonly units: SumUnits,
  ) {}

  whole(): number {
    const { value } = this.sized(this.sum());
    if (this.at < this.text.length) throw this.stop('not a sum');
    return value;
  }

  private sum(): Term {
    let sum = this.product();
    for (let sign = this.take(ADDED); sign; sign = this.take(ADDED)) {
      const next = this.product();
      // Two numbers without a unit stay so: (10 + 2) / 3 in the field's unit.
      const [a, b] = sum.sized || next.sized ? [this.sized(sum), this.sized(next)] : [sum, next];
      sum = { value: sign[0] === '+' ? a.value + b.value : a.value - b.value, sized: a.sized };
    }
    return sum;
  }

  private product(): Term {
    let product = this.signed();
    for (let by = this.take(TIMES); by; by = this.take(TIMES)) {
      const divides = by[0] === '/' || by[0] === '÷';
      const next = this.signed();
      if (next.sized && (divides || product.sized)) throw new Unread('of two sizes', by[0]);
      if (divides && next.value === 0) throw new Unread('by nothing', by[0]);
      product = {
        value: divides ? product.value / next.value : product.value * next.value,
        sized: product.sized || next.sized,
      };
    }
    return product;
  }

  private signed(): Term {
    const sign = this.take(ADDED);
    const term = this.single();
    return sign?.[0] === '-' ? { ...term, value: -term.value } : term;
  }

  private single(): Term {
    if (this.take(/\(/y)) {
      const inner = this.sum();
      if (!this.take(/\)/y)) throw this.stop('not a sum');
      return this.inUnit(inner);
    }
    const mixed = this.take(MIXED);
    if (mixed) {
      if (Number(mixed[3]) === 0) throw new Unread('by nothing', mixed[0]);
      return this.inUnit({ value: Number(mixed[1] ?? 0) + Number(mixed[2]) / Number(mixed[3]), sized: false });
    }
    const plain = this.take(PLAIN);
    if (!plain) throw this.stop('not a sum');
    return this.inUnit({ value: Number(plain[0].replace(',', '.')), sized: false });
  }

  private inUnit(term: Term): Term {
    const before = this.at;
    const unit = this.take(UNIT)?.[0].toLowerCase();
    if (unit === undefined) return term;
    if (unit === 'x') {
      this.at = before;
      return term;
    }
    if (term.sized || !Object.hasOwn(this.units.worth, unit)) throw new Unread('unit', unit);
    return this.sized(term, this.units.worth[unit]);
  }

  private sized({ value, sized }: Term, worth = this.units.bare): Term {
    // 1.5 in is 38.1 mm, not 38.099999999999994: what a conversion adds past 15 digits is rounding.
    return { value: sized || worth === 1 ? value : Number((value * worth).toPrecision(15)), sized: true };
  }

  private take(pattern: RegExp): RegExpExecArray | null {
    BLANKS.lastIndex = this.at;
    const from = this.at + BLANKS.exec(this.text)![0].length;
    pattern.lastIndex = from;
    const found = pattern.exec(this.text);
    if (found) this.at = from + found[0].length;
    return found;
  }

  private stop = (reason: 'not a sum'): Unread => new Unread(reason, this.text.slice(this.at).trim());
}
