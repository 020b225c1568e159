<!-- A wall without a build-up: the outline of what will be there, and the starts, drawn to one scale. -->
<script lang="ts">
  import type { ShellElement, System } from '$lib/api/client';
  import { slabs } from '$lib/draw/section';
  import { session } from '$lib/state/session.svelte';
  import type { Units } from '$lib/units';

  interface Props {
    element: ShellElement;
    building: string;
    units: Units;
    zone: string;
  }
  let { element, building, units, zone }: Props = $props();
  const systems = $derived(session.shelf?.systems ?? []);
  const SCALE = 560;
  const H = 150;
  const whole = (system: System) => system.preview.layers.reduce((sum, layer) => sum + layer.d, 0);
  const hatch = (key: string | undefined) => session.materials.get(key ?? '')?.hatch;
  function start(system: System): void {
    void session.startAssembly(building, element.id, system.key, `${element.name}: ${system.name}`, zone);
  }
</script>

<div class="head">
  <span class="zone">{zone}</span>
  <h1>{element.name}</h1>
</div>
<p class="conditions">
  No layers yet.
  {#if element.U}The shell counts it with U {units.full(element.U, 'transmittance')}, {element.origin ||
      'entered'}.{:else}It has no U, so the shell does not count it.{/if}
  Start from a system; every layer can be changed.
</p>
<ul>
  {#each systems as system (system.key)}
    <li>
      <button onclick={() => start(system)} aria-label="Start with {system.name}">
        <svg width={Math.max(whole(system) * SCALE + 8, 120)} height={H + 34} aria-hidden="true">
          {#each slabs(system.preview.layers, 4, SCALE) as slab (slab.layer.id)}
            {@const pattern = hatch(slab.layer.material)}
            <rect class="ground" x={slab.x0} y="4" width={slab.x1 - slab.x0} height={H} />
            {#if pattern}<rect
                x={slab.x0}
                y="4"
                width={slab.x1 - slab.x0}
                height={H}
                fill="url(#h-{pattern}{slab.x1 - slab.x0 < 20 ? '-s' : ''})"
              />{/if}
            <rect class="edge" x={slab.x0} y="4" width={slab.x1 - slab.x0} height={H} />
          {/each}
          <path
            class="dim"
            d="M4 {H + 18}h{whole(system) * SCALE}M0 {H + 22}l8 -8M{whole(system) * SCALE} {H + 22}l8 -8"
          />
          <text x={4 + (whole(system) * SCALE) / 2} y={H + 32} text-anchor="middle"
            >{units.full(whole(system), 'length')}</text
          >
        </svg>
        <b>{system.name}</b>
        <span>{system.anatomy}</span>
      </button>
    </li>
  {/each}
</ul>
<p class="note">
  Drawn to one scale, outside on the left. Structure, lifting and fire protection stay with local codes and
  licensed practice.
</p>

<style>
  .head {
    display: flex;
    align-items: center;
    gap: 10px;
  }
  .zone {
    border: 1.5px solid var(--verdigris);
    color: var(--verdigris);
    font: 600 14px var(--mono);
    width: 34px;
    height: 24px;
    display: grid;
    place-items: center;
  }
  h1 {
    font-size: var(--fs-title);
    font-weight: 600;
  }
  .conditions,
  .note {
    color: var(--ink-2);
    margin: 5px 0 16px;
  }
  ul {
    list-style: none;
    display: flex;
    flex-wrap: wrap;
    align-items: flex-end;
    gap: 24px;
    margin-bottom: 20px;
  }
  button {
    border: 1px dashed var(--line);
    background: none;
    padding: 12px;
    text-align: left;
    width: 272px;
    display: flex;
    flex-direction: column;
    gap: 3px;
  }
  button:hover {
    border: 1px solid var(--verdigris);
  }
  b {
    font-weight: 600;
    color: var(--verdigris);
  }
  span {
    font-size: var(--fs-small);
    color: var(--ink-2);
  }
  .ground {
    fill: var(--sheet-bright);
  }
  .edge {
    fill: none;
    stroke: var(--ink);
    stroke-width: 1;
  }
  .dim {
    stroke: var(--ink-2);
    stroke-width: 0.75;
    fill: none;
  }
  text {
    font: 400 var(--fs-small) var(--mono);
    fill: var(--ink);
  }
</style>
