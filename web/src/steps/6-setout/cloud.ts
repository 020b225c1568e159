// A revision cloud: arcs round a rectangle, bulging outwards.
const ARC = 16;

/** Path of a cloud round a rectangle; as many equal arcs on a side as come near to one size. */
export function cloud(x: number, y: number, w: number, h: number): string {
  const across = Math.max(1, Math.round(w / ARC));
  const down = Math.max(1, Math.round(h / ARC));
  const arc = (dx: number, dy: number, n: number) =>
    `a${Math.hypot(dx, dy) / n / 1.7} ${Math.hypot(dx, dy) / n / 1.7} 0 0 1 ${dx / n} ${dy / n}`.repeat(n);
  return `M${x} ${y}${arc(w, 0, across)}${arc(0, h, down)}${arc(-w, 0, across)}${arc(0, -h, down)}Z`;
}
