<!-- The build-up as a practice standard: keep it, see where it is used, take a newer version on purpose. -->
<script lang="ts">
  import type { Assembly, Offer, Problem, ShellElement, Standard } from '@/api/client';
  import { api, asProblem, take } from '@/api/client';
  import { router } from '@/project/router.svelte';
  import { session } from '@/project/session.svelte';
  import { takeOffer } from '@/project/standards';
  import { keepStandard } from '@/project/standards';
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
  /** Why the last request to keep it was refused; a list that is loaded again does not take that back. */
  let refused = $state.raw<Problem>();
  let reason = $state('');
  let source = $state('');
  let since = $state('');
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
  async function keep(): Promise<void> {
    const good = await keepStandard(draft.id, kind, reason.trim(), source.trim(), since.trim());
    refused = good ? undefined : session.saves.takeRefusal();
    if (good) reason = source = since = '';
  }
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

{#each [problem, refused] as one, at (at)}
  {#if one}<Notice title={one.body.title} text={one.sentence} live />{/if}
{/each}
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
      <Notice
        tone="note"
        title={offer.standard.version === draft.standard?.version
          ? 'This build-up was changed since it was taken.'
          : `Version ${offer.standard.version} of the standard is there.`}
        text="Taking it changes what is listed, as one step that undo takes back."
      />
      <table data-testid="offer">
        <thead><tr><th>what</th><th>here</th><th>standard</th></tr></thead>
        <tbody>
          {#each offer.differences as one, at (at)}
            <tr
              ><th scope="row">{one.what}</th><td>{value(one.before, one.dimension)}</td><td
                >{value(one.after, one.dimension)}</td
              ></tr
            >
          {:else}<tr><td colspan="3">no difference but the version</td></tr>{/each}
        </tbody>
      </table>
      <Button strong onclick={() => offer && void takeOffer(draft.id, offer.standard.version, zone)}
        >Take it</Button
      >
    {/if}
    <h2>{draft.standard ? 'Keep as its next version' : 'Keep this build-up as a standard'}</h2>
    <div class="form">
      <label>why the practice trusts it<input bind:value={reason} maxlength="200" /></label>
      <label>source, tested at<input bind:value={source} maxlength="200" /></label>
      <label>trusted since<input bind:value={since} maxlength="60" /></label>
      <Button strong onclick={() => void keep()}>Keep</Button>
    </div>
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
    <ul data-testid="standards">
      {#each standards ?? [] as standard (standard.id)}
        <li class:withdrawn={standard.withdrawn}>
          <p>
            <b>{standard.assembly.name}</b>
            {standard.place}, version {standard.version}{standard.withdrawn ? ', withdrawn' : ''}
            <Button
              label="{standard.withdrawn ? 'Offer' : 'Withdraw'} {standard.assembly.name}"
              onclick={() => void withdraw(standard)}
              >{standard.withdrawn ? 'Offer again' : 'Withdraw'}</Button
            >
          </p>
          <p class="soft">{standard.reason}{standard.source ? `; ${standard.source}` : ''}</p>
          <p class="soft">
            {#each standard.uses as use, at (at)}{at ? ', ' : 'used: '}{use.project}, {use.name} (version {use.version}){:else}not
              used{/each}
          </p>
        </li>
      {:else}
        <li class="soft">None yet.</li>
      {/each}
    </ul>
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
  .form {
    display: grid;
    gap: 6px;
    justify-items: start;
  }
  label {
    display: grid;
    grid-template-columns: 160px 300px;
    align-items: center;
    color: var(--ink-2);
    font-size: var(--fs-small);
  }
  input:not(.visually-hidden) {
    border: 1px solid var(--line);
    background: var(--sheet-bright);
    padding: 2px 6px;
    min-height: 24px;
  }
  ul {
    list-style: none;
  }
  li {
    border-bottom: 1px solid var(--hair);
    padding: 5px 0;
  }
  .withdrawn b {
    text-decoration: line-through;
  }
  table {
    font-size: var(--fs-small);
  }
  th,
  td {
    font-weight: 400;
    padding: 3px 8px 3px 0;
    border-bottom: 1px solid var(--hair);
  }
</style>
