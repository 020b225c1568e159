<!-- Panels that are no rectangles: what a tape should read, what it reads, and which way to rack them. -->
<script lang="ts">
  import type { Building, Shop } from '@/api/client';
  import Button from '@/kit/Button.svelte';
  import Entry from '@/kit/Entry.svelte';
  import Which from '@/kit/Which.svelte';
  import type { Units } from '@/kit/units';
  import { asking } from '@/api/live.svelte';
  import { api, inBuilding, take } from '@/api/client';
  import { router } from '@/project/router.svelte';
  import { shop as store } from '@/project/shop.svelte';
  import { untrack } from 'svelte';

  interface Props {
    shop: Shop;
    building: Building;
    units: Units;
    why: (part: string) => string | undefined;
  }
  let { shop, building, units, why }: Props = $props();
  let chosen = $state('');
  const one = $derived(shop.laid.find((each) => each.panel === chosen) ?? shop.laid[0]);
  const LETTERS = 'abcdefgh';
  const tolerance = $derived(shop.choices.tolerance ?? 0.003);
  /** What is typed before all of it is there; whole readings are kept with the building. */
  let read = $state<Record<string, (number | null)[]>>({});
  const rows = $derived(
    one
      ? [
          ...one.sides.map((asked, n) => ({
            name: `${LETTERS[n]} ${LETTERS[(n + 1) % one.sides.length]}`,
            asked,
          })),
          ...one.diagonals.map(({ a, b, length }) => ({
            name: `${LETTERS[a]} ${LETTERS[b]}`,
            asked: length,
          })),
        ]
      : [],
  );
  const kept = $derived(shop.choices.readings?.find((each) => each.panel === one?.panel)?.read);
  const mine = $derived<(number | null)[]>(
    one ? (read[one.panel] ?? (rows.length === 6 ? kept : undefined) ?? rows.map(() => null)) : [],
  );
  const live = asking(
    () =>
      one && rows.length === 6 && mine.length === 6 && mine.every((value) => value !== null)
        ? { panel: one.panel, read: mine as number[], tolerance }
        : undefined,
    (body) =>
      take(
        api.POST('/api/v1/projects/{project_id}/buildings/{building_id}/shop/laydown', {
          ...inBuilding(router.place.project, router.place.building),
          body,
        }),
      ),
  );
  const whole = $derived(mine.length === 6 && mine.every((value) => value !== null));
  const found = $derived(whole && one ? live.of({ panel: one.panel, tolerance }) : undefined);
  const wide = $derived(
    one ? Math.max(...one.corners.map((p) => p[0] ?? 0)) - Math.min(...one.corners.map((p) => p[0] ?? 0)) : 1,
  );
  const high = $derived(
    one ? Math.max(...one.corners.map((p) => p[1] ?? 0)) - Math.min(...one.corners.map((p) => p[1] ?? 0)) : 1,
  );
  const per = $derived(Math.min(320 / wide, 380 / high));
  const at = (p: readonly number[]) => {
    const left = Math.min(...(one?.corners ?? []).map((q) => q[0] ?? 0));
    const top = Math.max(...(one?.corners ?? []).map((q) => q[1] ?? 0));
    return [24 + ((p[0] ?? 0) - left) * per, 24 + (top - (p[1] ?? 0)) * per] as const;
  };
  async function tape(): Promise<void> {
    if (!one) return;
    const panel = one.panel;
    const { read: readings } = await take(
      api.POST('/api/v1/projects/{project_id}/buildings/{building_id}/shop/tape', {
        ...inBuilding(router.place.project, router.place.building),
        body: { panel },
      }),
    );
    await keep(panel, readings);
  }
  async function keep(panel: string, readings: number[]): Promise<void> {
    read = { ...read, [panel]: readings };
    const others = (shop.choices.readings ?? []).filter((each) => each.panel !== panel);
    await store.save(
      building,
      { readings: [...others, { panel, read: readings }] },
      `${panel} read on the bed`,
    );
  }
  // What is typed stands until the answer says the same: one that was asked before may come in between.
  $effect(() => {
    const typed = one && read[one.panel];
    if (!typed || !kept || typed.some((value, n) => value !== kept[n])) return;
    const panel = one.panel;
    untrack(() => (read = Object.fromEntries(Object.entries(read).filter(([of]) => of !== panel))));
  });
  function type(n: number, value: number | null): void {
    if (!one) return;
    const next = mine.with(n, value);
    read = { ...read, [one.panel]: next };
    if (next.length === 6 && next.every((each) => each !== null)) void keep(one.panel, next as number[]);
  }
</script>

{#if !one}
  <p>Every panel of this building is a rectangle: check both diagonals against each other.</p>
{:else}
  <Which
    label="Panels that are no rectangles"
    options={shop.laid.map((each) => ({ id: each.panel, name: each.panel }))}
    chosen={one.panel}
    onchoose={(id) => (chosen = id)}
  />
  <div class="columns">
    <svg
      width={wide * per + 48}
      height={high * per + 48}
      role="img"
      aria-label="Laydown of {one.panel}, face up"
    >
      <path class="panel" d="M{one.corners.map((p) => at(p).join(' ')).join('L')}Z" />
      {#each one.diagonals as line (`${line.a} ${line.b}`)}
        {@const [a, b] = [at(one.corners[line.a] ?? [0, 0]), at(one.corners[line.b] ?? [0, 0])]}
        <path class="diagonal" class:off={found && !found.ok} d="M{a[0]} {a[1]}L{b[0]} {b[1]}" />
      {/each}
      {#each one.corners as p, n (n)}
        {@const [x, y] = at(p)}
        <circle cx={x} cy={y} r="9" />
        <text {x} y={y + 4} text-anchor="middle">{LETTERS[n]}</text>
      {/each}
    </svg>
    <div>
      <h2>{one.panel}, face up <span>sides first, then both diagonals</span></h2>
      <table>
        <thead><tr><th>from, to</th><th class="n">asked</th><th>read</th><th class="n">off</th></tr></thead>
        <tbody>
          {#each rows as row, n (row.name)}
            {@const now = mine[n] ?? null}
            <tr>
              <td class="mono">{row.name}</td>
              <td class="n">{units.length(row.asked)}</td>
              <td
                ><Entry
                  label="read {row.name}"
                  showLabel={false}
                  dimension="length"
                  value={now}
                  optional
                  onsave={(value) => type(n, value)}
                /></td
              >
              <td class="n" class:over={now !== null && Math.abs(now - row.asked) > tolerance}
                >{now === null
                  ? ''
                  : `${now > row.asked ? '+' : now < row.asked ? '−' : ''}${units.length(Math.abs(now - row.asked))}`}</td
              >
            </tr>
          {/each}
        </tbody>
      </table>
      <div class="controls">
        <Entry
          label="within"
          dimension="length"
          value={tolerance}
          refused={why('/shop/tolerance')}
          onsave={(value) =>
            value !== null && void store.save(building, { tolerance: value }, 'Tolerance on the bed')}
        />
        {#if rows.length === 6}<Button onclick={() => void tape()}>Read the simulated tape</Button>{/if}
      </div>
      {#if whole && live.problem}
        <p class="verdict decision" role="status" data-testid="laydown">
          <strong>{live.problem.items[0]?.detail ?? live.problem.sentence}.</strong>
          {live.problem.items[0]?.hint ?? ''}
        </p>
      {:else if found}
        <p class="verdict" class:decision={!found.ok} role="status" data-testid="laydown">
          {#if found.ok}
            <strong>Square.</strong> Every reading lies within {units.full(tolerance, 'length')}.
          {:else if found.misread}
            <strong>These readings are no quadrilateral.</strong> The last diagonal is {units.full(
              Math.abs(found.closure),
              'length',
            )} off what the other five leave: read it again.
          {:else}
            <strong>Not square yet.</strong>
            {found.rack > 0 ? `${LETTERS[0]} ${LETTERS[2]}` : `${LETTERS[1]} ${LETTERS[3]}`} is too long: push its
            two corners together until both diagonals differ from what is asked by no more than {units.full(
              tolerance,
              'length',
            )}; half of the difference is {units.full(Math.abs(found.rack), 'length')}.
          {/if}
        </p>
      {:else}
        <p class="soft">
          Type all readings; the verdict comes with the last one. Squareness by tape is no proof of flatness:
          lay it on a level bed.
        </p>
      {/if}
    </div>
  </div>
{/if}

<style>
  .columns {
    --columns: auto minmax(0, 1fr);
    margin-top: 8px;
  }
  svg {
    font: 11px var(--mono);
  }
  .panel {
    fill: var(--sheet-bright);
    stroke: var(--ink);
    stroke-width: 1.6;
  }
  .diagonal {
    stroke: var(--line);
    stroke-dasharray: 4 3;
  }
  .diagonal.off {
    stroke: var(--oxide);
    stroke-dasharray: none;
  }
  circle {
    fill: var(--sheet);
    stroke: var(--ink-2);
  }
  .mono {
    font: 12px var(--mono);
  }
</style>
