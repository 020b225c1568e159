// A solved field as bands of one colour and lines of one temperature. Drawing only: the temperatures are the server's.

export interface Field {
  xy: Float32Array;
  theta: Float32Array;
  triangles: Uint32Array;
}

export function decode(packed: { xy: string; theta: string; triangles: string }): Field {
  return {
    xy: new Float32Array(bytes(packed.xy)),
    theta: new Float32Array(bytes(packed.theta)),
    triangles: new Uint32Array(bytes(packed.triangles)),
  };
}

function bytes(text: string): ArrayBuffer {
  const raw = atob(text);
  const found = new Uint8Array(raw.length);
  for (let at = 0; at < raw.length; at += 1) found[at] = raw.charCodeAt(at);
  return found.buffer;
}

/** The range of a field, and the temperature at which paper sits. */
export interface Scale {
  low: number;
  paper: number;
  high: number;
}

// The tokens t-0 … t-9: slate to paper to clay.
const SLATE = ['#2f4e6d', '#546d86', '#7a8d9e', '#a2adb7', '#cbcfcf', '#f5f2e8'].map(channels);
const CLAY = ['#f5f2e8', '#e7d0c0', '#d8af99', '#c78f72', '#b56f4b'].map(channels);

function channels(hex: string): [number, number, number] {
  return [1, 3, 5].map((at) => parseInt(hex.slice(at, at + 2), 16)) as [number, number, number];
}

/** The colour of a temperature: slate below the paper's temperature, clay above. */
export function colour(theta: number, scale: Scale): string {
  const cold = theta < scale.paper;
  const stops = cold ? SLATE : CLAY;
  const [from, to] = cold ? [Math.min(scale.low, scale.paper), scale.paper] : [scale.paper, scale.high];
  const t = to - from > 1e-9 ? Math.min(Math.max((theta - from) / (to - from), 0), 1) : cold ? 1 : 0;
  const place = t * (stops.length - 1);
  const at = Math.min(Math.floor(place), stops.length - 2);
  const [a, b] = [stops[at], stops[at + 1]];
  if (!a || !b) return '#f5f2e8';
  const mixed = a.map((value, n) => Math.round(value + (place - at) * ((b[n] ?? 0) - value)));
  return `rgb(${mixed.join(' ')})`;
}

type Place = (x: number, y: number) => [number, number];

/** Paths of the bands between levels, in the drawing's own coordinates; the first below all levels. */
export function bands(field: Field, levels: readonly number[], place: Place): number[][][] {
  const found: number[][][] = Array.from({ length: levels.length + 1 }, () => []);
  const { xy, theta, triangles } = field;
  for (let at = 0; at < triangles.length; at += 3) {
    const corners = [0, 1, 2].map((n) => {
      const node = triangles[at + n] ?? 0;
      const [x, y] = place(xy[2 * node] ?? 0, xy[2 * node + 1] ?? 0);
      return [x, y, theta[node] ?? 0] as const;
    });
    const low = Math.min(...corners.map((one) => one[2]));
    const high = Math.max(...corners.map((one) => one[2]));
    let from = levels.findIndex((level) => level > low);
    if (from < 0) from = levels.length;
    let rest = corners as readonly (readonly [number, number, number])[];
    for (let band = from; band <= levels.length && rest.length >= 3; band += 1) {
      const level = levels[band];
      if (level === undefined || level >= high) {
        found[band]?.push(rest.flatMap(([x, y]) => [x, y]));
        break;
      }
      const [below, above] = cut(rest, level);
      if (below.length >= 3) found[band]?.push(below.flatMap(([x, y]) => [x, y]));
      rest = above;
    }
  }
  return found;
}

type Corner = readonly [number, number, number];

/** A convex polygon cut at a level: what lies below, what above. */
function cut(polygon: readonly Corner[], level: number): [Corner[], Corner[]] {
  const below: Corner[] = [];
  const above: Corner[] = [];
  polygon.forEach((a, at) => {
    const b = polygon[(at + 1) % polygon.length] ?? a;
    if (a[2] <= level) below.push(a);
    if (a[2] >= level) above.push(a);
    if ((a[2] < level && b[2] > level) || (a[2] > level && b[2] < level)) {
      const t = (level - a[2]) / (b[2] - a[2]);
      const cross: Corner = [a[0] + t * (b[0] - a[0]), a[1] + t * (b[1] - a[1]), level];
      below.push(cross);
      above.push(cross);
    }
  });
  return [below, above];
}

/** Where a number stands on a line, and which way it runs there, in degrees: upright for who reads it. */
export interface Label {
  x: number;
  y: number;
  turn: number;
}

/** How far to either side a line is looked at for its direction. [px] */
const ALONG = 14;

/** A line of one temperature, as the path of its pieces; and a place on it where a number can stand. */
export function isoLine(
  field: Field,
  level: number,
  place: Place,
  inside: (x: number, y: number) => boolean,
  wanted = 0,
): { path: string; label: Label | undefined } {
  const { xy, theta, triangles } = field;
  let path = '';
  let label: [number, number] | undefined;
  const middles: [number, number][] = [];
  let best = -Infinity;
  for (let at = 0; at < triangles.length; at += 3) {
    const ends: [number, number][] = [];
    for (let n = 0; n < 3; n += 1) {
      const p = triangles[at + n] ?? 0;
      const q = triangles[at + ((n + 1) % 3)] ?? 0;
      const a = theta[p] ?? 0;
      const b = theta[q] ?? 0;
      if (a < level === b < level) continue;
      const t = (level - a) / (b - a);
      const [px, py] = [xy[2 * p] ?? 0, xy[2 * p + 1] ?? 0];
      const [qx, qy] = [xy[2 * q] ?? 0, xy[2 * q + 1] ?? 0];
      ends.push(place(px + t * (qx - px), py + t * (qy - py)));
    }
    const [from, to] = ends;
    if (!from || !to) continue;
    path += `M${from[0].toFixed(1)} ${from[1].toFixed(1)}L${to[0].toFixed(1)} ${to[1].toFixed(1)}`;
    middles.push([(from[0] + to[0]) / 2, (from[1] + to[1]) / 2]);
    // The number stands where the line comes nearest to the wanted height.
    const near = -Math.abs(from[1] - wanted);
    if (near > best && inside(from[0], from[1])) {
      best = near;
      label = from;
    }
  }
  return { path, label: label && { x: label[0], y: label[1], turn: direction(middles, label) } };
}

/** The main direction of the points around a place, −105 to 75. [°] */
function direction(points: readonly [number, number][], at: [number, number]): number {
  let [xx, xy, yy] = [0, 0, 0];
  for (const [x, y] of points) {
    const [dx, dy] = [x - at[0], y - at[1]];
    if (dx * dx + dy * dy > ALONG * ALONG) continue;
    xx += dx * dx;
    xy += dx * dy;
    yy += dy * dy;
  }
  const turn = (Math.atan2(2 * xy, xx - yy) / 2) * (180 / Math.PI);
  return turn > 75 ? turn - 180 : turn; // what stands upright is read from below upwards
}
