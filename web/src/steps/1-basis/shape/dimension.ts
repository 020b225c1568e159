// A dimension as a designer types it: 8 400, 8.4m, 28' 6 1/2", 7 modules, 7 1/4 modules, +300.
import { evaluated, plainNumber } from '@/kit/numbers';
import type { Found } from '@/kit/numbers';
import type { Units } from '@/kit/units';

/** What was typed, in metres; what begins with a sign is put to what there is. */
export function readDimension(text: string, units: Units, now: number, module: number | undefined): Found {
  const plain = text.trim();
  const relative = /^([+−-])\s*(.+)$/.exec(plain);
  if (relative) {
    const by = readDimension(relative[2] ?? '', units, 0, module);
    if (!('value' in by)) return by;
    return positive(now + (relative[1] === '+' ? by.value : -by.value));
  }
  const counted = /^(.+?)\s*mod(?:ule)?s?\.?$/i.exec(plain);
  if (counted) {
    if (!module) return { why: 'this wall has no module' };
    const mixed = /^(\d+)\s+(\d+)\s*\/\s*(\d+)$/.exec(counted[1] ?? '');
    const found = mixed
      ? { value: Number(mixed[1]) + Number(mixed[2]) / Number(mixed[3]) }
      : evaluated(counted[1] ?? '', (part) => plainNumber(part, 'point'));
    return 'value' in found ? positive(found.value * module) : found;
  }
  const found = units.read(plain, 'length');
  return 'value' in found ? positive(found.value) : found;
}

const positive = (value: number): Found =>
  value >= 0 && Number.isFinite(value) ? { value } : { why: 'it lies above 0' };
