// Ways through the project by keys: up and down the mast, month by month, to the next open decision.
import { router } from '@/project/router.svelte';
import { session } from '@/project/session.svelte';
import { STATIONS } from '@/project/stations';

/** Stations at which the building has an element. */
const drawn = () => {
  const elements = session.building(router.place.building)?.elements ?? [];
  return Object.keys(STATIONS).filter((letter) => elements.some((one) => one.station === letter));
};

export function climb(by: number): void {
  const step = router.place.step >= 3 ? router.place.step : 2;
  const letters = step === 3 ? Object.keys(STATIONS) : drawn();
  const at = letters.indexOf(router.place.station);
  const next = letters[Math.min(Math.max(at + by, 0), letters.length - 1)];
  if (next) router.go({ station: next, step });
}

/** To the first build-up that misses what is asked of it. */
export function nextDecision(): void {
  const line = session.ledger.answer?.now.lines.find((one) => one.falls_short);
  if (line) router.go({ station: line.station, step: 2, element: line.element_id });
}

export function month(by: number): void {
  const order = ['winter', ...Array.from({ length: 12 }, (_, at) => String(at)), 'summer'];
  const at = order.indexOf(router.place.condition);
  router.go({ condition: order[(at + by + order.length) % order.length] ?? '0' }, true);
}

/** Units are a matter of who reads: nothing of the project changes. */
export function setUnits(system: 'SI' | 'IP'): void {
  session.readAs(system);
}
