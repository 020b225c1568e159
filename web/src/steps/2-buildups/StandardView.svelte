<!-- The build-up as a practice standard: keep it, see where it is used, take a newer version on purpose. -->
<script lang="ts">
  import type { Assembly, Offer, Problem, ShellElement, Standard } from '@/api/client';
  import { api, asProblem, take } from '@/api/client';
  import { router } from '@/project/router.svelte';
  import StandardKeep from '@/project/StandardKeep.svelte';
  import StandardOffer from '@/project/StandardOffer.svelte';
  import { keepStandard, takeOffer } from '@/project/standards';
  import StandardsList from '@/project/StandardsList.svelte';
  import { PLACES } from '@/project/stations';
  import Button from '@/kit/Button.svelte';
  import Notice from '@/kit/Notice.svelte';
  import type { Units } from '@/kit/units';

  interface Props {
    element: ShellElement;
    draft: Assembly;
    units: Units;
    zone: string;
    revision: number;
  }
  let { element, draft, units, zone, revision }: Props = $props();
  let standards = $state.raw<Standard[]>();
  let offer = $state.raw<Offer | null>(null);
  let problem = $state.raw<Problem>();
  let fileInput = $state<HTMLInputElement>();
  let said = $state('');
  const kind = $derived(PLACES[element.station] ?? 'wall');
  const mine = $derived(standards?.find((one) => one.id === draft.standard?.id));

  async function load(project: string, assembly: string): Promise<void> {
    try {
      [standards, offer] = await Promise.all([
        take(api.GET('/api/v1/standards')),
        take(
          api.GET('/api/v1/projects/{project_id}/assemblies/{assembly_id}/offer', {
            params: { path: { project_id: project, assembly_id: assembly } },
          }),
        ),
      ]);
      problem = undefined;
    } catch (error) {
      problem = asProblem(error);
    }
  }
  $effect(() => {
    void revision;
    void load(router.place.project, draft.id);
  });
  async function withdraw(standard: Standard): Promise<void> {
    try {
      await take(
        api.POST('/api/v1/standards/{standard_id}/withdrawal', {
          params: { path: { standard_id: standard.id } },
          body: { again: standard.withdrawn },
        }),
      );
      await load(router.place.project, draft.id);
    } catch (error) {
      problem = asProblem(error);
    }
  }
  async function bringIn(file: File | undefined): Promise<void> {
    if (!file) return;
    try {
      const body = JSON.parse(await file.text()) as Record<string, unknown>;
      const { stored } = await take(api.POST('/api/v1/standards/import', { body }));
      said = `${stored} stored from ${file.name}.`;
      await load(router.place.project, draft.id);
    } catch (error) {
      problem =
        error instanceof SyntaxError
          ? asProblem(new Error(`${file.name} is not readable as JSON. Nothing was changed.`))
          : asProblem(error);
    } finally {
      if (fileInput) fileInput.value = '';
    }
  }
  const value = (one: string | number | null, dimension: string) =>
    one === null ? 'none' : typeof one === 'number' ? units.full(one, dimension) : one;
</script>

{#if problem}<Notice title={problem.body.title} text={problem.sentence} live />{/if}
<div class="columns">
  <div>
    <h2>
      {draft.standard ? `Taken from a standard, version ${draft.standard.version}` : 'Not from a standard'}
      {#if mine}<span>{mine.reason}{mine.trusted_since ? `; trusted since ${mine.trusted_since}` : ''}</span
        >{/if}
    </h2>
    {#if draft.standard && standards && !mine}<p>
        That standard is not in this practice's list; the build-up stands on its own.
      </p>{/if}
    {#if offer}
      <StandardOffer
        version={offer.standard.version}
        taken={draft.standard?.version}
        what="build-up"
        differences={offer.differences}
        name={(one) => one.what}
        value={(one, side) => value(one[side], one.dimension)}
        ontake={() => offer && void takeOffer(draft.id, offer.standard.version, zone)}
      />
    {/if}
    <h2>{draft.standard ? 'Keep as its next version' : 'Keep this build-up as a standard'}</h2>
    <StandardKeep onkeep={(...words) => keepStandard(draft.id, kind, ...words)} />
  </div>
  <div class="side">
    <h2>
      Practice standards
      <span class="files"
        ><a href="/api/v1/standards.json" download>Export, JSON</a>
        <Button onclick={() => fileInput?.click()}>Import</Button></span
      >
    </h2>
    <input
      class="visually-hidden"
      type="file"
      accept=".json,application/json"
      aria-label="File of standards to import"
      tabindex="-1"
      bind:this={fileInput}
      onchange={(event) => void bringIn(event.currentTarget.files?.[0])}
    />
    <p role="status" class="soft">{said}</p>
    <StandardsList
      standards={standards ?? []}
      testid="standards"
      name={(one) => one.assembly.name}
      kind={(one) => one.place}
      onwithdraw={(one) => void withdraw(one)}
    />
  </div>
</div>

<style>
  .columns {
    --columns: minmax(0, 1fr) minmax(0, 1fr);
    margin-top: 8px;
  }
  h2 {
    margin: 10px 0 6px;
    display: flex;
    justify-content: space-between;
    gap: 10px;
  }
  h2 > span:not(.files),
  .soft {
    font-weight: 400;
    font-size: var(--fs-small);
    color: var(--ink-3);
  }
  .files {
    display: flex;
    gap: 10px;
    align-items: center;
  }
  .files a {
    color: var(--verdigris);
    font-weight: 500;
    font-size: 12.5px;
  }
</style>
