/** Amounts of lines of one's own: a number of mm, or a sum over the named numbers, as `depth / 2 + 3`. */
import jsep, { type Expression } from 'jsep';
import { ShapeError } from '../../shapes/shape';

export type Amount = number | string;
/** The named numbers of a mechanism, mm. */
export type Numbers = ReadonlyMap<string, number>;

export const LONGEST_AMOUNT = 120;

const SUMS: Readonly<Record<string, (a: number, b: number) => number>> = {
  '+': (a, b) => a + b,
  '-': (a, b) => a - b,
  '*': (a, b) => a * b,
  '/': (a, b) => a / b,
};

/** @throws ShapeError that says what is wrong with it, and which names are known */
export function amountIn(amount: Amount, numbers: Numbers): number {
  if (typeof amount === 'number') return amount;
  const refuse = (why: string): never => {
    throw new ShapeError(`"${amount.slice(0, 40)}" ${why}`);
  };
  if (amount.length > LONGEST_AMOUNT) return refuse(`is too long; at most ${LONGEST_AMOUNT} characters`);
  const value = worth(parsed(amount, refuse), numbers, refuse);
  return Number.isFinite(value) ? value : refuse('has no value: it divides by nothing');
}

/** Names that an amount uses. */
export function namesIn(amount: Amount): string[] {
  if (typeof amount === 'number') return [];
  return [...amount.matchAll(/[A-Za-z]\w*/g)].map(([name]) => name);
}

function parsed(text: string, refuse: (why: string) => never): Expression {
  try {
    return jsep(text);
  } catch {
    return refuse('is not an amount; it is written like 12.5 or depth / 2 + 3');
  }
}

function worth(e: Expression, numbers: Numbers, refuse: (why: string) => never): number {
  const part = (inner: unknown): number => worth(inner as Expression, numbers, refuse);
  if (e.type === 'Literal' && typeof e.value === 'number') return e.value;
  if (e.type === 'Identifier') {
    const known = numbers.get(e.name as string);
    if (known !== undefined) return known;
    const names = numbers.size > 0 ? `known are ${[...numbers.keys()].join(', ')}` : 'none is named yet';
    return refuse(`asks for the number "${String(e.name)}"; ${names}`);
  }
  if (e.type === 'UnaryExpression' && (e.operator === '-' || e.operator === '+'))
    return e.operator === '-' ? -part(e.argument) : part(e.argument);
  const sum = e.type === 'BinaryExpression' ? SUMS[e.operator as string] : undefined;
  return sum
    ? sum(part(e.left), part(e.right))
    : refuse('is not an amount: only numbers, their names, + - * / and brackets make one');
}
