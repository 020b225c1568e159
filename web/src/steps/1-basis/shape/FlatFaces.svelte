<!-- Faces that no body has: dormers, bays, curved walls laid out flat; each with its outline and what it counts with. -->
<script lang="ts">
  import type { Building, FlatFace, ShapeSheet } from '@/api/client';
  import Button from '@/kit/Button.svelte';
  import Choice from '@/kit/Choice.svelte';
  import Entry from '@/kit/Entry.svelte';
  import Notice from '@/kit/Notice.svelte';
  import type { Units } from '@/kit/units';
  import { session } from '@/project/session.svelte';
  import { bounds } from './outline';

  interface Props {
    building: Building;
    sheet: ShapeSheet | undefined;
    units: Units;
  }
  let { building, sheet, units }: Props = $props();
  const faces = $derived(building.faces);
  const elements = $derived(
    (building.elements ?? [])
      .filter((one) => one.station !== 'E')
      .map((one) => ({ value: one.id, text: one.name })),
  );
  let refused = $state('');
  const shown = (value: number) => units.show(value, 'distance', 3).replaceAll(/[\s ]/g, '');
  const text = (face: FlatFace) =>
    face.outline.map(([u, v]) => `${shown(u ?? 0)},${shown(v ?? 0)}`).join(' ');
  /** Corners as typed; undefined where one cannot be read. */
  function corners(typed: string): [number, number][] | undefined {
    const found = typed
      .trim()
      .split(/\s+/)
      .map((pair) =>
        pair.split(',').map((one) => {
          const read = units.read(one, 'distance');
          return 'value' in read ? read.value : Number.NaN;
        }),
      );
    return found.every((pair) => pair.length === 2 && pair.every(Number.isFinite))
      ? (found as [number, number][])
      : undefined;
  }
  async function save(
    id: string,
    change: (now: FlatFace | undefined) => FlatFace | null,
    words: string,
  ): Promise<void> {
    refused = '';
    const good = await session.saveFace(building.id, id, change, words);
    if (!good) refused = session.saves.takeRefusal()?.sentence ?? '';
  }
  const set = (face: FlatFace, change: Partial<FlatFace>, words: string) =>
    void save(face.id, (now) => ({ ...(now ?? face), ...change }), words);
  function type(face: FlatFace, typed: string): void {
    const outline = corners(typed);
    if (outline) set(face, { outline }, `${face.name}: outline`);
    else refused = `“${typed}” is no list of corners: write pairs as 0,0 2.4,0 2.4,1.2`;
  }
  function add(): void {
    const face: FlatFace = {
      id: `f${crypto.randomUUID().replaceAll('-', '').slice(0, 10)}`,
      name: `Flat face ${faces.length + 1}`,
      zone: elements[0]?.value ?? '',
      outline: [
        [0, 0],
        [2.4, 0],
        [2.4, 1.2],
        [0, 1.2],
      ],
      azimuth: 180,
      pitch: 90,
      taken: false,
    };
    void save(face.id, () => face, `${face.name} added`);
  }
  /** The outline in a box of 56 by 34. */
  function drawing(face: FlatFace): string {
    const box = bounds(face.outline);
    const scale = Math.min(
      56 / Math.max(box.right - box.left, 0.01),
      34 / Math.max(box.high - box.low, 0.01),
    );
    return `M${face.outline.map(([u, v]) => `${(1 + ((u ?? 0) - box.left) * scale).toFixed(1)} ${(35 - ((v ?? 0) - box.low) * scale).toFixed(1)}`).join('L')}Z`;
  }
  const drawn = (face: FlatFace) => sheet?.flat.find((one) => one.id === face.id);
</script>

<h2>
  Flat faces <span
    >dormers, bays, curved walls laid out flat: they count by their outline, and enclose no volume</span
  >
</h2>
{#if refused}<Notice tone="decision" title="Nothing was changed." text={refused} live />{/if}
{#if faces.length}
  <div class="scroll">
    <table data-testid="flat-faces">
      <thead
        ><tr
          ><th><span class="visually-hidden">drawing</span></th><th>face</th><th
            >corners, {units.symbol('distance')}</th
          ><th>faces °</th><th>pitch °</th><th>its area</th><th>counted with</th><th
            ><span class="visually-hidden">remove</span></th
          ></tr
        ></thead
      >
      <tbody>
        {#each faces as face (face.id)}
          <tr>
            <td
              ><svg width="58" height="36" aria-hidden="true"
                ><path class:taken={face.taken} d={drawing(face)} /></svg
              ></td
            >
            <td
              ><input
                class="name"
                aria-label="Name of {face.name}"
                value={face.name}
                maxlength="80"
                onchange={(event) =>
                  event.currentTarget.value.trim() &&
                  set(face, { name: event.currentTarget.value.trim() }, `${face.name} renamed`)}
              /></td
            >
            <td
              ><input
                class="corners"
                aria-label="Corners of {face.name}"
                value={text(face)}
                onkeydown={(event) => event.key === 'Enter' && event.currentTarget.blur()}
                onchange={(event) => type(face, event.currentTarget.value)}
              /></td
            >
            <td
              ><Entry
                label="Bearing of {face.name}"
                showLabel={false}
                dimension="ratio"
                decimals={0}
                width="tiny"
                value={drawn(face)?.bearing}
                onsave={(value) =>
                  value !== null &&
                  set(face, { azimuth: value - (building.north ?? 0) }, `${face.name}: bearing`)}
              /></td
            >
            <td
              ><Entry
                label="Pitch of {face.name}"
                showLabel={false}
                dimension="ratio"
                decimals={0}
                width="tiny"
                value={face.pitch}
                onsave={(pitch) => pitch !== null && set(face, { pitch }, `${face.name}: pitch`)}
              /></td
            >
            <td class="n"
              >{drawn(face) ? units.full(drawn(face)?.area ?? 0, 'area', 2) : '–'}
              <Choice
                label="What {face.name} does"
                showLabel={false}
                value={face.taken ? 'taken' : 'added'}
                options={[
                  { value: 'added', text: 'added' },
                  { value: 'taken', text: 'taken away' },
                ]}
                onsave={(word) => set(face, { taken: word === 'taken' }, `${face.name}: ${word}`)}
              /></td
            >
            <td
              ><Choice
                label="What {face.name} is counted with"
                showLabel={false}
                value={face.zone}
                options={[{ value: '', text: 'nothing yet' }, ...elements]}
                onsave={(zone) => set(face, { zone }, `${face.name}: counted with another element`)}
              /></td
            >
            <td
              ><Button
                label="Remove {face.name}"
                onclick={() => void save(face.id, () => null, `${face.name} removed`)}>Remove</Button
              ></td
            >
          </tr>
        {/each}
      </tbody>
    </table>
  </div>
{/if}
<p><Button onclick={add}>Add a flat face</Button></p>

<style>
  .scroll {
    overflow-x: auto;
  }
  td {
    padding: 2px 10px 2px 0;
  }
  .name {
    width: 110px;
  }
  .corners {
    width: 190px;
    font-family: var(--mono);
  }
  .n {
    white-space: nowrap;
    font-family: var(--mono);
  }
  path {
    fill: var(--sheet-bright);
    stroke: var(--ink);
  }
  .taken {
    fill: none;
    stroke-dasharray: 4 3;
  }
</style>
