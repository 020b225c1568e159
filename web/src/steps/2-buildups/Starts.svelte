<!-- An element without a build-up: every system of its place and the practice's standards, drawn to one scale. -->
<script lang="ts">
  import type { Assembly, ShellElement, Standard, System, SystemPreview } from '@/api/client';
  import { api, asProblem, take } from '@/api/client';
  import type { Problem } from '@/api/client';
  import { asking } from '@/api/live.svelte';
  import LittleSection from '@/draw/LittleSection.svelte';
  import { session } from '@/project/session.svelte';
  import { useStandard } from '@/project/standards';
  import { PLACES } from '@/project/stations';
  import Button from '@/kit/Button.svelte';
  import Choice from '@/kit/Choice.svelte';
  import { refusals } from '@/kit/refusals.svelte';
  import Entry from '@/kit/Entry.svelte';
  import Notice from '@/kit/Notice.svelte';
  import SheetHead from '@/kit/SheetHead.svelte';
  import type { Units } from '@/kit/units';

  interface Props {
    element: ShellElement;
    building: string;
    units: Units;
    zone: string;
  }
  let { element, building, units, zone }: Props = $props();
  const place = $derived(PLACES[element.station] ?? 'wall');
  const systems = $derived(session.shipped?.systems.filter((system) => system.place === place) ?? []);
  let standards = $state.raw<Standard[]>([]);
  let problem = $state.raw<Problem>();
  $effect(() => {
    take(api.GET('/api/v1/standards'))
      .then((found) => (standards = found))
      .catch((error: unknown) => (problem = asProblem(error)));
  });
  const offered = $derived(standards.filter((one) => one.place === place && !one.withdrawn));
  const H = 120;
  const whole = (assembly: Assembly) => assembly.layers.reduce((sum, layer) => sum + layer.d, 0);
  const thickest = $derived(Math.max(...systems.map((system) => whole(shown(system).preview)), 0.3));
  const scale = $derived(Math.min(216 / thickest, 520));

  let adjusting = $state('');
  let values = $state.raw<Record<string, number | string>>({});
  let refused = $state('');
  // The card that is adjusted shows what its parameters make of it.
  const live = asking(
    () => (adjusting ? { key: adjusting, values } : undefined),
    ({ key, values }): Promise<SystemPreview> =>
      take(api.POST('/api/v1/systems/{key}/preview', { params: { path: { key } }, body: { values } })),
  );
  const adjusted = $derived(adjusting ? live.of({ key: adjusting }) : undefined);
  const shown = (system: System): SystemPreview => (system.key === adjusting && adjusted ? adjusted : system);

  async function start(system: System, chosen: Record<string, number | string> = {}): Promise<void> {
    refused = '';
    const good = await session.startAssembly(
      building,
      element.id,
      system.key,
      chosen,
      `${element.name}: ${system.name}`,
      zone,
    );
    if (!good) refused = session.saves.takeRefusal()?.sentence ?? '';
  }
  function adjust(system: System): void {
    adjusting = adjusting === system.key ? '' : system.key;
    values = Object.fromEntries(system.parameters.map((one) => [one.key, one.start]));
    refused = '';
  }
</script>

<SheetHead {zone} title={element.name} />
<p class="conditions">
  No layers yet.
  {#if element.U}The shell counts it with U {units.full(element.U, 'transmittance')}, {element.origin ||
      'entered'}.{:else}It has no U, so the shell does not count it.{/if}
  Start from a {place} system; every layer can be changed.
</p>
{#if problem}<Notice title={problem.body.title} text={problem.body.hint ?? ''} />{/if}
{#if offered.length}
  <h2>Practice standards</h2>
  <ul>
    {#each offered as standard (standard.id)}
      <li>
        <button class="card" onclick={() => void useStandard(building, element.id, standard, zone)}>
          <span class="drawn"
            ><LittleSection
              assembly={standard.assembly}
              materials={session.materials}
              {scale}
              height={H}
            /></span
          >
          <b><span class="visually-hidden">Use the standard </span>{standard.assembly.name}</b>
          <span>{standard.reason}</span>
          <span class="soft"
            >version {standard.version}{standard.trusted_since
              ? `, trusted since ${standard.trusted_since}`
              : ''}</span
          >
        </button>
      </li>
    {/each}
  </ul>
{/if}
<h2>Systems <span>start values on a plain Basis; R nominal and clear wall</span></h2>
<ul>
  {#each systems as system (system.key)}
    {@const { preview, figures } = shown(system)}
    <li data-stale={system.key === adjusting && live.stale && !live.problem}>
      <button class="card" onclick={() => void start(system)}>
        <span class="drawn"
          ><LittleSection assembly={preview} materials={session.materials} {scale} height={H} /></span
        >
        <b><span class="visually-hidden">Start with </span>{system.name}</b>
        <span class="numbers"
          ><em>{units.full(figures.thickness, 'length')}</em><em
            >R {units.show(figures.R_nominal, 'resistance')} / {units.show(figures.R_clear, 'resistance')}</em
          ><em>{units.full(figures.weight, 'surface_mass', 0)}</em></span
        >
        <span>{system.anatomy}</span>
      </button>
      <Button
        label="{adjusting === system.key ? 'Close parameters' : 'Parameters'} of {system.name}"
        onclick={() => adjust(system)}>{adjusting === system.key ? 'Close parameters' : 'Parameters'}</Button
      >
      {#if adjusting === system.key}
        <div class="form" data-testid="parameters">
          {#each system.parameters as one (one.key)}
            {#if one.kind === 'choice'}
              <Choice
                label={one.text}
                value={String(values[one.key] ?? '')}
                options={one.options.map((value) => ({
                  value,
                  text: session.materials.get(value)?.name ?? value,
                }))}
                onsave={(value) => (values = { ...values, [one.key]: value })}
              />
            {:else}
              <Entry
                label={one.text}
                dimension={one.dimension ?? 'length'}
                value={Number(values[one.key] ?? 0)}
                width="tiny"
                onsave={(value) => value !== null && (values = { ...values, [one.key]: value })}
              />
            {/if}
          {/each}
          {#if live.problem && !(refused && refusals.atField)}<p class="refused" role="alert">
              {live.problem.sentence}
            </p>{/if}
          {#if refused && !live.problem && !refusals.atField}<p class="refused" role="alert">
              {refused}
            </p>{/if}
          <Button strong disabled={!!live.problem} onclick={() => void start(system, values)}
            >Start with these</Button
          >
        </div>
      {/if}
    </li>
  {/each}
</ul>
<p class="note">
  Drawn to one scale, outside on the left{place === 'wall' ? '' : '; stood upright'}. Structure, lifting and
  fire protection stay with local codes and licensed practice.
</p>

<style>
  h2 span,
  .soft {
    font-weight: 400;
    font-size: var(--fs-small);
    color: var(--ink-3);
  }
  .conditions,
  .note {
    color: var(--ink-2);
    margin-top: 6px;
  }
  ul {
    list-style: none;
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(236px, 1fr));
    gap: 10px 18px;
    align-items: start;
  }
  li {
    display: flex;
    flex-direction: column;
    align-items: flex-start;
    gap: 4px;
  }
  .form {
    display: grid;
    gap: 4px;
    justify-items: end;
    width: 100%;
    border-left: 2px solid var(--verdigris);
    padding-left: 8px;
  }
  .form :global(select) {
    max-width: 130px;
  }
  .refused {
    color: var(--oxide);
    font-weight: 500;
    font-size: var(--fs-small);
  }
  .card {
    width: 100%;
    flex: 1;
    border: 0;
    border-top: 2.5px solid var(--ink);
    background: none;
    text-align: left;
    padding: 0 0 6px;
    display: flex;
    flex-direction: column;
    gap: 2px;
  }
  .card:hover b {
    text-decoration: underline;
  }
  .drawn {
    margin-bottom: 4px;
  }
  b {
    color: var(--verdigris);
  }
  .card span {
    color: var(--ink-2);
    font-size: var(--fs-small);
    line-height: 1.3;
  }
  .numbers {
    display: flex;
    gap: 12px;
  }
  em {
    font: 500 var(--fs-small) var(--mono);
    letter-spacing: -0.02em;
    color: var(--ink);
  }
</style>
