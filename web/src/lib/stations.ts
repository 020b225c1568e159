// Places on the shell, ridge to footing.
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
