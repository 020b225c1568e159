// Numbers as people write them: 1 200, 1,200, 1,5, −4, 8*2.7, (3+4)/2, 5e-3. No unit is known here.

export type DecimalMark = 'point' | 'comma';
/** A number, or why what was typed is none. */
export type Found = { value: number } | { why: string };

const GROUPED = /^\d{1,3}(?:,\d{3})+$/;
const DOTTED = /^\d{1,3}(?:\.\d{3})+$/;

/**
 * One written number. A comma before three digits parts thousands where points part decimals, parts decimals where the
 * project says so, and is refused where it could be either.
 */
export function plainNumber(text: string, mark: DecimalMark | undefined): Found {
  const digits = text.replace(/[\u2009\u202f\u00a0' ]/g, '');
  const why = 'it can be read in two ways';
  let cleaned: string;
  if (digits.includes(',') && digits.includes('.'))
    cleaned =
      digits.lastIndexOf(',') > digits.lastIndexOf('.')
        ? digits.replaceAll('.', '').replace(',', '.')
        : digits.replaceAll(',', '');
  else if (GROUPED.test(digits)) {
    const decimal = digits.split(',').length === 2;
    if (mark === undefined && decimal)
      return { why: `${why}: write ${digits.replace(',', '')} or ${digits.replace(',', '.')}` };
    cleaned = mark === 'comma' && decimal ? digits.replace(',', '.') : digits.replaceAll(',', '');
  } else if (mark === 'comma' && DOTTED.test(digits)) {
    if (digits.split('.').length === 2)
      return { why: `${why}: write ${digits.replace('.', '')} or ${digits.replace('.', ',')}` };
    cleaned = digits.replaceAll('.', '');
  } else cleaned = digits.replace(',', '.');
  return /^(\d+\.?\d*|\.\d+)(e[+-]?\d+)?$/i.test(cleaned) && Number.isFinite(Number(cleaned))
    ? { value: Number(cleaned) }
    : { why: 'it is not a number' };
}

/** Signs as keyboards and other programs write them, made one. */
export function plainSigns(text: string): string {
  return text.trim().replace(/[−–]/g, '-').replace(/[×·]/g, '*').replaceAll('÷', '/');
}

/** What a sum, a product or a number comes to; `atom` reads what stands between the signs. */
export function evaluated(text: string, atom: (part: string) => Found): Found {
  const tokens =
    plainSigns(text).match(/\d\s*e\s*[+-]?\d+|[()+*/-]|[^()+*/-]+?(?=e[+-]?\d)|[^()+*/-]+/gi) ?? [];
  const joined: string[] = [];
  for (const token of tokens.map((one) => one.trim()).filter(Boolean)) {
    const last = joined.at(-1);
    if (last !== undefined && !/^[()+*/-]$/.test(last) && !/^[()+*/-]$/.test(token))
      joined[joined.length - 1] = last + token;
    else joined.push(token);
  }
  let at = 0;
  let wrong: string | undefined;
  const next = () => joined[at];
  function factor(): number {
    const token = next();
    at += 1;
    if (token === '-') return -factor();
    if (token === '+') return factor();
    if (token === '(') {
      const inner = sum();
      if (next() === ')') at += 1;
      else wrong ??= 'a bracket is not closed';
      return inner;
    }
    if (token === undefined || /^[)*/]$/.test(token)) {
      wrong ??= 'a number is missing';
      return NaN;
    }
    const found = atom(token);
    if ('why' in found) wrong ??= found.why;
    return 'value' in found ? found.value : NaN;
  }
  function product(): number {
    let value = factor();
    while (next() === '*' || next() === '/') {
      const times = next() === '*';
      at += 1;
      const other = factor();
      if (!times && other === 0) wrong ??= 'it divides by zero';
      value = times ? value * other : value / other;
    }
    return value;
  }
  function sum(): number {
    let value = product();
    while (next() === '+' || next() === '-') {
      const more = next() === '+';
      at += 1;
      value += more ? product() : -product();
    }
    return value;
  }
  const value = sum();
  if (at < joined.length) wrong ??= 'something follows after the end';
  if (wrong === undefined && !Number.isFinite(value)) wrong = 'it is not a number';
  return wrong === undefined ? { value } : { why: wrong };
}
