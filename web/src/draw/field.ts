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
const PAPER = channels('#f5f2e8');
const SLATE = ['#2f4e6d', '#546d86', '#7a8d9e', '#a2adb7', '#cbcfcf', '#f5f2e8'].map(channels);
const CLAY = ['#f5f2e8', '#e7d0c0', '#d8af99', '#c78f72', '#b56f4b'].map(channels);

function channels(hex: string): [number, number, number] {
  return [1, 3, 5].map((at) => parseInt(hex.slice(at, at + 2), 16)) as [number, number, number];
}

/** The colour of a temperature as red, green and blue: slate below the paper's temperature, clay above. */
export function colour(theta: number, scale: Scale): [number, number, number] {
  const cold = theta < scale.paper;
  const stops = cold ? SLATE : CLAY;
  const [from, to] = cold ? [Math.min(scale.low, scale.paper), scale.paper] : [scale.paper, scale.high];
  const t = to - from > 1e-9 ? Math.min(Math.max((theta - from) / (to - from), 0), 1) : cold ? 1 : 0;
  const place = t * (stops.length - 1);
  const at = Math.min(Math.floor(place), stops.length - 2);
  const [a, b] = [stops[at] ?? PAPER, stops[at + 1] ?? PAPER];
  const mixed = (n: 0 | 1 | 2) => Math.round(a[n] + (place - at) * (b[n] - a[n]));
  return [mixed(0), mixed(1), mixed(2)];
}

type Place = (x: number, y: number) => [number, number];

/** Of a pixel: how near a side its middle lies in both triangles that share it. */
const ON_BOTH = 1e-6;

/**
 * The field in bands of one colour, four bytes a pixel, row by row from the top; clear where there is no field.
 * `place` gives pixels. A pixel has the colour of the temperature in its middle.
 */
export function pixels(
  field: Field,
  steps: number,
  scale: Scale,
  [wide, high]: [number, number],
  place: Place,
): Uint8ClampedArray<ArrayBuffer> {
  const { xy, theta, triangles } = field;
  const found = new Uint8ClampedArray(4 * wide * high);
  const range = scale.high - scale.low || 1;
  const inks = Array.from({ length: steps }, (_, at) =>
    colour(scale.low + ((at + 0.5) / steps) * range, scale),
  );
  for (let at = 0; at < triangles.length; at += 3) {
    const [i, j, k] = [triangles[at] ?? 0, triangles[at + 1] ?? 0, triangles[at + 2] ?? 0];
    const [ax, ay] = place(xy[2 * i] ?? 0, xy[2 * i + 1] ?? 0);
    const [bx, by] = place(xy[2 * j] ?? 0, xy[2 * j + 1] ?? 0);
    const [cx, cy] = place(xy[2 * k] ?? 0, xy[2 * k + 1] ?? 0);
    const double = (bx - ax) * (cy - ay) - (cx - ax) * (by - ay);
    if (!double) continue;
    const [a, b, c] = [theta[i] ?? 0, theta[j] ?? 0, theta[k] ?? 0];
    const along = ((b - a) * (cy - ay) - (c - a) * (by - ay)) / double;
    const down = ((c - a) * (bx - ax) - (b - a) * (cx - ax)) / double;
    const first = Math.max(0, Math.ceil(Math.min(ay, by, cy) - 0.5 - ON_BOTH));
    const last = Math.min(high - 1, Math.floor(Math.max(ay, by, cy) - 0.5 + ON_BOTH));
    for (let row = first; row <= last; row += 1) {
      const y = row + 0.5;
      let [left, right] = [Infinity, -Infinity];
      const cross = (px: number, py: number, qx: number, qy: number) => {
        if (py === qy || Math.min(py, qy) > y + ON_BOTH || Math.max(py, qy) < y - ON_BOTH) return;
        const x = px + Math.min(Math.max((y - py) / (qy - py), 0), 1) * (qx - px);
        left = Math.min(left, x);
        right = Math.max(right, x);
      };
      cross(ax, ay, bx, by);
      cross(bx, by, cx, cy);
      cross(cx, cy, ax, ay);
      const from = Math.max(0, Math.ceil(left - 0.5 - ON_BOTH));
      const to = Math.min(wide - 1, Math.floor(right - 0.5 + ON_BOTH));
      for (let column = from; column <= to; column += 1) {
        const here = a + along * (column + 0.5 - ax) + down * (y - ay);
        const band = Math.floor((steps * (here - scale.low)) / range);
        const ink = inks[Math.min(Math.max(band, 0), steps - 1)] ?? PAPER;
        const byte = 4 * (row * wide + column);
        found[byte] = ink[0];
        found[byte + 1] = ink[1];
        found[byte + 2] = ink[2];
        found[byte + 3] = 255;
      }
    }
  }
  return found;
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
