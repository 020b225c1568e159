// Bearings as people say them.
const COMPASS = ['north', 'north-east', 'east', 'south-east', 'south', 'south-west', 'west', 'north-west'];

/** The nearest of eight directions. */
export const bearing = (degrees: number): string => COMPASS[Math.round(degrees / 45) % 8] ?? '';
