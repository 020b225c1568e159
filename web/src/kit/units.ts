// What people write and read, mirrored from the core and tested against the same vectors. SI inside.

import { evaluated, plainNumber } from './numbers';
import type { DecimalMark, Found } from './numbers';

export type UnitSystem = 'SI' | 'IP';
export interface Unit {
  symbol: string;
  per_si: number;
  decimals: number;
  offset: number;
}
export type Dimensions = Record<string, { si: Unit; ip: Unit }>;

const INCH = 0.0254;
const METRIC: Record<string, number> = { mm: 0.001, cm: 0.01, m: 1 };
const VULGAR: Record<string, string> = {
  '½': '1/2',
  '¼': '1/4',
  '¾': '3/4',
  '⅛': '1/8',
  '⅜': '3/8',
  '⅝': '5/8',
  '⅞': '7/8',
};
const FRACTION = String.raw`(?:\d+\s*/\s*\d+)`;
const DECIMAL = String.raw`(?:\d+(?:\.\d*)?|\.\d+)`;
const AMOUNT = `(?:${DECIMAL}(?:[ -]+${FRACTION})?|${FRACTION})`;
/** Thousands parted by spaces: 8 400. */
const GROUPED = /^\d{1,3}(?: \d{3})+(?!\s*[\d/])/;
const FEET_INCHES = new RegExp(`^(${AMOUNT})\\s*(?:ft|')\\s*-?\\s*(?:(${AMOUNT})\\s*(?:in|"|'')?)?$`);
const PLAIN = new RegExp(`^(${AMOUNT})\\s*(mm|cm|m|in|"|'')?$`);

/** What a length may look like, in the units of who writes it. */
export const EXAMPLES: Record<UnitSystem, string> = {
  SI: '184, 184mm, 7 1/4, 7.25in or 140+45',
  IP: '7 1/4, 7.25in, 7\' 10 3/8" or 5 1/2 + 1 3/4',
};

/** A length in metres from what a person wrote, or undefined if it cannot be read. */
export function parseLength(text: string, system: UnitSystem): number | undefined {
  let cleaned = text.trim().toLowerCase();
  for (const [from, to] of [
    ['′', "'"],
    ['″', '"'],
    ['’', "'"],
    ['”', '"'],
    ['“', '"'],
    ['–', '-'],
  ] as const)
    cleaned = cleaned.replaceAll(from, to);
  cleaned = cleaned.replace(/[\u2009\u202f]/g, ' ');
  for (const [glyph, written] of Object.entries(VULGAR)) cleaned = cleaned.replaceAll(glyph, ` ${written}`);
  const parts = cleaned.trim().split(/\s*(\+|(?<=[\dm"n])\s+-\s+)\s*/);
  let total = one(parts[0] ?? '', system);
  for (let at = 1; at < parts.length && total !== undefined; at += 2) {
    const term = one(parts[at + 1] ?? '', system);
    total = term === undefined ? undefined : total + (parts[at]?.includes('-') ? -term : term);
  }
  return total === undefined || !Number.isFinite(total) ? undefined : Number(total.toPrecision(14));
}

function one(written: string, system: UnitSystem): number | undefined {
  const term = written.replace(GROUPED, (found) => found.replaceAll(' ', ''));
  const both = FEET_INCHES.exec(term);
  if (both) return (amount(both[1] ?? '') * 12 + (both[2] ? amount(both[2]) : 0)) * INCH;
  const plain = PLAIN.exec(term);
  if (!plain?.[1]) return undefined;
  const unit = plain[2] ?? (plain[1].includes('/') || system === 'IP' ? 'in' : 'mm');
  return amount(plain[1]) * (METRIC[unit] ?? INCH);
}

function amount(text: string): number {
  return text
    .trim()
    .split(/(?<![/ ])[ -]+(?=\d+\s*\/)/)
    .map((part) => part.split('/').map(Number))
    .reduce((sum, [a = NaN, b = 1]) => sum + (b === 0 ? NaN : a / b), 0);
}

/** Feet, inches and a fraction, a sixteenth at the finest: 2.397125 m is 7' 10 3/8", 0.5 mm is 0.020". */
export function formatFeetInches(metres: number, denominator = 16): string {
  const size = Math.abs(metres) / INCH;
  if (size > 0 && size < 0.9 / denominator) return `${metres < 0 ? '−' : ''}${size.toFixed(3)}"`; // no fraction says it
  const parts = Math.round(size * denominator);
  const feet = Math.floor(parts / (12 * denominator));
  const rest = parts - feet * 12 * denominator;
  const inches = Math.floor(rest / denominator);
  let [a, b] = [rest - inches * denominator, denominator];
  while (a && a % 2 === 0) [a, b] = [a / 2, b / 2];
  const fraction = a ? `${a}/${b}` : '';
  const inch = [inches || !fraction ? String(inches) : '', fraction].filter(Boolean).join(' ');
  const sign = metres < 0 && parts ? '−' : '';
  return feet ? `${sign}${feet}' ${inch}"` : `${sign}${inch}"`;
}

/** Shows and reads quantities in one unit system. */
/** A value in a text that is kept, as what was changed from what to what: it is said in the units of who reads it. */
const MARK = /⟨([-+.e\d]+) (\w+)⟩/g;
export const valued = (value: number, dimension: string) => `⟨${value} ${dimension}⟩`;

export class Units {
  constructor(
    readonly system: UnitSystem,
    private readonly dimensions: Dimensions,
    /** How the project parts decimals; undefined where a comma could be either. */
    private readonly mark: DecimalMark | undefined = system === 'IP' ? 'point' : undefined,
  ) {}

  unit(dimension: string): Unit {
    const both = this.dimensions[dimension];
    if (!both) throw new Error(`no dimension ${dimension}`);
    return this.system === 'SI' ? both.si : both.ip;
  }

  symbol(dimension: string): string {
    return this.unit(dimension).symbol;
  }

  /** A value without its unit: true minus sign, thin space in thousands. */
  show(value: number, dimension: string, decimals?: number): string {
    const unit = this.unit(dimension);
    return group(value * unit.per_si + unit.offset, decimals ?? unit.decimals);
  }

  /** A value with its unit. */
  full(value: number, dimension: string, decimals?: number): string {
    if (dimension === 'length') return this.system === 'SI' ? `${this.length(value)} mm` : this.length(value);
    const symbol = this.symbol(dimension);
    return `${this.show(value, dimension, decimals)}${symbol ? ` ${symbol}` : ''}`;
  }

  /** A text that was kept with its values, in these units. */
  said(text: string): string {
    return text.replace(MARK, (_, value: string, dimension: string) => this.full(Number(value), dimension));
  }

  /** What should be nothing, as a power of ten with its unit. */
  tiny(value: number, dimension: string): string {
    const { per_si, symbol } = this.unit(dimension);
    return `${(value * per_si).toExponential(0).replaceAll('-', '−')} ${symbol}`;
  }

  /** A change, signed, with one more digit when it is smaller than the shown step. */
  delta(value: number, dimension: string): string {
    const unit = this.unit(dimension);
    const scaled = value * unit.per_si;
    if (Math.abs(scaled) < 1e-9) return '±0';
    const digits = Math.abs(scaled) < 0.5 * 10 ** -unit.decimals ? unit.decimals + 1 : unit.decimals;
    const text = group(scaled, digits);
    return scaled > 0 ? `+${text}` : text;
  }

  /** A length on a drawing: mm with at most one decimal, or feet and inches. */
  length(metres: number): string {
    if (this.system === 'IP') return formatFeetInches(metres);
    return group(metres * 1000, 1).replace(/\.0$/, '');
  }

  parseLength(text: string): number | undefined {
    return parseLength(text, this.system);
  }

  /** A typed number in SI, or undefined. */
  parse(text: string, dimension: string): number | undefined {
    const found = this.read(text, dimension);
    return 'value' in found ? found.value : undefined;
  }

  /** What was typed, in SI: a number or a sum, in the unit of the field or in one that is written behind. */
  read(text: string, dimension: string): Found {
    const turned = TURNED[dimension];
    const letter = turned ? /^([ur])\s*([-=:]?)\s*(.*)$/i.exec(text.trim()) : null;
    if (turned && letter) {
      const other = letter[1]?.toLowerCase() === turned.letter;
      const trade = letter[1]?.toLowerCase() === 'r' && letter[2] === '-'; // R-28 is said where inches are
      const units = trade ? new Units('IP', this.dimensions, this.mark) : this;
      const found = units.read(letter[3] ?? '', other ? turned.other : dimension);
      if (!other || !('value' in found)) return found;
      return found.value > 0 ? { value: 1 / found.value } : { why: 'it lies above 0' };
    }
    if (dimension === 'length') return this.readLength(text);
    const known = this.unitBehind(text, dimension);
    if (known === undefined && LENGTHS.has(dimension) && /[a-z'"′″’”¼½¾⅛⅜⅝⅞]/i.test(text))
      return this.readLength(text);
    const unit = known?.unit ?? this.unit(dimension);
    const found = evaluated(known?.rest ?? text, (part) => plainNumber(part, this.mark));
    return 'value' in found ? { value: (found.value - unit.offset) / unit.per_si } : found;
  }

  /** The unit that stands behind what was typed, if it is one of the dimension's. */
  private unitBehind(text: string, dimension: string): { unit: Unit; rest: string } | undefined {
    const both = this.dimensions[dimension];
    if (!both) return undefined;
    const written = simple(text);
    // The field's own unit first: where both systems say the same word, theirs is meant.
    for (const unit of this.system === 'SI' ? [both.si, both.ip] : [both.ip, both.si])
      for (const symbol of [simple(unit.symbol), simple(unit.symbol).replace('°', '')])
        if (symbol && written.endsWith(symbol) && /[\d.)]\s*$/.test(written.slice(0, -symbol.length)))
          return { unit, rest: written.slice(0, -symbol.length) };
    return undefined;
  }

  private readLength(text: string): Found {
    const value = this.parseLength(text);
    if (value !== undefined) return { value };
    if (!/[*×()÷]|,\d{3}/.test(text)) return { why: 'it is not a length' };
    // In a product one factor is a length, the others are numbers: a number alone is taken for one.
    let lengths = 0;
    const found = evaluated(text, (part) => {
      const plain = plainNumber(part, this.mark);
      if ('value' in plain) return plain;
      const length = this.parseLength(part);
      if (length === undefined)
        return 'why' in plain && plain.why.includes('two ways') ? plain : { why: 'it is not a length' };
      lengths += 1;
      return { value: length };
    });
    if (!('value' in found) || lengths > 0) return found;
    return { value: found.value * (this.system === 'IP' ? INCH : 0.001) };
  }
}

/** Lengths that are told in metres or feet, and may be typed as any length. */
const LENGTHS = new Set(['distance', 'height']);
/** Dimensions that are one another's inverse, each with the letter that is said before it. */
const TURNED: Record<string, { letter: string; other: string }> = {
  transmittance: { letter: 'r', other: 'resistance' },
  resistance: { letter: 'u', other: 'transmittance' },
};

function simple(text: string): string {
  return text
    .trim()
    .toLowerCase()
    .replaceAll('²', '2')
    .replaceAll('³', '3')
    .replace(/\s*(?=[/(·])|(?<=[/·])\s*/g, '');
}

function group(value: number, decimals: number): string {
  const [whole = '', fraction] = Math.abs(value).toFixed(decimals).split('.');
  const text = whole.replace(/\B(?=(\d{3})+$)/g, '\u2009') + (fraction ? `.${fraction}` : '');
  return value < 0 && /[1-9]/.test(text) ? `−${text}` : text;
}
