<!-- Lines over days from the first of a month, a limit, and a cursor that is dragged or moved by arrow keys. -->
<script lang="ts">
  import { apart, lineThrough, roundBetween, scaleLinear } from './chart';

  export interface Line {
    name: string;
    /** One value at each of `days`. */
    values: readonly number[];
    strong?: boolean;
    dashed?: boolean;
    /** Beyond what is accepted: drawn in the colour of a decision. */
    open?: boolean;
  }
  interface Props {
    title: string;
    /** Month in which the days begin, 1…12. */
    begins?: number;
    /** Day of each value, 0 for the first of that month. */
    days: readonly number[];
    lines: readonly Line[];
    limit?: number | undefined;
    limitText?: string;
    show: (value: number) => string;
    /** The day that is looked at. */
    cursor?: number | undefined;
    oncursor?: ((day: number) => void) | undefined;
    height?: number;
    /** Never less than this at the top. */
    least?: number;
  }
  let {
    title,
    begins = 10,
    days,
    lines,
    limit,
    limitText = '',
    show,
    cursor,
    oncursor,
    height = 150,
    least = 0,
  }: Props = $props();
  let width = $state(700);
  let dragging = false;
  const LEFT = 44;
  const RIGHT = 150;
  const TOP = 10;
  const FOOT = 22;
  const QUARTERS = [
    { name: 'Jan', day: 0 },
    { name: 'Apr', day: 90 },
    { name: 'Jul', day: 181 },
    { name: 'Oct', day: 273 },
  ];
  const MONTHS = [0, 31, 59, 90, 120, 151, 181, 212, 243, 273, 304, 334]; // the day of a year each begins on
  /** Quarters of a year that begins in that month. */
  const marks = $derived.by(() => {
    const from = MONTHS[begins - 1] ?? 0;
    return QUARTERS.map((one) => ({ name: one.name, day: (one.day - from + 365) % 365 })).toSorted(
      (a, b) => a.day - b.day,
    );
  });
  const last = $derived(Math.max(days.at(-1) ?? 1, 1));
  const top = $derived.by(() => {
    const most = Math.max(...lines.map((line) => Math.max(...line.values, 0)), 0);
    // A limit far above everything would flatten the lines: it is drawn where they come near it.
    return Math.max(most, least, limit !== undefined && limit < 2.2 * most ? limit : 0) * 1.08 || 1;
  });
  const H = $derived(height - TOP - FOOT);
  const x = $derived(scaleLinear([0, last], [LEFT, width - RIGHT]));
  const y = $derived(scaleLinear([0, top], [TOP + H, TOP]));
  const path = (values: readonly number[]) => lineThrough(values, (_, at) => x(days[at] ?? 0), y);
  const ticks = $derived(roundBetween(0, top, 4));
  const seasons = $derived(
    Array.from({ length: Math.ceil(last / 365) }, (_, year) =>
      marks.map((one, at) => ({ day: 365 * year + one.day, name: one.name, first: at === 0, year })),
    )
      .flat()
      .filter((one) => one.day < last),
  );
  /** Names at the right ends, pushed apart where they would meet. */
  const names = $derived.by(() => {
    const placed = apart(
      lines.map((line, at) => ({ at, line })),
      ({ line }) => y(line.values.at(-1) ?? 0),
      13,
    );
    const over = Math.max((placed.at(-1)?.y ?? 0) - (TOP + H), 0);
    return placed.map(({ item, y: place }) => ({ ...item, y: place - Math.min(over, place - TOP) }));
  });
  function at(event: PointerEvent): void {
    const box = (event.currentTarget as SVGElement).getBoundingClientRect();
    const day = x.invert(event.clientX - box.left);
    oncursor?.(Math.min(Math.max(day, 0), last));
  }
  function key(event: KeyboardEvent): void {
    const by = { ArrowRight: 1, ArrowLeft: -1, PageUp: 30, PageDown: -30 }[event.key];
    if (by === undefined || cursor === undefined) return;
    event.preventDefault();
    event.stopPropagation(); // these keys also lead from station to station
    oncursor?.(Math.min(Math.max(cursor + by * (event.shiftKey ? 7 : 1), 0), last));
  }
</script>

<div bind:clientWidth={width}>
  <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
  <svg
    {width}
    {height}
    role={oncursor ? 'slider' : 'img'}
    aria-label={title}
    aria-valuemin={oncursor ? 0 : undefined}
    aria-valuemax={oncursor ? Math.round(last) : undefined}
    aria-valuenow={oncursor ? Math.round(cursor ?? 0) : undefined}
    aria-valuetext={oncursor ? `day ${Math.round(cursor ?? 0)}` : undefined}
    tabindex={oncursor ? 0 : undefined}
    class:held={oncursor}
    onpointerdown={(event) => {
      if (!oncursor) return;
      dragging = true;
      event.currentTarget.setPointerCapture(event.pointerId);
      at(event);
    }}
    onpointermove={(event) => dragging && at(event)}
    onpointerup={() => (dragging = false)}
    onkeydown={key}
  >
    <rect class="ground" x={LEFT} y={TOP} width={Math.max(width - LEFT - RIGHT, 0)} height={H} />
    {#each ticks as tick, n (n)}
      <line class="grid" x1={LEFT} x2={width - RIGHT} y1={y(tick)} y2={y(tick)} />
      <text class="axis" x={LEFT - 6} y={y(tick) + 4} text-anchor="end">{show(tick)}</text>
    {/each}
    {#each seasons as one (one.day)}
      <line class="grid" class:year={one.first} x1={x(one.day)} x2={x(one.day)} y1={TOP} y2={TOP + H + 4} />
      {#if x(92) - x(0) > 34 || one.first}
        <text class="axis" x={x(one.day) + 2} y={TOP + H + 15}
          >{one.name}{one.first && last > 366 ? ` ${one.year + 1}` : ''}</text
        >
      {/if}
    {/each}
    {#if limit !== undefined && limit <= top}
      <line class="limit" x1={LEFT} x2={width - RIGHT} y1={y(limit)} y2={y(limit)} />
      <text class="limit-text" x={LEFT + 4} y={y(limit) - 4}>{limitText}</text>
    {/if}
    {#each lines as line, n (n)}
      <path
        class="line"
        class:strong={line.strong}
        class:open={line.open}
        class:dashed={line.dashed}
        d={path(line.values)}
      />
    {/each}
    {#each names as one (one.at)}
      <text
        class="name"
        class:strong={one.line.strong}
        class:open={one.line.open}
        x={width - RIGHT + 6}
        y={one.y + 4}>{one.line.name}</text
      >
    {/each}
    {#if cursor !== undefined}
      <line class="cursor" x1={x(cursor)} x2={x(cursor)} y1={TOP} y2={TOP + H} />
      <rect class="grip" x={x(cursor) - 4} y={TOP - 6} width="8" height="12" />
    {/if}
  </svg>
</div>

<style>
  svg {
    touch-action: none;
  }
  .held {
    cursor: ew-resize;
  }
  svg:focus-visible {
    outline: none;
    box-shadow: var(--focus);
  }
  .grid.year {
    stroke: var(--line);
  }
  .axis {
    font-size: var(--fs-cap);
  }
  .line {
    fill: none;
    stroke: var(--ink-2);
    stroke-width: 1;
  }
  .line.strong {
    stroke: var(--verdigris);
    stroke-width: 2;
  }
  .line.open {
    stroke: var(--oxide);
  }
  .line.dashed {
    stroke-dasharray: 4 3;
  }
  .name {
    font-size: var(--fs-cap);
    fill: var(--ink-2);
  }
  .name.strong {
    fill: var(--verdigris);
    font-weight: 600;
  }
  .name.open {
    fill: var(--oxide);
    font-weight: 600;
  }
  .limit {
    stroke: var(--ink);
    stroke-width: 1.25;
  }
  .limit-text {
    font-size: var(--fs-cap);
    font-weight: 600;
    fill: var(--ink);
  }
  .cursor {
    stroke: var(--verdigris);
    stroke-width: 1.5;
  }
  .grip {
    fill: var(--verdigris);
  }
</style>
