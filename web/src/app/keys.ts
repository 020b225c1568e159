// Keys of the whole window: zones are typed as a letter and a step, D2; single letters act.
import { router } from '@/project/router.svelte';
import { session } from '@/project/session.svelte';
import { climb, month, nextDecision, setUnits } from './going';
import { STEPS, stepBeside } from './steps';

/** Within this after a 1, another digit makes it 10 or 11 [ms]. */
const SECOND_DIGIT = 600;

export interface Handled {
  /** Letter keys act; without them every key stays with the browser and screen readers. */
  letters: () => boolean;
  onpalette: () => void;
  /** Close what lies open; false where nothing does. */
  onclose: () => boolean;
  onkeys: () => void;
  /** Open the working of what is focused. */
  onworking: () => void;
}

/** Fields in which nothing is typed. */
const STILL = 'select, [data-entry=still], [type=range], [type=checkbox], [type=radio]';

/** A handler of keydown; it remembers the letter of a zone that is being typed. */
export function keysOf(handled: Handled): (event: KeyboardEvent) => void {
  let zone = '';
  let timer: ReturnType<typeof setTimeout> | undefined;
  const single: Record<string, () => void> = {
    '[': () => router.go({ step: stepBeside(router.place.step, -1) }),
    ']': () => router.go({ step: stepBeside(router.place.step, 1) }),
    ...Object.fromEntries(STEPS.map(({ step }) => [String(step), () => router.go({ step })])),
    u: () => setUnits(session.units?.system === 'SI' ? 'IP' : 'SI'),
    n: nextDecision,
    ',': () => month(-1),
    '.': () => month(1),
    '?': handled.onkeys,
    w: handled.onworking,
  };

  function go(): void {
    clearTimeout(timer);
    const found = /^([a-h])(\d{1,2})$/.exec(zone);
    zone = '';
    if (!found?.[1]) return;
    const step = Number(found[2]);
    if (step === 1) router.go({ step: 1 });
    else if (STEPS.some((one) => one.step === step)) router.go({ station: found[1].toUpperCase(), step });
  }

  return (event) => {
    if (!session.open) return;
    const target = event.target instanceof HTMLElement ? event.target : undefined;
    const field = target?.matches('input, select, textarea') ?? false;
    const command = event.ctrlKey || event.metaKey;
    const letter = event.key.toLowerCase();
    if (command && letter === 'k') {
      event.preventDefault();
      return handled.onpalette();
    }
    if (event.key === 'Escape' && handled.onclose()) return;
    // Where nothing is typed, or not yet, undo is that of the project; while typing it is the browser's.
    if (field && !target?.matches(STILL)) return;
    if (command && (letter === 'z' || letter === 'y')) {
      event.preventDefault();
      void session.saves.step(letter === 'y' || event.shiftKey ? 'redo' : 'undo');
      return;
    }
    if (field || command || event.altKey) return;
    if (event.key === 'PageUp' || event.key === 'PageDown') {
      event.preventDefault();
      return climb(event.key === 'PageUp' ? -1 : 1);
    }
    if (!handled.letters()) return;
    if (zone && /^\d$/.test(event.key)) {
      zone += event.key;
      if (event.key === '1' && zone.length === 2) timer = setTimeout(go, SECOND_DIGIT);
      else go();
      return;
    }
    if (event.key === 'Enter' && zone) return go();
    zone = '';
    const act = single[event.key] ?? single[letter];
    if (act) act();
    else if (/^[a-h]$/.test(letter)) {
      zone = letter;
      clearTimeout(timer);
    }
  };
}
