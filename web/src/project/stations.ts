// Places on the shell, ridge to footing, and what kind of build-up stands at each.
export const STATIONS: Record<string, string> = {
  A: 'Ridge',
  B: 'Roof',
  C: 'Eave',
  D: 'Wall',
  E: 'Opening',
  F: 'Floor line',
  G: 'Sill',
  H: 'Footing',
};

export const PLACES: Record<string, 'wall' | 'roof' | 'floor'> = {
  B: 'roof',
  D: 'wall',
  F: 'floor',
  H: 'floor',
};
