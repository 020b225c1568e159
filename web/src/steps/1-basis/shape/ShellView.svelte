<!-- The building from one of four sides: faces by the hatch of their build-up; a click goes to the zone. -->
<script lang="ts">
  import { bearing } from '@/kit/bearing';
  import type { DrawnFace } from '@/api/client';
  import { counted } from '@/kit/reading';
  import type { Units } from '@/kit/units';

  interface Props {
    faces: readonly DrawnFace[];
    /** Of an element: the hatch of its build-up, its station and its name. */
    element: (id: string) => { hatch: string; station: string; name: string } | undefined;
    station: string;
    width: number;
    height: number;
    units: Units;
    onvisit: (element: string) => void;
  }
  let { faces, element, station, width, height, units, onvisit }: Props = $props();
  let quarter = $state(0);
  const SIDES = ['south-east', 'north-east', 'north-west', 'south-west'];
  type Three = readonly number[];
  const turn = $derived(((45 + 90 * quarter) * Math.PI) / 180);
  const RISE = (32 * Math.PI) / 180;
  const flat = (p: Three) => {
    const [x = 0, y = 0, z = 0] = p;
    const right = x * Math.cos(turn) + y * Math.sin(turn);
    const away = -x * Math.sin(turn) + y * Math.cos(turn);
    return [right, -(away * Math.sin(RISE) + z * Math.cos(RISE))] as const;
  };
  /** Of a normal or a place: how far it looks towards, or lies from, the eye. */
  const depth = (p: Three) => {
    const [x = 0, y = 0, z = 0] = p;
    const away = -x * Math.sin(turn) + y * Math.cos(turn);
    return away * Math.cos(RISE) - z * Math.sin(RISE);
  };
  const seen = $derived(
    faces
      .filter((face) => depth(face.normal) < -1e-3)
      .map((face) => ({
        face,
        far: face.corners.reduce((sum, p) => sum + depth(p), 0) / face.corners.length,
      }))
      .toSorted((a, b) => b.far - a.far)
      .map(({ face }) => face),
  );
  const fit = $derived.by(() => {
    const points = faces.flatMap((face) => face.corners.map(flat));
    const [xs, ys] = [points.map((p) => p[0]), points.map((p) => p[1])];
    const [left, top] = [Math.min(...xs), Math.min(...ys)];
    const scale = Math.min((width - 12) / (Math.max(...xs) - left), (height - 12) / (Math.max(...ys) - top));
    return { left, top, scale: Number.isFinite(scale) ? scale : 1 };
  });
  const at = (p: Three) => {
    const [x, y] = flat(p);
    return `${(6 + (x - fit.left) * fit.scale).toFixed(1)} ${(6 + (y - fit.top) * fit.scale).toFixed(1)}`;
  };
  const place = (face: DrawnFace, u: number, v: number) =>
    [0, 1, 2].map((n) => (face.origin[n] ?? 0) + u * (face.right[n] ?? 0) + v * (face.up[n] ?? 0));
  const words = (face: DrawnFace) =>
    [
      `${face.kind} ${face.kind === 'floor' ? '' : bearing(face.bearing)}`.trim(),
      units.full(face.gross, 'area'),
      face.openings.length ? counted(face.openings.length, 'opening') : '',
      element(face.element)?.name ?? (face.to === 'heated' ? 'to a heated neighbour' : 'not counted'),
    ]
      .filter(Boolean)
      .join(', ');
</script>

<figure>
  <div class="turn">
    <button onclick={() => (quarter = (quarter + 3) % 4)} aria-label="Turn left">↶</button>
    <span>from the {SIDES[quarter]}</span>
    <button onclick={() => (quarter = (quarter + 1) % 4)} aria-label="Turn right">↷</button>
  </div>
  <svg {width} {height} role="group" aria-label="The building from the {SIDES[quarter]}">
    {#each seen as face (face.id)}
      {@const of = element(face.element)}
      <g
        class="face"
        class:on={of?.station === station}
        class:none={!of}
        role="link"
        tabindex="-1"
        aria-label={words(face)}
        onclick={() => of && onvisit(face.element)}
        onkeydown={(event) => event.key === 'Enter' && of && onvisit(face.element)}
      >
        <path class="ground" d="M{face.corners.map(at).join('L')}Z" />
        {#if of}<path d="M{face.corners.map(at).join('L')}Z" fill="url(#h-{of.hatch}-s)" />{/if}
        <path class="edge" d="M{face.corners.map(at).join('L')}Z" />
        {#each face.openings as one (one.id)}
          <path
            class="opening"
            d="M{[
              [one.u, one.v],
              [one.u + one.w, one.v],
              [one.u + one.w, one.v + one.h],
              [one.u, one.v + one.h],
            ]
              .map(([u = 0, v = 0]) => at(place(face, u, v)))
              .join('L')}Z"
          />
        {/each}
      </g>
    {/each}
  </svg>
  <ul class="visually-hidden" aria-label="Faces of the building">
    {#each faces as face (face.id)}
      <li>
        {#if element(face.element)}<button onclick={() => onvisit(face.element)}>{words(face)}</button>
        {:else}{words(face)}{/if}
      </li>
    {/each}
  </ul>
</figure>

<style>
  figure {
    margin: 0;
  }
  .turn {
    display: flex;
    gap: 6px;
    align-items: center;
    font-size: var(--fs-small);
    color: var(--ink-3);
  }
  .turn button {
    border: 1px solid var(--line);
    border-radius: var(--radius);
    background: none;
    width: 24px;
    height: 24px;
  }
  svg {
    display: block;
  }
  .face {
    cursor: pointer;
  }
  .ground {
    fill: var(--sheet-bright);
  }
  .on .ground {
    fill: var(--verdigris-wash);
  }
  .edge {
    fill: none;
    stroke: var(--ink);
    stroke-width: 1.1;
    stroke-linejoin: round;
  }
  .none .edge {
    stroke-dasharray: 4 3;
  }
  .on .edge,
  .face:hover .edge {
    stroke: var(--verdigris);
    stroke-width: 1.8;
  }
  .opening {
    fill: var(--sheet-bright);
    stroke: var(--ink-2);
    stroke-width: 0.8;
  }
  .visually-hidden:focus-within {
    position: static;
    width: auto;
    height: auto;
    clip-path: none;
  }
</style>
