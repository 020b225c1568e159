<!-- What else is known of the chosen layer: control lines, fitting, ribs, declared values, substitution; grooves and depths. -->
<script lang="ts">
  import type { Layer, Probe } from '@/api/client';
  import { api, asProblem, take } from '@/api/client';
  import { bench } from '@/project/bench.svelte';
  import { router } from '@/project/router.svelte';
  import { session } from '@/project/session.svelte';
  import Button from '@/kit/Button.svelte';
  import Choice from '@/kit/Choice.svelte';
  import Entry from '@/kit/Entry.svelte';
  import Worked from '@/project/Worked.svelte';
  import type { Units } from '@/kit/units';

  interface Props {
    zone: string;
    units: Units;
  }
  let { zone, units }: Props = $props();
  const CONTROLS = ['rain', 'wind', 'air', 'vapour', 'heat'] as const;
  const index = $derived(bench.selected);
  const layer = $derived(bench.layer);
  const name = $derived(
    layer?.material ? (session.materials.get(layer.material)?.name ?? layer.material) : 'Air layer',
  );
  const options = $derived(
    [...session.materials.values()].map((one) => ({ value: one.key, text: one.name })),
  );
  const fixings = $derived(bench.draft?.fixings ?? []);

  function set(change: Partial<Layer>, text: string): void {
    void bench.commit(bench.setLayer(index, change), text.slice(0, 200), zone);
  }
  function control(one: (typeof CONTROLS)[number]): void {
    const has = layer?.control ?? [];
    const next = has.includes(one) ? has.filter((each) => each !== one) : [...has, one];
    set({ control: next }, `${name}: ${one} line ${has.includes(one) ? 'off' : 'on'}`);
  }

  // --- a probe: nothing is saved ------------------------------------------------------------------------------
  let depth = $state<number>();
  let chaseDepth = $state<number>();
  let chaseShare = $state(0.02);
  const of = $derived({
    kind: 'probe' as const,
    depth: depth ?? null,
    chase_layer: chaseDepth === undefined ? null : index,
    chase_depth: chaseDepth ?? 0,
    chase_share: chaseShare,
  });
  let probe = $state.raw<Probe>();
  let why = $state('');
  $effect(() => {
    const assembly = bench.draft;
    const place = router.place;
    const { depth, chase_layer, chase_depth, chase_share } = of;
    if (!assembly || (depth === null && chase_layer === null)) return;
    why = '';
    take(
      api.POST('/api/v1/projects/{project_id}/probe', {
        params: { path: { project_id: place.project } },
        body: { building_id: place.building, assembly, depth, chase_layer, chase_depth, chase_share },
      }),
    )
      .then((found) => (probe = found))
      .catch((error: unknown) => {
        probe = undefined;
        why = asProblem(error).sentence;
      });
  });
</script>

{#snippet probed(figure: string, title: string, text: string)}
  {#if bench.draft}<Worked
      {figure}
      {title}
      {text}
      dimension={figure.startsWith('R') ? 'resistance' : 'temperature'}
      assembly={bench.draft}
      {of}
    />{/if}
{/snippet}
{#if layer}
  <section aria-label="More of layer {index + 1}" data-testid="layer-more">
    <div class="line">
      <b>Layer {index + 1}</b>
      <small>controls</small>
      {#each CONTROLS as one (one)}
        <button
          class="toggle"
          aria-pressed={layer.control?.includes(one) ?? false}
          class:on={layer.control?.includes(one)}
          onclick={() => control(one)}>{one}</button
        >
      {/each}
      <button
        class="toggle"
        aria-pressed={layer.services ?? false}
        class:on={layer.services}
        onclick={() =>
          set({ services: !layer.services }, `${name}: services ${layer.services ? 'out' : 'in'}`)}
        >services run in it</button
      >
    </div>
    <div class="line">
      <Choice
        label="fitted"
        value={layer.fitted ?? 'site'}
        options={[
          { value: 'shop', text: 'in the shop' },
          { value: 'site', text: 'on site, before the air test' },
          { value: 'late', text: 'after the air test' },
        ]}
        onsave={(fitted) => set({ fitted: fitted as 'shop' }, `${name} fitted: ${fitted}`)}
      />
      <Entry
        label="rounds of work"
        dimension="ratio"
        decimals={0}
        value={layer.passes ?? 1}
        width="tiny"
        onsave={(passes) =>
          passes !== null && set({ passes: Math.round(passes) }, `Rounds of work on ${name}`)}
      />
      {#if layer.material}
        <Entry
          label="profile depth"
          dimension="length"
          value={layer.rib ?? 0}
          width="tiny"
          onsave={(rib) => rib !== null && set({ rib }, `Profile of ${name}`)}
        />
      {/if}
    </div>
    <div class="line">
      <small>declared</small>
      {#each layer.declared ?? [] as one, at (at)}
        <span class="said"
          >{one.kind}
          {one.value} <small>{one.source}</small>
          <Button
            label="Remove {one.kind} {one.value}"
            onclick={() =>
              set({ declared: (layer.declared ?? []).toSpliced(at, 1) }, `${one.kind} of ${name} removed`)}
            >remove</Button
          ></span
        >
      {/each}
      <form
        onsubmit={(event) => {
          event.preventDefault();
          const data = new FormData(event.currentTarget);
          const word = (key: string) => String(data.get(key) ?? '').trim();
          set(
            {
              declared: [
                ...(layer.declared ?? []),
                { kind: word('kind') as 'fire', value: word('value'), source: word('source') },
              ],
            },
            `${word('kind')} of ${name} declared`,
          );
          event.currentTarget.reset();
        }}
      >
        <select name="kind" aria-label="What is declared"
          ><option value="fire">fire class</option><option value="sound">sound rating</option></select
        >
        <input name="value" aria-label="Declared value" placeholder="value" size="8" required />
        <input
          name="source"
          aria-label="Source of the declared value"
          placeholder="test report, certificate"
          size="18"
          required
        />
        <button class="toggle">add</button>
      </form>
    </div>
    {#if layer.material}
      <div class="line">
        {#if layer.substitution}
          <small>delivered; asked was</small>
          <span class="said"
            >{session.materials.get(layer.substitution.asked)?.name ?? layer.substitution.asked}</span
          >
          <label class="words"
            ><small>approved by</small><input
              size="14"
              value={layer.substitution.approved ?? ''}
              onchange={(event) =>
                layer.substitution &&
                set(
                  { substitution: { ...layer.substitution, approved: event.currentTarget.value.trim() } },
                  `Substitution of ${name} approved`,
                )}
            /></label
          >
          {#if bench.found?.R_asked_materials}
            <span class="said"
              >R {units.show(bench.found.figures['R_clear']?.value ?? 0, 'resistance')} delivered, {units.show(
                bench.found.R_asked_materials,
                'resistance',
              )} asked</span
            >
          {/if}
          <Button
            onclick={() =>
              layer.substitution &&
              set(
                {
                  material: layer.substitution.asked,
                  lambda: layer.substitution.asked_lambda ?? null,
                  substitution: null,
                },
                `${name} back to what was asked`,
              )}>Put the asked one back</Button
          >
        {:else}
          <Choice
            label="another was delivered"
            value=""
            options={[{ value: '', text: 'no' }, ...options]}
            onsave={(key) =>
              key &&
              set(
                {
                  material: key,
                  lambda: null,
                  substitution: {
                    asked: layer.material ?? '',
                    asked_lambda: layer.lambda ?? null,
                    reason: '',
                    approved: '',
                  },
                },
                `${name}: ${session.materials.get(key)?.name ?? key} delivered`,
              )}
          />
        {/if}
      </div>
    {/if}
    <div class="line" data-testid="probe">
      <Entry
        label="temperature at depth"
        dimension="length"
        value={depth}
        optional
        positive
        width="tiny"
        onsave={(value) => (depth = value ?? undefined)}
      />
      {#if depth !== undefined && probe?.winter !== null && probe?.winter !== undefined && probe.coldest !== null}
        <span class="said"
          >{@render probed(
            'winter',
            'Temperature there, winter design',
            units.full(probe.winter, 'temperature'),
          )} winter design, {@render probed(
            'coldest',
            'Temperature there, coldest month',
            units.full(probe.coldest, 'temperature'),
          )} coldest month{probe.winter <= 0 ? ': a pipe there freezes' : ''}</span
        >
      {/if}
      {#if layer.material}
        <Entry
          label="chase"
          dimension="length"
          value={chaseDepth}
          optional
          positive
          width="tiny"
          onsave={(value) => (chaseDepth = value ?? undefined)}
        />
        <Entry
          label="over"
          dimension="share"
          value={chaseShare}
          positive
          width="tiny"
          onsave={(value) => value !== null && (chaseShare = value)}
        />
        {#if chaseDepth !== undefined && probe?.chase}
          <span class="said"
            >R {@render probed('R_there', 'R at the chase', units.show(probe.chase.R_there, 'resistance'))} nominal
            there; wall {@render probed(
              'R_without',
              'R of the wall without chases',
              units.show(probe.chase.R_without, 'resistance'),
            )} to {@render probed(
              'R_clear',
              'R of the wall with chases',
              units.show(probe.chase.R_clear, 'resistance', 3),
            )}</span
          >
        {/if}
      {/if}
      {#if why}<span class="why" role="alert">{why}</span>{/if}
    </div>
    <div class="line">
      <b>Fixings</b>
      {#if fixings.length}
        <small
          >{fixings.map((one) => one.name).join(', ')}{#if bench.found?.figures['delta_U_f']}: ΔU {units.full(
              bench.found.figures['delta_U_f'].value,
              'transmittance',
              4,
            )}{/if}</small
        >
      {:else}<small>no screws, ties, webs or brackets counted</small>{/if}
      <Button onclick={() => router.go({ step: 4, view: fixings.length ? '' : 'add' })}
        >{fixings.length ? 'open in Fixings' : 'add in Fixings'}</Button
      >
    </div>
  </section>
{/if}

<style>
  section {
    border-top: 1px solid var(--hair);
    margin-top: 8px;
    padding-top: 8px;
    display: grid;
    gap: 5px;
  }
  .line {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 8px;
    align-items: center;
  }
  b {
    color: var(--verdigris);
    min-width: 52px;
  }
  small {
    font-size: var(--fs-small);
    color: var(--ink-2);
  }
  form {
    display: inline-flex;
    gap: 4px;
  }
  .toggle {
    border: 1px solid var(--line);
    background: var(--sheet);
    min-height: 24px;
    padding: 1px 8px;
    font-size: var(--fs-small);
  }
  .toggle.on {
    background: var(--verdigris);
    border-color: var(--verdigris);
    color: var(--sheet-bright);
    font-weight: 600;
  }
  .said {
    font-size: var(--fs-small);
  }
  .why {
    color: var(--oxide);
    font-size: var(--fs-small);
    font-weight: 500;
  }
  .words {
    display: inline-flex;
    gap: 4px;
    align-items: center;
  }
  input,
  select {
    border: 1px solid var(--line);
    background: var(--sheet-bright);
    min-height: 24px;
    padding: 1px 4px;
    font-size: var(--fs-small);
  }
  .line :global(select) {
    max-width: 190px;
  }
</style>
