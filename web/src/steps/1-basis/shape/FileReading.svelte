<!-- What a drawing or model of somebody else holds: taken, left out, each with its entity; nothing changes until taken. -->
<script lang="ts">
  import { api, asProblem, take } from '@/api/client';
  import type { Body, BodyOpening, Building, DrawnSide, FileReading, Problem } from '@/api/client';
  import Button from '@/kit/Button.svelte';
  import Choice from '@/kit/Choice.svelte';
  import { base64 } from '@/kit/file';
  import Notice from '@/kit/Notice.svelte';
  import { counted } from '@/kit/reading';
  import type { Units } from '@/kit/units';
  import { newBody } from './footprint';
  import { router } from '@/project/router.svelte';

  interface Props {
    building: Building;
    sides: readonly DrawnSide[];
    units: Units;
    /** What would be taken, drawn as ghosts on the walls. */
    onghosts: (openings: BodyOpening[]) => void;
    /** A building without a shape: the body of the file stands as a draft, with its openings. */
    ondraft: (body: Body, openings: BodyOpening[], north: number, words: string) => void;
    ontake: (openings: BodyOpening[], words: string) => Promise<boolean>;
  }
  let { building, sides, units, onghosts, ondraft, ontake }: Props = $props();
  type Unit = 'mm' | 'cm' | 'm' | 'in' | 'ft';
  type Holds = 'walls' | 'openings' | 'nothing';
  const UNITS: Unit[] = ['mm', 'cm', 'm', 'in', 'ft'];
  let input = $state<HTMLInputElement>();
  let file = $state.raw<{ name: string; content: string }>();
  let reading = $state.raw<FileReading>();
  let problem = $state.raw<Problem>();
  let busy = $state(false);
  /** Which side each wall of the file is, by its place in the list. */
  let chosen = $state.raw<string[]>([]);
  const asked = $derived(problem?.body.errors?.find((one) => one.code === 'unit_unknown'));

  async function open(picked: File | undefined): Promise<void> {
    if (!picked) return;
    try {
      file = { name: picked.name, content: await base64(picked) };
      layers = {};
      await read();
    } catch (error) {
      problem = asProblem(error);
    } finally {
      if (input) input.value = '';
    }
  }
  /** What somebody has said that layers of the drawing hold. */
  let layers = $state.raw<Record<string, Holds>>({});
  let said: Unit | undefined;
  async function read(unit?: Unit): Promise<void> {
    if (!file) return;
    said = unit;
    busy = true;
    problem = undefined;
    reading = undefined;
    try {
      reading = await take(
        api.POST('/api/v1/projects/{project_id}/buildings/{building_id}/reading', {
          params: { path: { project_id: router.place.project, building_id: building.id } },
          body: { name: file.name.slice(0, 200), content: file.content, unit: unit ?? null, layers },
        }),
      );
      chosen = reading.walls.map((one) => one.side);
    } catch (error) {
      problem = asProblem(error);
    } finally {
      busy = false;
      if (reading?.body)
        ondraft(reading.body, taken, reading.north, `Shape read from ${file.name}`.slice(0, 200));
      else onghosts(taken);
    }
  }
  function drop(): void {
    reading = undefined;
    problem = undefined;
    file = undefined;
    onghosts([]);
  }
  const zoneOf = (kind: string) =>
    building.openings.find((one) => one.kind === kind)?.zone ??
    building.elements?.find((one) => one.station === 'E')?.id ??
    '';
  /** The openings as the shape would have them: the box round each, at its place in its wall. */
  const taken = $derived(
    (reading?.walls ?? []).flatMap((wall, n) => {
      const [body = '', side = ''] = (chosen[n] ?? '').split('/');
      if (!body) return [];
      return wall.openings.map((one, k): BodyOpening => ({
        id: `r${one.entity.replaceAll(/[^A-Za-z0-9_-]/g, '-')}`.slice(0, 60),
        mark: (one.name || `${wall.name || `wall ${n + 1}`} ${k + 1}`).slice(0, 40),
        body,
        side: Number(side),
        u: one.u,
        sill: one.sill,
        w: one.w,
        h: one.h,
        kind: one.kind,
        zone: zoneOf(one.kind),
        unit: '',
        source: file?.name.slice(0, 200) ?? '',
      }));
    }),
  );
  /** Those that stand already as they are read, that are new, and that differ from what stands. */
  const compared = $derived(
    taken.map((one) => {
      const known = building.openings.find((each) => each.id === one.id);
      const same =
        known &&
        (['u', 'sill', 'w', 'h'] as const).every((key) => Math.abs(known[key] - one[key]) < 1e-3) &&
        known.side === one.side;
      return { one, known, state: !known ? 'new' : same ? 'as it stands' : 'differs from what stands' };
    }),
  );
  const fresh = $derived(compared.filter((each) => each.state === 'new').map((each) => each.one));
  function choose(n: number, side: string): void {
    chosen = chosen.map((one, at) => (at === n ? side : one));
    onghosts(taken);
  }
  async function accept(): Promise<void> {
    const words = `${counted(fresh.length, 'opening')} read from ${file?.name ?? 'a file'}`;
    if (await ontake(fresh, words.slice(0, 200))) drop();
  }
  const HOLDS = [
    { value: 'walls', text: 'walls' },
    { value: 'openings', text: 'openings' },
    { value: 'nothing', text: 'nothing of it' },
  ];
  /** An outline of a drawing as the plan of a building that has no shape; heights are typed there. */
  function drawPlan(outline: number[][]): void {
    const words = `Plan read from ${file?.name ?? 'a file'}`.slice(0, 200);
    const body = newBody(building, outline as [number, number][], file?.name);
    ondraft(body, [], building.north ?? 0, words);
  }
  const bodyName = (id: string) => building.bodies.find((one) => one.id === id)?.name || id;
  const sideOptions = $derived([
    { value: '', text: 'leave out' },
    ...sides.map((one) => ({
      value: `${one.body}/${one.side}`,
      text: `${bodyName(one.body)} ${one.side + 1}, ${units.full(one.length, 'length')}`,
    })),
  ]);
</script>

<h2>Read from file <span>DXF elevations or an IFC model; nothing changes until you take it</span></h2>
<p>
  <Button disabled={busy} onclick={() => input?.click()}>Read a DXF or IFC</Button>
  {#if busy}<span role="status">Reading {file?.name}</span>{/if}
  <input
    class="visually-hidden"
    type="file"
    accept=".dxf,.ifc"
    aria-label="DXF or IFC file to read"
    tabindex="-1"
    bind:this={input}
    onchange={(event) => void open(event.currentTarget.files?.[0])}
  />
</p>
{#if asked}
  <Notice tone="note" title="{file?.name} does not say in which unit it is drawn." text="Which is it?" live>
    {#each UNITS as unit (unit)}
      <Button strong={unit === asked.proposed} onclick={() => void read(unit)}
        >{unit}{unit === asked.proposed ? ', as large as walls are' : ''}</Button
      >
    {/each}
    <Button onclick={drop}>Leave it</Button>
  </Notice>
{:else if problem}
  <Notice
    tone="decision"
    title="{file?.name ?? 'The file'} was not read. Nothing was changed."
    text={problem.items
      .slice(0, 8)
      .map((item) => `${item.detail}; ${item.hint}.`)
      .join(' ') || problem.sentence}
    live><Button onclick={drop}>Leave it</Button></Notice
  >
{/if}
{#if reading}
  <div class="reading" data-testid="reading">
    <p>
      <b>{file?.name}</b>, drawn in {reading.unit}: {counted(reading.walls.length, 'wall')}, {counted(
        reading.walls.reduce((sum, one) => sum + one.openings.length, 0),
        'opening',
      )}{reading.left_out.length ? `, ${reading.left_out.length} left out` : ''}.
    </p>
    <table>
      <thead><tr><th>wall</th><th>gross</th><th>wide</th><th>openings</th><th>is the side</th></tr></thead>
      <tbody>
        {#each reading.walls as wall, n (wall.entity + n)}
          <tr>
            <td>{wall.name || `wall ${n + 1}`} <small>{wall.entity}</small></td>
            <td class="n">{units.full(wall.gross, 'area')}</td>
            <td class="n">{units.full(wall.width, 'length')}</td>
            <td class="n">{wall.openings.length}</td>
            <td
              ><Choice
                label="Side that {wall.name || `wall ${n + 1}`} is"
                showLabel={false}
                value={chosen[n] ?? ''}
                options={sideOptions}
                onsave={(side) => choose(n, side)}
              />{#if !building.bodies.length && !reading.body}<Button onclick={() => drawPlan(wall.outline)}
                  >Draw it as the plan</Button
                >{/if}</td
            >
          </tr>
        {/each}
      </tbody>
    </table>
    {#if reading.layers.length > 1}
      <p class="layers">
        {#each reading.layers as layer (layer.name)}
          <Choice
            label="layer {layer.name}, {counted(layer.outlines, 'outline')}"
            value={layer.holds}
            options={HOLDS}
            onsave={(holds) => {
              layers = { ...layers, [layer.name]: holds as Holds };
              void read(said);
            }}
          />
        {/each}
      </p>
    {/if}
    {#if reading.left_out.length}
      <ul>
        {#each reading.left_out as one, n (one.entity + n)}
          <li><small>{one.entity}</small> left out: {one.reason}</li>
        {/each}
      </ul>
    {/if}
    {#if reading.differences.length}
      <ul>
        {#each reading.differences as one (one)}<li>
            {one}{reading.body ? '' : ': what is drawn stays'}
          </li>{/each}
      </ul>
    {/if}
    {#if compared.some((each) => each.state === 'differs from what stands')}
      <ul>
        {#each compared.filter((each) => each.state === 'differs from what stands') as { one } (one.id)}
          <li>
            {one.mark} differs from what stands, which stays: move it by hand, or remove it and read again
          </li>
        {/each}
      </ul>
    {/if}
    <p class="bar">
      {#if reading.body}<span
          >Plan, storeys and roof of the file are drawn above, not saved: take them there.</span
        >
      {:else}<Button strong disabled={!fresh.length} onclick={() => void accept()}
          >Take {counted(fresh.length, 'opening')}</Button
        >{/if}
      <Button onclick={drop}>{reading.body ? 'Close' : 'Leave it'}</Button>
    </p>
  </div>
{/if}

<style>
  .reading {
    border-left: 4px solid var(--verdigris);
    padding-left: 12px;
  }
  .bar {
    display: flex;
    gap: 8px;
  }
  .n {
    text-align: right;
    font-family: var(--mono);
  }
  .layers {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 14px;
  }
  ul {
    margin: 4px 0;
    padding-left: 18px;
  }
  small {
    font-family: var(--mono);
    color: var(--ink-3);
  }
</style>
