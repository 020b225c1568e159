// What a run by the hour answers state by state, as drawings read it.
/** θ [°C], φ [0…1] and w [kg/m³] of a run's places, state by state. */
export interface States {
  key: string;
  places: number;
  at(state: number, place: number): { theta: number; phi: number; w: number };
}
