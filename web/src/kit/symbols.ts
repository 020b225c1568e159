// Symbols and formulas of the working, as a person writes them.

const GREEK: Record<string, string> = {
  lambda: 'λ',
  theta: 'θ',
  phi: 'φ',
  mu: 'μ',
  rho: 'ρ',
  epsilon: 'ε',
  delta: 'δ',
  xi: 'ξ',
  kappa: 'κ',
  omega: 'ω',
  eta: 'η',
  pi: 'π',
  psi: 'ψ',
  chi: 'χ',
  Phi: 'Φ',
  Deltap: 'Δp',
};

const FUNCTIONS = new Set(['exp', 'sqrt', 'sin', 'cos', 'sinh', 'cosh', 'atan2']);

export interface Symbol {
  base: string;
  sub: string;
}

/** "lambda_4b" is λ with 4b below. */
export function symbol(name: string): Symbol {
  const [base = '', ...rest] = name.split('_');
  return { base: GREEK[base] ?? base, sub: rest.join(' ').replace(/([a-z])(\d)/g, '$1 $2') };
}

export type Token = { kind: 'symbol'; symbol: Symbol; name: string } | { kind: 'text'; text: string };

/** A formula as symbols and text between them. */
export function tokens(formula: string): Token[] {
  const found: Token[] = [];
  // A number is taken whole, so that the e of its exponent is no symbol.
  for (const part of formula.split(/(\d+(?:\.\d*)?(?:e[+-]?\d+)?|[A-Za-z_]\w*)/)) {
    if (/^[A-Za-z_]/.test(part) && !FUNCTIONS.has(part))
      found.push({ kind: 'symbol', symbol: symbol(part), name: part });
    else if (/^\d/.test(part)) found.push({ kind: 'text', text: shortNumber(Number(part)) });
    else if (part) found.push({ kind: 'text', text: signs(part) });
  }
  return found;
}

/** Plain text of a symbol, for copying. */
export function plainSymbol(name: string): string {
  const { base, sub } = symbol(name);
  return sub ? `${base}_${sub.replaceAll(' ', '_')}` : base;
}

/** A number as shown in working: six significant digits, no trailing zeros. */
export function shortNumber(value: number): string {
  if (value === 0) return '0';
  const size = Math.abs(value);
  const text = size >= 1e6 || size < 1e-4 ? value.toExponential(4) : String(Number(value.toPrecision(6)));
  return text.replace('-', '−');
}

function signs(text: string): string {
  return text.replaceAll(' ** ', '^').replaceAll('*', '·').replaceAll('-', '−');
}
