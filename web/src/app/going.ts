// Ways through the project by keys: up and down the mast, month by month, to the next open decision.
import type { OpenDecision, WayOut } from '@/api/client';
import { after, decisions } from '@/project/decisions.svelte';
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

let last = '';

/** To the next thing that is open in the building, in a round; what falls short comes before what is unknown. */
export function nextDecision(): void {
  const next = after(decisions.of(router.place.building), last);
  if (next) goTo(next);
}

/** Where a decision stands, or where one of its ways out leads. */
export function goTo(one: OpenDecision, way?: WayOut): void {
  last = one.key;
  const step = way?.step ?? one.step;
  const joint =
    one.id !== '' && !session.building(router.place.building)?.elements?.some(({ id }) => id === one.id);
  router.go({
    ...(one.station ? { station: one.station } : {}),
    step,
    element: joint && step !== 3 && step !== 6 ? '' : one.id,
    view: (way ? way.view : '') || (way ? '' : one.view),
  });
}

/** Write what one click settles. */
export function settle(one: OpenDecision, way: WayOut): void {
  const thing = way.thing;
  if (!thing) return;
  const zone = one.station ? `${one.station}${one.step}` : String(one.step);
  void session.saves.edit(
    (force) => [{ ...thing, read: force ?? session.saves.revision }],
    way.note.slice(0, 200),
    zone,
  );
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
