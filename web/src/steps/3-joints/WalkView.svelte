<!-- Round the building: the four lines of control drawn round its section, and every break to click on. -->
<script lang="ts">
  import type { Building, Walk, WalkStop } from '@/api/client';
  import { api, inBuilding, take } from '@/api/client';
  import { asking } from '@/api/live.svelte';
  import { router } from '@/project/router.svelte';
  import { session } from '@/project/session.svelte';
  import { STATIONS } from '@/project/stations';
  import { LINES, worstOf } from '@/project/walk';
  import type { ControlLine, LineState } from '@/project/walk';
  import Button from '@/kit/Button.svelte';
  import Notice from '@/kit/Notice.svelte';
  import SheetHead from '@/kit/SheetHead.svelte';

  interface Props {
    building: Building;
  }
  let { building }: Props = $props();
  const place = $derived(router.place);
  const revision = $derived(session.open?.revision ?? 0);
  const live = asking(
    () => ({ project: place.project, building: building.id, revision }),
    ({ project, building }): Promise<Walk> =>
      take(
        api.GET('/api/v1/projects/{project_id}/buildings/{building_id}/walk', inBuilding(project, building)),
      ),
  );
  const walk = $derived(live.answer);
  const problem = $derived(live.problem);
  // At the foot the joint and the floor are pieces of their own.
  const at = (station: string, joint: boolean) =>
    (walk?.stops ?? []).filter(
      (stop) => stop.station === station && (station !== 'H' || (stop.kind === 'build-up') !== joint),
    );
  function worst(station: string, line: ControlLine, joint: boolean): LineState {
    // Where nothing of its own is drawn at a floor or sill, the wall goes past.
    if (!at(station, joint).length && 'EFG'.includes(station)) return worst('D', line, joint);
    return worstOf(at(station, joint), line);
  }
  // The section: from the ridge over the roof to the eave, down the wall, past opening and floor, to the foot.
  const W = 470;
  const H = 520;
  const pieces = $derived<{ station: string; from: number[]; to: number[]; joint: boolean }[]>([
    { station: 'A', from: [430, 60], to: [392, 78], joint: true },
    { station: 'B', from: [392, 78], to: [160, 190], joint: false },
    { station: 'C', from: [160, 190], to: [120, 236], joint: true },
    { station: 'D', from: [120, 236], to: [120, 282], joint: false },
    { station: 'F', from: [120, 282], to: [120, 308], joint: true },
    { station: 'E', from: [120, 308], to: [120, 372], joint: true },
    { station: 'G', from: [120, 372], to: [120, 400], joint: true },
    { station: 'D', from: [120, 400], to: [120, 426], joint: false },
    { station: 'H', from: [120, 426], to: [160, 456], joint: true },
    { station: 'H', from: [160, 456], to: [430, 456], joint: false },
  ]);
  const OFFSET: Record<ControlLine, number> = { rain: -18, air: 8, vapour: 17, heat: -5 };
  /** A piece moved inwards by an offset; inside is to the right of the way down. */
  function moved(from: number[], to: number[], by: number): string {
    const [ax = 0, ay = 0] = from;
    const [bx = 0, by2 = 0] = to;
    const length = Math.hypot(bx - ax, by2 - ay) || 1;
    const nx = -(by2 - ay) / length;
    const ny = (bx - ax) / length;
    return `M${ax - by * nx} ${ay - by * ny}L${bx - by * nx} ${by2 - by * ny}`;
  }
  function middle(from: number[], to: number[]): [number, number] {
    return [((from[0] ?? 0) + (to[0] ?? 0)) / 2, ((from[1] ?? 0) + (to[1] ?? 0)) / 2];
  }
  function open(stop: WalkStop): void {
    if (stop.kind === 'build-up') router.go({ station: stop.station, step: 2, element: stop.id });
    else if (stop.kind === 'joint') router.go({ station: stop.station, step: 3, element: stop.id, view: '' });
    else router.go({ station: stop.station, step: 3, view: 'add' });
  }
  const state = (stop: WalkStop, wanted: string) => LINES.filter((line) => stop.lines[line] === wanted);
  const listed = $derived(
    (walk?.stops ?? []).filter((stop) => state(stop, 'broken').length || state(stop, 'undecided').length),
  );
</script>

<SheetHead zone="3" title="Round the building" aside="rain, air, vapour and heat, from the ridge to the foot">
  <Button onclick={() => router.go({ view: '' })}>Back to the joints</Button>
</SheetHead>
{#if problem}<Notice title="No walk." text={problem.sentence} live />{/if}
{#if walk}
  <div class="columns" data-testid="walk" data-stale={live.stale}>
    <svg
      width={W}
      height={H}
      role="img"
      aria-label="Lines of control round {building.name}: {walk.breaks} broken, {walk.undecided} undecided"
    >
      <path class="body" d="M430 60L120 210V450H430" />
      <path class="ground" d="M0 440H104" />
      {#each LINES as line (line)}
        {#each pieces as piece, n (n)}
          {@const found = worst(piece.station, line, piece.joint)}
          {#if found !== 'none'}
            <path class="line {line} {found}" d={moved(piece.from, piece.to, OFFSET[line])} />
            {#if found === 'broken'}
              {@const [x, y] = middle(piece.from, piece.to)}
              <rect
                class="break"
                x={x - 5 - OFFSET[line] * (n < 3 ? 0.4 : -1)}
                y={y - 5}
                width="10"
                height="10"
              />
            {/if}
          {/if}
        {/each}
      {/each}
      {#each pieces as piece, n (n)}
        {@const [x, y] = middle(piece.from, piece.to)}
        {#if piece.joint || piece.station === 'B' || n === 3}
          <text x={n > 7 ? x - 6 : x - 44} y={n > 7 ? y + 34 : y + (n < 3 ? -16 : 4)}>{piece.station}</text>
        {/if}
      {/each}
      {#each LINES as line, n (line)}
        <path class="line {line} continuous" d="M{240} {300 + n * 22}h44" />
        <text class="name" x="292" y={304 + n * 22}>{line}</text>
      {/each}
      <text class="name" x="240" y="398">dashed: undecided; a square: broken</text>
      <text class="name" x="240" y="416">no line: nothing drawn at that station</text>
    </svg>
    <div class="list">
      <p class="sum">
        <b>{walk.breaks}</b>
        {walk.breaks === 1 ? 'line is broken' : 'lines are broken'}, <b>{walk.undecided}</b> undecided.
      </p>
      <ul>
        {#each listed as stop (`${stop.station}/${stop.kind}/${stop.id}`)}
          {@const broken = state(stop, 'broken')}
          <li class:broken={broken.length}>
            <button onclick={() => open(stop)}>
              <em>{stop.station}{stop.kind === 'build-up' ? 2 : 3}</em>
              <b>{stop.name}</b>
              <span
                >{#if broken.length}{broken.join(', ')} broken{/if}{broken.length &&
                state(stop, 'undecided').length
                  ? ', '
                  : ''}{#if state(stop, 'undecided').length}{state(stop, 'undecided').join(', ')} undecided{/if}</span
              >
            </button>
            {#each stop.why as why (why)}<p>
                {why[0]?.toUpperCase()}{why.slice(1)}{why.endsWith('.') ? '' : '.'}
              </p>{/each}
          </li>
        {/each}
      </ul>
      {#if !listed.length}<p>
          Every line is continuous at every station that is drawn ({Object.keys(STATIONS).length} stations).
        </p>{/if}
    </div>
  </div>
{:else if !problem}<p role="status">Walking round</p>{/if}

<style>
  .columns {
    --columns: auto minmax(0, 1fr);
  }
  .body {
    fill: none;
    stroke: var(--hair);
    stroke-width: 26;
  }
  .ground {
    stroke: var(--ink);
    stroke-width: 2.5;
  }
  .line {
    fill: none;
    stroke: var(--ink);
    stroke-width: 2;
  }
  .line.rain {
    stroke-width: 3;
  }
  .line.air {
    stroke: var(--verdigris);
    stroke-width: 2.5;
  }
  .line.vapour {
    stroke-dasharray: 1 4;
    stroke-linecap: round;
    stroke-width: 3;
  }
  .line.heat {
    stroke: var(--ink-2);
    stroke-width: 6;
    opacity: 0.45;
  }
  .line.undecided {
    stroke-dasharray: 7 6;
    opacity: 0.75;
  }
  .line.broken {
    stroke-dasharray: 2 12;
  }
  .break {
    fill: var(--oxide);
  }
  text {
    font: 600 13px var(--mono);
  }
  .name {
    font: 400 var(--fs-small) var(--sans);
    fill: var(--ink-2);
  }
  .list {
    border-left: 1px solid var(--hair);
    padding-left: 16px;
  }
  .sum {
    margin-bottom: 6px;
  }
  ul {
    list-style: none;
  }
  li {
    border-left: 4px solid var(--ochre-line);
    padding-left: 10px;
    margin-bottom: 8px;
    font-size: var(--fs-small);
  }
  li.broken {
    border-color: var(--oxide);
    background: var(--oxide-wash);
  }
  li button {
    border: 0;
    background: none;
    min-height: 24px;
    text-align: left;
    display: flex;
    gap: 8px;
    align-items: baseline;
    padding: 2px 0;
  }
  li button:hover b {
    color: var(--verdigris);
    text-decoration: underline;
  }
  em {
    font: 600 var(--fs-small) var(--mono);
    color: var(--verdigris);
  }
  li p {
    color: var(--ink-2);
  }
</style>
