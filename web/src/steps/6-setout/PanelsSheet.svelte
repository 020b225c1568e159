<!-- The key plan: every face small, with its marks; and all panels of the building in one list. -->
<script lang="ts">
  import type { FaceSetOut, SetOutSheet } from '@/api/client';
  import { counted } from '@/kit/reading';
  import type { Units } from '@/kit/units';
  import { href, router } from '@/project/router.svelte';
  import PanelList from './PanelList.svelte';

  interface Props {
    sheet: SetOutSheet;
    units: Units;
    nameOf: (element: string) => string;
  }
  let { sheet, units, nameOf }: Props = $props();
  const wide = (face: FaceSetOut) => Math.max(...face.outline.map((p) => p[0] ?? 0));
  const high = (face: FaceSetOut) => Math.max(...face.outline.map((p) => p[1] ?? 0));
  const perMetre = $derived(
    Math.min(16, 300 / Math.max(...sheet.faces.map(wide), 1), 110 / Math.max(...sheet.faces.map(high), 1)),
  );
  const path = (face: FaceSetOut, points: number[][]) =>
    `M${points.map((p) => `${((p[0] ?? 0) * perMetre).toFixed(1)} ${((high(face) - (p[1] ?? 0)) * perMetre).toFixed(1)}`).join('L')}Z`;
  const held = (face: FaceSetOut) => (face.sum ? counted(face.panels.length, 'panel') : 'cannot be set out');
  const place = $derived(router.place);
</script>

<div class="key" role="group" aria-label="Key plan: all faces at one scale">
  {#each sheet.faces as face (face.face)}
    <a
      href={href({ ...place, view: '', element: face.face })}
      aria-label="{face.mark} {held(face)}, {nameOf(face.element)}"
    >
      <svg
        width={wide(face) * perMetre + 2}
        height={high(face) * perMetre + 2}
        viewBox="-1 -1 {wide(face) * perMetre + 2} {high(face) * perMetre + 2}"
        aria-hidden="true"
      >
        <path class="face" class:none={!face.sum} d={path(face, face.outline)} />
        {#each face.panels.filter((one) => one.layer === 0) as one (one.mark)}
          <path class="panel" class:off={one.off_module} d={path(face, one.outline)} />
        {/each}
      </svg>
      <b>{face.mark}</b>
      <span>{held(face)}</span>
    </a>
  {/each}
</div>
<PanelList {sheet} {units} />

<style>
  .key {
    display: flex;
    flex-wrap: wrap;
    gap: 12px 22px;
    align-items: end;
    margin: 4px 0 12px;
  }
  .key a {
    display: grid;
    grid-template-columns: auto 1fr;
    gap: 0 6px;
    color: var(--ink);
    text-decoration: none;
    font-size: var(--fs-small);
  }
  .key svg {
    grid-column: 1 / -1;
  }
  .key b {
    font-family: var(--mono);
  }
  .key a:hover .face,
  .key a:focus-visible .face {
    stroke: var(--verdigris);
    stroke-width: 2;
  }
  .face {
    fill: var(--limestone);
    stroke: var(--ink);
  }
  .face.none {
    stroke: var(--oxide);
    stroke-dasharray: 4 3;
    fill: none;
  }
  .panel {
    fill: var(--sheet-bright);
    stroke: var(--ink-2);
    stroke-width: 0.7;
  }
  .panel.off {
    fill: var(--ochre-wash);
  }
</style>
