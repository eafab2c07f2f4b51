import { UNITS, unitLabel, type Unit } from './unit';

/**
 * An exact decimal with its unit, as a gauge shows it: 20.35 mbar is {digits: 2035, scale: 2, unit: 'mbar'}.
 * The scale is kept, so 20.30 stays distinguishable from 20.3. Never a float: 10.1 - 9.9 >= 0.2 is false in floats.
 */
export interface Exact {
  readonly digits: number;
  readonly scale: number;
  readonly unit: Unit;
}

/** Why a typed figure was not accepted; `text` says what to do. */
export class FigureError extends Error {
  constructor(
    readonly code:
      | 'empty'
      | 'not-a-number'
      | 'comma'
      | 'unit'
      | 'decimals'
      | 'step'
      | 'range'
      | 'below-range'
      | 'too-long',
    text: string,
  ) {
    super(text);
    this.name = 'FigureError';
  }
}

/** Builds an exact decimal. @throws RangeError when digits or scale are not safe integers. */
export function exact(digits: number, scale: number, unit: Unit): Exact {
  if (!Number.isSafeInteger(digits) || !Number.isInteger(scale) || scale < 0 || scale > 9)
    throw new RangeError(`Not an exact decimal: ${digits}e-${scale}`);
  return { digits: digits === 0 ? 0 : digits, scale, unit };
}

/**
 * A typed number with a point for its decimals. A comma is taken where it can only be a decimal sign: alone, and not before the three
 * digits of a thousand ("1,234" could be either; "0,250" cannot).
 * @throws FigureError where it could be read in two ways
 */
export function pointed(text: string): string {
  // what is no number is told so by whoever reads it
  if (!/^[\d,.+\-−\s]*,[\d,.\s]*$/.test(text)) return text;
  const [whole = '', fraction = '', ...rest] = text.split(',');
  const plain = text.replaceAll(',', '');
  if (rest.length || text.includes('.'))
    throw new FigureError(
      'comma',
      `Leave out what separates thousands, and type one decimal sign: ${plain}.`,
    );
  const digits = whole.replace(/^[+\-−]/, '');
  if (fraction.length === 3 && /^[1-9]\d{0,2}$/.test(digits))
    throw new FigureError(
      'comma',
      `${text} can be read as ${whole}.${fraction} or as ${plain}. Type one of the two.`,
    );
  return `${whole}.${fraction}`;
}

/**
 * Reads a typed figure. Accepts only an optional sign, digits and one decimal sign; everything else is refused
 * with a message that says what to type. The one parser for figures: forms, packs, files and the wire use it.
 * @param text what was typed, e.g. "20.35"
 * @param unit the unit the figure must be in (fixed by the gauge)
 * @throws FigureError
 */
export function parseFigure(text: string, unit: Unit): Exact {
  const trimmed = text.trim();
  if (trimmed === '')
    throw new FigureError('empty', `Type the figure the gauge shows, in ${unitLabel(unit)}.`);
  const body = pointed(trimmed);
  if (/[a-zµ°"²³]/i.test(body))
    throw new FigureError(
      'unit',
      `Type the number only; the gauge's unit (${unitLabel(unit)}) is already set.`,
    );
  if (!/^[+\-−]?\d+(\.\d+)?$/.test(body))
    throw new FigureError(
      'not-a-number',
      `"${trimmed}" is not a figure. Type digits and at most one point, like 20.35.`,
    );
  const negative = /^[-−]/.test(body);
  const unsigned = body.replace(/^[+\-−]/, '');
  const [whole = '', fraction = ''] = unsigned.split('.');
  if (whole.length > 9 || fraction.length > 6)
    throw new FigureError('too-long', `"${trimmed}" has too many digits to be a gauge reading.`);
  const digits = Number(whole + fraction);
  return exact(negative ? -digits : digits, fraction.length, unit);
}

/** Reads a figure written with its unit, as rule packs do: "0.25 mbar". @throws FigureError */
export function parseWithUnit(text: string): Exact {
  const [figure = '', unit, ...rest] = text.trim().split(/\s+/) as [string?, Unit?, ...string[]];
  if (!unit || !Object.hasOwn(UNITS, unit) || rest.length)
    throw new FigureError('unit', `"${text}" must be a number and a known unit, like 0.25 mbar.`);
  return parseFigure(figure, unit);
}

function aligned(a: Exact, b: Exact): [number, number, number] {
  if (a.unit !== b.unit)
    throw new RangeError(`Cannot compare ${a.unit} with ${b.unit}: convert in the gauge's unit first.`);
  const scale = Math.max(a.scale, b.scale);
  return [a.digits * 10 ** (scale - a.scale), b.digits * 10 ** (scale - b.scale), scale];
}

/** -1, 0 or 1 as a is below, equal to or above b. Exact. @throws RangeError when units differ. */
export function compare(a: Exact, b: Exact): -1 | 0 | 1 {
  const [x, y] = aligned(a, b);
  return x < y ? -1 : x > y ? 1 : 0;
}
/** a - b, exact, at the finer of the two scales. */
export function subtract(a: Exact, b: Exact): Exact {
  const [x, y, scale] = aligned(a, b);
  return exact(x - y, scale, a.unit);
}
/** a + b, exact, at the finer of the two scales. */
export function add(a: Exact, b: Exact): Exact {
  const [x, y, scale] = aligned(a, b);
  return exact(x + y, scale, a.unit);
}
/** A decimal constant as digits and scale, exactly as written: 249.08891 is 24908891 over 10^5. */
function decimalOf(value: number): { digits: bigint; scale: number } {
  const [whole = '0', fraction = ''] = value.toString().split('.');
  if (!/^\d+$/.test(whole + fraction)) throw new RangeError(`${value} is not a plain decimal constant.`);
  return { digits: BigInt(whole + fraction), scale: fraction.length };
}

/** Rounds numerator/denominator (denominator > 0) towards minus or plus infinity. */
function divide(numerator: bigint, denominator: bigint, round: 'down' | 'up'): bigint {
  const quotient = numerator / denominator;
  const exactly = quotient * denominator === numerator;
  if (exactly) return quotient;
  const below = numerator < 0n ? quotient - 1n : quotient;
  return round === 'down' ? below : below + 1n;
}

/**
 * A figure in another unit of its dimension, rounded in a stated direction to a number of decimals. Exact integer
 * arithmetic on the units' own constants, so a limit of 3 psi on an mbar gauge is never a float.
 * @param round towards which side what cannot be written exactly is rounded: choose the stricter
 * @throws RangeError when the dimensions differ or the constant has no plain decimal (flows)
 */
export function inUnit(a: Exact, unit: Unit, decimals: number, round: 'down' | 'up'): Exact {
  if (a.unit === unit) return a;
  if (UNITS[a.unit].dimension !== UNITS[unit].dimension)
    throw new RangeError(`${a.unit} and ${unit} measure different things.`);
  const from = decimalOf(UNITS[a.unit].si);
  const to = decimalOf(UNITS[unit].si);
  const numerator = BigInt(a.digits) * from.digits * 10n ** BigInt(to.scale + decimals);
  const denominator = to.digits * 10n ** BigInt(a.scale + from.scale);
  return exact(Number(divide(numerator, denominator, round)), decimals, unit);
}

/** a times numerator/denominator, rounded in a stated direction to a number of decimals. Exact. */
export function scaled(
  a: Exact,
  numerator: number,
  denominator: number,
  decimals: number,
  round: 'down' | 'up',
): Exact {
  const top = BigInt(a.digits) * BigInt(numerator) * 10n ** BigInt(decimals);
  const bottom = BigInt(denominator) * 10n ** BigInt(a.scale);
  return exact(Number(divide(top, bottom, round)), decimals, a.unit);
}

/** The same figure without trailing zeros, down to so many decimals. */
export function trimmed(a: Exact, least = 1): Exact {
  let { digits, scale } = a;
  while (scale > least && digits % 10 === 0) {
    digits /= 10;
    scale -= 1;
  }
  return exact(digits, scale, a.unit);
}
export const magnitude = (a: Exact): Exact => exact(Math.abs(a.digits), a.scale, a.unit);
/** The floating-point value, for physics and drawing only. */
export const toNumber = (a: Exact): number => a.digits / 10 ** a.scale;
/** Whether a is a whole number of steps (a gauge shows nothing between its steps). */
export function isStep(a: Exact, step: Exact): boolean {
  const [x, y] = aligned(a, step);
  return y !== 0 && x % y === 0;
}

/** The figure as printed, with a true minus and the gauge's decimals, without unit. */
export function formatExact(a: Exact): string {
  const sign = a.digits < 0 ? '−' : '';
  const text = String(Math.abs(a.digits)).padStart(a.scale + 1, '0');
  return sign + (a.scale === 0 ? text : `${text.slice(0, -a.scale)}.${text.slice(-a.scale)}`);
}
/** The figure with its unit: "20.35 mbar". */
export const showExact = (a: Exact): string => `${formatExact(a)} ${unitLabel(a.unit)}`.trim();
/** A signed change: "+0.10 mbar", "−0.25 mbar", "0.00 mbar". */
export const showChange = (a: Exact): string => (a.digits > 0 ? '+' : '') + showExact(a);

/** When a limit counts as broken: at equality (>=) or only above it (>). Every limit states which. */
export type Broken = 'at' | 'above';
/** A limit with its comparator and where it comes from. */
export interface Limit {
  readonly value: Exact;
  readonly broken: Broken;
  readonly source: string;
}
/** Whether an amount (not negative) breaks the limit. Exact integer comparison. */
export function breaks(amount: Exact, limit: Limit): boolean {
  const order = compare(amount, limit.value);
  return limit.broken === 'at' ? order >= 0 : order > 0;
}
/** "0.25 mbar or more" / "more than 4.00 mbar": the breach in words. */
export const breachWords = (limit: Limit): string =>
  limit.broken === 'at' ? `${showExact(limit.value)} or more` : `more than ${showExact(limit.value)}`;
/** The figure as it is typed and read back by parseWithUnit: "20.35 mbar", with a plain minus. */
export const showUnit = (a: Exact): string => `${formatExact(a).replace('−', '-')} ${a.unit}`;
