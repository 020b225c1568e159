// Addresses: /project/building/ZONE?element=…&at=…  A zone is station letter and step number: D2.

export interface Place {
  project: string;
  building: string;
  station: string;
  step: number;
  element: string;
  condition: string;
  /** A sheet of the zone besides its first one: study, compare, day, standard, materials. */
  view: string;
}

const NOWHERE: Place = {
  project: '',
  building: '',
  station: 'D',
  step: 2,
  element: '',
  condition: '0',
  view: '',
};

class Router {
  place = $state.raw<Place>(read());

  constructor() {
    addEventListener('popstate', () => (this.place = read()));
  }

  /** Go somewhere; what is not named stays. */
  go(change: Partial<Place>, replace = false): void {
    const next = { ...this.place, ...change };
    const moved = ['project', 'building', 'station'].some(
      (key) => next[key as keyof Place] !== this.place[key as keyof Place],
    );
    if (moved && change.element === undefined) next.element = '';
    if ((moved || change.step !== undefined) && change.view === undefined) next.view = '';
    this.place = next;
    history[replace ? 'replaceState' : 'pushState'](null, '', href(next));
  }
}

export function href(place: Place): string {
  if (!place.project) return '/';
  if (!place.building) return `/${place.project}`;
  const query = [
    place.element && `element=${encodeURIComponent(place.element)}`,
    place.view && `view=${encodeURIComponent(place.view)}`,
    place.condition !== '0' && `at=${encodeURIComponent(place.condition)}`,
  ].filter(Boolean);
  const zone = place.step === 1 ? '1' : `${place.station}${place.step}`;
  return `/${place.project}/${place.building}/${zone}${query.length ? `?${query.join('&')}` : ''}`;
}

function read(): Place {
  const [project = '', building = '', zone = 'D2'] = location.pathname
    .split('/')
    .filter(Boolean)
    .map(decodeURIComponent);
  const query = (name: string) => new RegExp(`[?&]${name}=([^&]*)`).exec(location.search)?.[1];
  const found = /^([A-H]?)(\d{1,2})$/i.exec(zone);
  return {
    ...NOWHERE,
    project,
    building,
    station: found?.[1]?.toUpperCase() || 'D',
    step: Number(found?.[2] ?? 2),
    element: decodeURIComponent(query('element') ?? ''),
    condition: decodeURIComponent(query('at') ?? '0'),
    view: decodeURIComponent(query('view') ?? ''),
  };
}

export const router = new Router();
