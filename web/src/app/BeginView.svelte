<!-- A project from one sheet: place, systems, footprint, heights, roof, glazing; everything has a start value. -->
<script lang="ts">
  import { api, asProblem, take } from '@/api/client';
  import type { Problem, System, Weather } from '@/api/client';
  import LittleSection from '@/draw/LittleSection.svelte';
  import Button from '@/kit/Button.svelte';
  import Choice from '@/kit/Choice.svelte';
  import Entry from '@/kit/Entry.svelte';
  import Notice from '@/kit/Notice.svelte';
  import SheetHead from '@/kit/SheetHead.svelte';
  import { base64 } from '@/kit/file';
  import { router } from '@/project/router.svelte';
  import { session } from '@/project/session.svelte';
  import SchoolsFields from '@/steps/1-basis/SchoolsFields.svelte';
  import { footprint } from '@/steps/1-basis/shape/footprint';
  import type { Plan } from '@/steps/1-basis/shape/footprint';

  interface Props {
    oncancel: () => void;
  }
  let { oncancel }: Props = $props();
  let name = $state('');
  let place = $state('');
  let climate = $state(0);
  let system = $state<'SI' | 'IP'>(session.system);
  let schools = $state.raw(session.shipped?.schools);
  let wall = $state('sip');
  let roof = $state('sip-roof');
  let floor = $state('slab');
  let plan = $state<Plan | 'points'>('rectangle');
  let [long, wide, arm, depth] = $state([12.0, 8.4, 4.8, 3.6]);
  let points = $state('0,0 12,0 12,8.4 0,8.4');
  let count = $state(1);
  let storey = $state(2.8);
  let form = $state<'flat' | 'one pitch' | 'two pitches' | 'hip'>('two pitches');
  let pitch = $state(35);
  let ridge = $state<number | null>(null);
  let glazing = $state([0.2, 0.1, 0.1, 0.1]);
  let problem = $state.raw<Problem>();
  let busy = $state(false);
  let first = $state<HTMLInputElement>();
  $effect(() => first?.focus());

  const units = $derived(session.units);
  const climates = $derived(session.shipped?.climates ?? []);
  const systems = (of: System['place']) => session.shipped?.systems.filter((one) => one.place === of) ?? [];
  const corners = $derived(
    points
      .trim()
      .split(/\s+/)
      .map((pair) => pair.split(',').map(Number))
      .filter((pair) => pair.length === 2 && pair.every(Number.isFinite)) as [number, number][],
  );
  const outline = $derived(plan === 'points' ? corners : footprint(plan, long, wide, arm, depth));
  const box = $derived({
    wide: Math.max(...outline.map((p) => p[0]), 1) - Math.min(...outline.map((p) => p[0]), 0),
    high: Math.max(...outline.map((p) => p[1]), 1) - Math.min(...outline.map((p) => p[1]), 0),
  });
  const scale = $derived(Math.min(250 / box.wide, 150 / box.high));
  const why = (part: string) => problem?.items.find((item) => item.pointer.includes(part))?.detail;
  const FACES = { external: 'outer faces', overall: 'overall inner faces', internal: 'inner faces' };
  const SIDES = ['1, the first side', '2', '3', '4 and beyond'];

  let file = $state<HTMLInputElement>();
  let read = $state.raw<Weather>();
  async function openFile(chosen: File | undefined): Promise<void> {
    if (!chosen) return;
    try {
      const content = await base64(chosen);
      read = await take(api.POST('/api/v1/weather', { body: { name: chosen.name, content } }));
      problem = undefined;
    } catch (error) {
      problem = asProblem(error);
    }
  }

  async function begin(): Promise<void> {
    if (busy) return;
    busy = true;
    problem = undefined;
    const chosen = climates[climate];
    try {
      const made = await take(
        api.POST('/api/v1/projects/begin', {
          body: {
            name: name.trim() || 'New project',
            place: place.trim(),
            climate: read?.climate ?? chosen?.climate ?? null,
            theta_winter: read?.site?.theta_winter ?? (read ? null : (chosen?.theta_winter ?? null)),
            schools: schools ? { ...schools, units: system } : null,
            wall,
            roof,
            floor,
            plan: plan === 'points' ? 'rectangle' : plan,
            points: plan === 'points' ? corners : [],
            long,
            wide,
            arm,
            depth,
            storeys: Array.from({ length: count }, () => storey),
            form,
            pitch: ridge === null ? pitch : null,
            ridge,
            glazing,
            north: 0,
          },
        }),
      );
      session.readAs(system);
      router.go({
        project: made.project.id,
        building: made.project.buildings?.[0]?.id ?? '',
        step: 1,
        view: 'shape',
      });
    } catch (error) {
      problem = asProblem(error);
    } finally {
      busy = false;
    }
  }
  function key(event: KeyboardEvent): void {
    if (event.key === 'Escape') oncancel();
    else if (event.key === 'Enter' && event.target instanceof HTMLInputElement && !event.defaultPrevented)
      void begin();
  }
</script>

<svelte:window onkeydown={key} />
<SheetHead zone="1" title="Begin a project" aside="every field has a start value; Enter draws the shell" />
{#if problem}
  <Notice tone="decision" title="This cannot be begun." text={problem.sentence} live />
{/if}
{#snippet choose(of: System['place'], chosen: string, set: (key: string) => void)}
  <div class="systems" role="radiogroup" aria-label="System of the {of}">
    {#each systems(of) as one (one.key)}
      {@const whole = one.preview.layers.reduce((sum, layer) => sum + layer.d, 0)}
      <label class:on={chosen === one.key}>
        <input
          type="radio"
          name={of}
          value={one.key}
          checked={chosen === one.key}
          onchange={() => set(one.key)}
        />
        <LittleSection
          assembly={one.preview}
          materials={session.materials}
          scale={Math.min(92 / whole, 220)}
          height={30}
        />
        <span>{one.name}</span>
      </label>
    {/each}
  </div>
{/snippet}
{#if units}
  <div class="grid">
    <section>
      <h2>What and where</h2>
      <label class="line"
        ><span>name</span>
        <input bind:value={name} maxlength="80" placeholder="New project" bind:this={first} /></label
      >
      <label class="line"><span>place</span><input bind:value={place} maxlength="80" /></label>
      <Choice
        label="climate"
        value={String(climate)}
        options={climates.map((one, n) => ({ value: String(n), text: one.climate.name }))}
        onsave={(value) => {
          climate = Number(value);
          read = undefined;
        }}
      />
      <p class="soft">
        {#if read}read: {read.climate.name}{:else}or{/if}
        <Button onclick={() => file?.click()}>Read a CSV or EPW file</Button>
        <input
          class="visually-hidden"
          type="file"
          accept=".csv,.epw,text/csv"
          aria-label="Climate file to read"
          tabindex="-1"
          bind:this={file}
          onchange={(event) => void openFile(event.currentTarget.files?.[0])}
        />
      </p>
      <Choice
        label="units"
        value={system}
        options={[
          { value: 'SI', text: 'SI: mm, m², W' },
          { value: 'IP', text: 'IP: feet, inches, Btu' },
        ]}
        onsave={(value) => {
          system = value as 'SI';
          session.readAs(system);
        }}
      />
      {#if schools}<details class="schools">
          <summary
            >Schools: {FACES[schools.dimensions]}, {schools.films === 'iso6946'
              ? 'ISO 6946'
              : 'North American films'}</summary
          >
          <SchoolsFields
            {schools}
            {units}
            onchange={(change) => schools && (schools = { ...schools, ...change })}
          />
        </details>{/if}
    </section>
    <section>
      <h2>Footprint</h2>
      <div class="row">
        <div class="fields">
          <Choice
            label="plan"
            value={plan}
            options={['rectangle', 'L', 'T', 'U', 'points'].map((value) => ({ value, text: value }))}
            onsave={(value) => (plan = value as Plan)}
          />
          {#if plan === 'points'}
            <label class="line"
              ><span>corners, m</span><input
                bind:value={points}
                aria-label="Corners as x,y pairs in metres"
              /></label
            >
          {:else}
            <Entry
              label="long"
              dimension="length"
              value={long}
              positive
              refused={why('footprint')}
              onsave={(value) => (long = value ?? long)}
            />
            <Entry
              label="wide"
              dimension="length"
              value={wide}
              positive
              onsave={(value) => (wide = value ?? wide)}
            />
            {#if plan !== 'rectangle'}
              <Entry
                label="an arm is wide"
                dimension="length"
                value={arm}
                positive
                onsave={(value) => (arm = value ?? arm)}
              />
              <Entry
                label="and reaches out"
                dimension="length"
                value={depth}
                positive
                onsave={(value) => (depth = value ?? depth)}
              />
            {/if}
          {/if}
        </div>
        <svg width="270" height="170" role="img" aria-label="The plan">
          <path
            class="plan"
            d="M{outline
              .map(([x, y]) => `${(10 + x * scale).toFixed(1)} ${(160 - y * scale).toFixed(1)}`)
              .join('L')}Z"
          />
        </svg>
      </div>
    </section>
    <section>
      <h2>Heights and roof</h2>
      <div class="fields">
        <Entry
          label="storeys"
          dimension="ratio"
          decimals={0}
          value={count}
          positive
          onsave={(value) => (count = Math.max(1, Math.round(value ?? 1)))}
        />
        <Entry
          label="each, floor to floor"
          dimension="length"
          value={storey}
          positive
          refused={why('storeys')}
          onsave={(value) => (storey = value ?? storey)}
        />
        <Choice
          label="roof"
          value={form}
          options={['flat', 'one pitch', 'two pitches', 'hip'].map((value) => ({ value, text: value }))}
          onsave={(value) => (form = value as 'flat')}
        />
        {#if form !== 'flat'}
          <Entry
            label="pitch °"
            dimension="ratio"
            decimals={1}
            value={ridge === null ? pitch : null}
            optional
            refused={why('pitch')}
            onsave={(value) => {
              if (value !== null) {
                pitch = value;
                ridge = null;
              }
            }}
          />
          <Entry
            label="or ridge above eaves"
            dimension="length"
            value={ridge}
            optional
            refused={why('ridge')}
            onsave={(value) => (ridge = value)}
          />
        {/if}
      </div>
    </section>
    <section>
      <h2>Glass <span>share of the walls, until openings are drawn</span></h2>
      <div class="fields">
        {#each glazing as share, n (n)}
          <Entry
            label="side {SIDES[n]}, %"
            dimension="share"
            decimals={0}
            value={share}
            refused={why(`glazing/${n}`)}
            onsave={(value) => (glazing = glazing.map((one, at) => (at === n ? (value ?? 0) : one)))}
          />
        {/each}
      </div>
    </section>
    <section class="wide">
      <h2>Walls</h2>
      {@render choose('wall', wall, (one) => (wall = one))}
      <h2>Roof</h2>
      {@render choose('roof', roof, (one) => (roof = one))}
      <h2>Lowest floor</h2>
      {@render choose('floor', floor, (one) => (floor = one))}
    </section>
  </div>
  <p class="end">
    <Button strong disabled={busy} onclick={() => void begin()}>Draw the shell</Button>
    <Button onclick={oncancel}>Back</Button>
    <span class="soft">Structure, code and fire stay with the licensed persons of the place.</span>
  </p>
{/if}

<style>
  .grid {
    display: grid;
    grid-template-columns: repeat(2, minmax(0, 1fr));
    gap: 4px 32px;
  }
  .schools {
    max-width: 420px;
  }
  .schools summary {
    min-height: 24px;
    cursor: pointer;
    color: var(--ink-2);
  }
  .wide {
    grid-column: 1 / -1;
  }
  .line {
    display: flex;
    justify-content: space-between;
    gap: 8px;
    max-width: 420px;
    margin: 2px 0;
  }
  .line input {
    border: 1px solid var(--line);
    background: var(--sheet-bright);
    padding: 2px 8px;
    width: 300px;
  }
  .row {
    display: flex;
    gap: 16px;
  }
  .fields {
    display: grid;
    gap: 3px;
    justify-items: end;
    align-content: start;
    width: 300px;
  }
  .plan {
    fill: var(--sheet-bright);
    stroke: var(--ink);
    stroke-width: 1.4;
  }
  .systems {
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
  }
  .systems label {
    border: 1px solid var(--line);
    padding: 4px 6px;
    width: 116px;
    display: grid;
    gap: 2px;
    font-size: 12px;
    line-height: 1.2;
    cursor: pointer;
    align-content: start;
  }
  .systems label.on {
    border-color: var(--verdigris);
    background: var(--verdigris-wash);
    outline: 1.5px solid var(--verdigris);
  }
  .systems input {
    position: absolute;
    opacity: 0;
  }
  .systems label:focus-within {
    outline: 2px solid var(--verdigris);
    outline-offset: 2px;
  }
  .end {
    display: flex;
    gap: 10px;
    align-items: center;
    margin: 12px 0;
  }
  @media (max-width: 1023px) {
    .grid {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
