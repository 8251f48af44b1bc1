// Measures of one's own: a formula over the measures there are, its units checked before its first number.
import {
  absDependencies,
  addDependencies,
  create,
  createUnitDependencies,
  divideDependencies,
  expDependencies,
  type FactoryFunctionMap,
  logDependencies,
  type MathJsInstance,
  type MathNode,
  maxDependencies,
  minDependencies,
  multiplyDependencies,
  parseDependencies,
  powDependencies,
  sqrtDependencies,
  subtractDependencies,
  type Unit,
  unaryMinusDependencies,
  unaryPlusDependencies,
  unitDependencies,
} from 'mathjs';
import { MEASURES, type MeasureAbout } from '../measure/index.ts';

/** What a formula needs of the library: all of it takes a second of every process that starts, this nothing until asked. */
const NEEDED = {
  absDependencies,
  addDependencies,
  createUnitDependencies,
  divideDependencies,
  expDependencies,
  logDependencies,
  maxDependencies,
  minDependencies,
  multiplyDependencies,
  parseDependencies,
  powDependencies,
  sqrtDependencies,
  subtractDependencies,
  unaryMinusDependencies,
  unaryPlusDependencies,
  unitDependencies,
};
let made: MathJsInstance | null = null;
function library(): MathJsInstance {
  if (made === null) {
    made = create(NEEDED as FactoryFunctionMap, {}) as MathJsInstance;
    // Money is what it is, whatever the currency: the condition says which.
    made.createUnit('money');
  }
  return made;
}

/** The name of a measure in a formula: `massPerWatt`. */
export const formulaName = (id: string): string =>
  id.replace(/-(\w)/g, (_dash, letter: string) => letter.toUpperCase());

const NAMES = new Map<string, MeasureAbout>(MEASURES.map((about) => [formulaName(about.id), about]));

/** What a formula may have, and what it may call. */
const OPERATORS = ['add', 'subtract', 'multiply', 'divide', 'pow', 'unaryMinus', 'unaryPlus'];
const FUNCTIONS = ['sqrt', 'abs', 'min', 'max', 'exp', 'log'];
const LONGEST = 200;
const NOTHING_ELSE = 'A formula has measures, numbers, + − × ÷ ^, parentheses and a few functions, and nothing else.';

export interface Formula {
  /** Ids of the measures in it, in the order they are named. */
  readonly measures: readonly string[];
  /** The unit of its result in SI: `W/EUR`; empty for none. */
  readonly unit: string;
  /** Its value for values of its measures, in their order; NaN where it has none. */
  readonly value: (values: readonly number[]) => number;
}

/** A unit as people write it: `kg/W`, `W·s`. */
const shownUnit = (unit: string): string =>
  unit
    .replaceAll('^2', '²')
    .replaceAll('^3', '³')
    .replaceAll('ohm', 'Ω')
    .replaceAll(/\s*\/\s*/g, '/')
    .replaceAll(/\(\s*|\s*\)/g, (sign) => sign.trim())
    .replaceAll(/\s+/g, '·');

function refusalOf(node: MathNode, found: string[]): string | null {
  switch (node.type) {
    case 'ConstantNode':
      return typeof (node as unknown as { value: unknown }).value === 'number'
        ? null
        : 'Only numbers stand in a formula.';
    case 'ParenthesisNode':
      break;
    case 'OperatorNode':
      if (!OPERATORS.includes((node as unknown as { fn: string }).fn)) return NOTHING_ELSE;
      break;
    case 'FunctionNode': {
      const { name } = (node as unknown as { fn: { name: string } }).fn;
      if (!FUNCTIONS.includes(name)) return `“${name}” is nothing a formula may call. It may: ${FUNCTIONS.join(', ')}.`;
      break;
    }
    case 'SymbolNode': {
      const { name } = node as unknown as { name: string };
      if (FUNCTIONS.includes(name)) return null;
      if (!NAMES.has(name)) return `“${name}” is no measure. Measures: ${[...NAMES.keys()].join(', ')}.`;
      if (!found.includes(name)) found.push(name);
      return null;
    }
    default:
      return NOTHING_ELSE;
  }
  let refusal: string | null = null;
  node.forEach((child) => {
    refusal ??= refusalOf(child, found);
  });
  return refusal;
}

/**
 * A formula over measures, or why it is none. Its units are checked: what is added has the same one.
 * @param text such as `watts / mass` or `fullLoadLoss / (watts + fullLoadLoss)`; values are SI
 * @example formulaOf('idle + mass') // { refusal: 'W and kg are not added to each other.' }
 */
export function formulaOf(text: string): Formula | { readonly refusal: string } {
  if (text.trim() === '') return { refusal: 'A formula is missing: write one over the measures.' };
  if (text.length > LONGEST) return { refusal: `A formula has at most ${LONGEST} signs.` };
  const math = library();
  let node: MathNode;
  try {
    node = math.parse(text.replaceAll('×', '*').replaceAll('÷', '/').replaceAll('−', '-'));
  } catch (error) {
    return { refusal: `It cannot be read: ${(error as Error).message.replace(/\.$/, '')}.` };
  }
  const names: string[] = [];
  const refusal = refusalOf(node, names);
  if (refusal !== null) return { refusal };
  if (names.length === 0) return { refusal: 'A formula names a measure at least.' };
  let unit: string;
  try {
    const units = Object.fromEntries(
      names.map((name) => {
        const { dimension } = NAMES.get(name) as MeasureAbout;
        return [name, dimension === '' ? 1 : math.unit(1, dimension)];
      }),
    );
    const result = node.evaluate(units) as number | Unit;
    unit = typeof result === 'number' ? '' : shownUnit((result as Unit).formatUnits());
  } catch {
    return { refusal: 'Its units do not fit: what is added, subtracted or compared has the same unit on both sides.' };
  }
  const compiled = node.compile();
  return {
    measures: names.map((name) => (NAMES.get(name) as MeasureAbout).id),
    unit,
    value: (values) => {
      try {
        const told: unknown = compiled.evaluate(Object.fromEntries(names.map((name, at) => [name, values[at]])));
        return typeof told === 'number' && Number.isFinite(told) ? told : Number.NaN;
      } catch {
        return Number.NaN;
      }
    },
  };
}

/** A part of a step for a derivative that is neither lost in rounding nor beyond the curve. */
const STEP = 1e-6;

/**
 * Value of a formula with its standard uncertainty by its slopes (JCGM 100:2008, 5.1.2), its measures taken as independent.
 * @returns null where it has no value; u null while one of its measures has none that is known
 */
export function formulaValue(
  formula: Formula,
  values: readonly { readonly value: number; readonly u: number | null }[],
): { readonly value: number; readonly u: number | null } | null {
  const at = values.map(({ value }) => value);
  const value = formula.value(at);
  if (!Number.isFinite(value)) return null;
  if (values.some(({ u }) => u === null)) return { value, u: null };
  const variance = values.reduce((sum, { u }, index) => {
    if (!u) return sum;
    const step = Math.max(Math.abs(at[index] ?? 0), u) * STEP;
    const moved = (by: number) => formula.value(at.map((one, other) => (other === index ? one + by : one)));
    const slope = (moved(step) - moved(-step)) / (2 * step);
    return sum + (slope * u) ** 2;
  }, 0);
  return { value, u: Number.isFinite(variance) ? Math.sqrt(variance) : null };
}
