<!-- The chosen layer: its material, λ, members, and its place among the others. -->
<script lang="ts">
  import type { Layer, Member } from '@/api/client';
  import { bench } from '@/project/bench.svelte';
  import { session } from '@/project/session.svelte';
  import Button from '@/kit/Button.svelte';
  import Choice from '@/kit/Choice.svelte';
  import Figure from '@/kit/Figure.svelte';
  import { refusals } from '@/kit/refusals.svelte';
  import Entry from '@/kit/Entry.svelte';

  interface Props {
    zone: string;
    onwork: (figure: string, title: string, dimension: string) => void;
  }
  let { zone, onwork }: Props = $props();
  const index = $derived(bench.selected);
  const layer = $derived(bench.layer);
  const count = $derived(bench.draft?.layers.length ?? 0);
  const material = $derived(session.materials.get(layer?.material ?? ''));
  const name = $derived(layer?.material ? (material?.name ?? layer.material) : 'Air layer');
  const families: Record<string, string> = {
    foam: 'Foams',
    fibre: 'Fibres and fills',
    panel: 'Panels and boards',
    timber: 'Timber',
    concrete: 'Concrete',
    masonry: 'Masonry',
    render: 'Renders and plasters',
    metal: 'Metals',
    plastic: 'Plastics',
    glass: 'Glass',
    fill: 'Ground and fills',
    membrane: 'Membranes',
  };
  const options = $derived([
    { value: '', text: 'Air layer' },
    ...[...session.materials.values()].map((one) => ({
      value: one.key,
      text: one.name,
      group: families[one.family] ?? one.family,
    })),
  ]);
  const hasCore = $derived(bench.draft?.layers.some((one) => one.studied) ?? false);
  const solid = $derived(options.slice(1));
  const shares = $derived(bench.found?.shares[index]);
  const vapour = $derived(bench.found?.figures[`vapour_${index + 1}`]);
  const refused = (part: string) =>
    bench.refused?.items.find(
      (item) => item.pointer.includes(`/layers/${index}`) && item.pointer.endsWith(part),
    );

  function set(change: Partial<Layer>, text: string): void {
    void bench.commit(bench.setLayer(index, change), text, zone);
  }
  function setMaterial(key: string): void {
    const to = session.materials.get(key);
    const text = `${name} to ${to?.name ?? 'air layer'}`;
    if (!to)
      set(
        {
          material: '',
          air: { ventilation: 'unventilated', A_v: 0.001 },
          lambda: null,
          studied: false,
          goes_with_core: false,
        },
        text,
      );
    else set({ material: key, air: null, lambda: null }, text);
  }
  function setMember(at: number, change: Partial<Member>, text: string): void {
    set(
      { members: (layer?.members ?? []).map((one, number) => (number === at ? { ...one, ...change } : one)) },
      text,
    );
  }
  function freshId(): string {
    return `n${crypto.randomUUID().replaceAll('-', '').slice(0, 12)}`;
  }
  function add(air: boolean): void {
    const fresh: Layer = {
      id: freshId(),
      d: air ? 0.03 : 0.0125,
      material: air ? '' : 'gypsum-board',
      air: air ? { ventilation: 'unventilated', A_v: 0.001 } : null,
      members: [],
      studied: false,
      goes_with_core: false,
      rib: 0,
      control: [],
      services: false,
      fitted: 'site',
      passes: 1,
      declared: [],
    };
    void bench.commit(
      (draft) => ({
        ...draft,
        layers: [...draft.layers.slice(0, index), fresh, ...draft.layers.slice(index)],
      }),
      air ? 'Air layer added' : 'Gypsum board added',
      zone,
    );
  }
  function remove(): void {
    void bench.commit(
      (draft) => ({
        ...draft,
        layers: draft.layers.toSpliced(index, 1),
        fixings: (draft.fixings ?? []).filter((one) => one.layer !== layer?.id),
      }),
      `${name} removed`,
      zone,
    );
    bench.selected = Math.max(0, index - 1);
  }
  function shift(by: number): void {
    void bench.commit(
      (draft) => {
        const layers = [...draft.layers];
        const [moved] = layers.splice(index, 1);
        if (moved) layers.splice(index + by, 0, moved);
        return { ...draft, layers };
      },
      `${name} moved ${by > 0 ? 'outwards' : 'inwards'}`,
      zone,
    );
    bench.selected = index + by;
  }
  function core(): void {
    void bench.commit(
      (draft) => ({
        ...draft,
        layers: draft.layers.map((one, at) => ({
          ...one,
          studied: at === index,
          goes_with_core: at !== index && one.goes_with_core,
        })),
      }),
      `${name} is the core`,
      zone,
    );
  }
</script>

{#if layer && session.units}
  <section class="bar" aria-label="Chosen layer" data-testid="layer-bar">
    <div class="line">
      <b>Layer {index + 1}</b>
      <Choice
        label="Material of layer {index + 1}"
        showLabel={false}
        value={layer.material ?? ''}
        {options}
        onsave={setMaterial}
      />
      <Entry
        label="Thickness"
        showLabel={false}
        dimension="length"
        value={layer.d}
        positive
        width="tiny"
        refused={refused('/d')?.detail}
        onsave={(d) => d !== null && bench.thickness(index, d, layer.d, zone)}
      />
      {#if layer.material}
        <Entry
          label="λ"
          showUnit={false}
          dimension="conductivity"
          value={layer.lambda ?? material?.conductivity}
          yours={layer.lambda !== null && layer.lambda !== undefined}
          optional
          positive
          width="tiny"
          decimals={3}
          refused={refused('/lambda')?.detail}
          onsave={(lambda) =>
            set({ lambda }, lambda === null ? `λ of ${name} as catalogued` : `λ of ${name} entered`)}
        />
        {#if vapour}
          <small class="vapour"
            >{#if vapour.dimension !== 'permeance'}s<sub>d</sub>{/if}
            <Figure
              value={session.units.show(vapour.value, vapour.dimension)}
              unit={session.units.symbol(vapour.dimension)}
              label={vapour.text}
              onwork={() => onwork(`vapour_${index + 1}`, vapour.text, vapour.dimension)}
            /></small
          >
        {/if}
        {#if material?.stock.length}
          <span class="stock" role="group" aria-label="Stock sizes">
            <small>stock</small>
            {#each material.stock as d (d)}
              <button
                class:on={d === layer.d}
                onclick={() => d !== layer.d && bench.thickness(index, d, layer.d, zone)}
                >{session.units.length(d)}</button
              >
            {/each}
          </span>
        {/if}
      {:else if layer.air}
        <Choice
          label="Ventilation"
          showLabel={false}
          value={layer.air.ventilation ?? 'unventilated'}
          options={[
            { value: 'unventilated', text: 'unventilated' },
            { value: 'slightly', text: 'slightly ventilated' },
            { value: 'well', text: 'well ventilated' },
          ]}
          onsave={(ventilation) =>
            set(
              { air: { ventilation: ventilation as 'well', A_v: 0.001 } },
              `Air layer ${ventilation === 'unventilated' ? '' : `${ventilation} `}${ventilation === 'unventilated' ? 'unventilated' : 'ventilated'}`,
            )}
        />
        {#if layer.air.ventilation === 'slightly'}
          <Entry
            label="openings"
            dimension="opening_area"
            value={layer.air.A_v}
            positive
            width="tiny"
            refused={refused('/A_v')?.detail}
            onsave={(A_v) =>
              A_v !== null && set({ air: { ventilation: 'slightly', A_v } }, 'Openings of the air layer')}
          />
        {/if}
      {/if}
    </div>
    {#each layer.members ?? [] as member, at (at)}
      <div class="line member">
        <small class="share">{shares ? session.units.show(shares[at + 1] ?? 0, 'share') : '–'} %</small>
        <span class="what">{member.name}</span>
        <Choice
          label="Material of {member.name}"
          showLabel={false}
          value={member.material}
          options={solid}
          onsave={(key) =>
            setMember(at, { material: key }, `${member.name} of ${session.materials.get(key)?.name ?? key}`)}
        />
        <Choice
          label="Run of {member.name}"
          showLabel={false}
          value={member.run ?? 'vertical'}
          options={[
            { value: 'vertical', text: 'vertical' },
            { value: 'horizontal', text: 'horizontal' },
          ]}
          onsave={(run) => setMember(at, { run: run as 'vertical' }, `${member.name} ${run}`)}
        />
        <Choice
          label="How {member.name} is given"
          showLabel={false}
          value={typeof member.share === 'number' ? 'share' : 'centres'}
          options={[
            { value: 'centres', text: 'at centres' },
            { value: 'share', text: 'area share' },
          ]}
          onsave={(how) =>
            setMember(
              at,
              how === 'share'
                ? { share: shares?.[at + 1] ?? 0.1, width: null, centres: null }
                : { share: null, width: 0.045, centres: 0.6 },
              `${member.name} by ${how === 'share' ? 'area share' : 'width and centres'}`,
            )}
        />
        {#if typeof member.share === 'number'}
          <Entry
            label="Share of {member.name}"
            showLabel={false}
            dimension="share"
            value={member.share}
            positive
            width="tiny"
            refused={refused('/share')?.detail ?? refused('/members')?.detail}
            onsave={(share) => share !== null && setMember(at, { share }, `Share of ${member.name}`)}
          />
        {:else}
          <Entry
            label="Width of {member.name}"
            showLabel={false}
            dimension="length"
            value={member.width}
            positive
            width="tiny"
            showUnit={false}
            refused={refused('/width')?.detail}
            onsave={(width) => width !== null && setMember(at, { width }, `Width of ${member.name}`)}
          />
          <small>at</small>
          <Entry
            label="Centres of {member.name}"
            showLabel={false}
            dimension="length"
            value={member.centres}
            positive
            width="tiny"
            showUnit={false}
            refused={refused('/centres')?.detail}
            onsave={(centres) => centres !== null && setMember(at, { centres }, `Centres of ${member.name}`)}
          />
        {/if}
        <Button
          label="Remove {member.name}"
          onclick={() => set({ members: (layer.members ?? []).toSpliced(at, 1) }, `${member.name} removed`)}
          >Remove</Button
        >
      </div>
    {/each}
    <div class="line acts">
      <small>add</small>
      <Button
        label="Add members"
        onclick={() =>
          set(
            {
              members: [
                ...(layer.members ?? []),
                {
                  name: 'stud',
                  material: 'softwood',
                  run: 'vertical',
                  joint: '',
                  width: 0.045,
                  centres: 0.6,
                },
              ],
            },
            `Members in ${name}`,
          )}>members</Button
      >
      <Button label="Add layer inside" onclick={() => add(false)}>layer inside</Button>
      <Button label="Add air inside" onclick={() => add(true)}>air inside</Button>
      <small>move</small>
      <Button label="Move outwards" onclick={() => shift(1)} disabled={index >= count - 1}>outwards</Button>
      <Button label="Move inwards" onclick={() => shift(-1)} disabled={index <= 0}>inwards</Button>
      {#if layer.studied}<small>is the core</small>{:else if layer.material}
        <Button onclick={core}>Make it the core</Button>
        {#if hasCore}
          <label title="studied with the core: it takes the same material, and grows in proportion"
            ><input
              type="checkbox"
              checked={layer.goes_with_core}
              onchange={(event) =>
                set(
                  { goes_with_core: event.currentTarget.checked },
                  event.currentTarget.checked ? `${name} goes with the core` : `${name} stands by itself`,
                )}
            /> goes with the core</label
          >
        {/if}
      {/if}
      <Button onclick={remove} disabled={count <= 1}>Remove layer</Button>
    </div>
    {#if bench.refused && !refusals.atField}
      <p class="refused" role="alert">
        {#each bench.refused.items as item (item.pointer + item.code)}{item.detail}; {item.hint}.
        {/each}The old value stands.
      </p>
    {/if}
  </section>
{/if}

<style>
  .bar {
    border-top: 1px solid var(--hair);
    padding-top: 8px;
    display: grid;
    gap: 5px;
  }
  .line {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 5px 6px;
  }
  b {
    color: var(--verdigris);
    min-width: 52px;
  }
  small {
    font-size: var(--fs-cap);
    color: var(--ink-3);
  }
  .vapour {
    white-space: nowrap;
  }
  sub {
    font-size: 0.8em;
  }
  .line:first-child :global(select:first-of-type) {
    max-width: 142px;
  }
  .share {
    min-width: 52px;
    font-family: var(--mono);
    text-align: right;
  }
  .member :global(select) {
    max-width: 96px;
  }
  .what {
    min-width: 40px;
    font-weight: 500;
    font-size: 12.5px;
  }
  .stock {
    display: inline-flex;
    align-items: center;
    gap: 2px;
    margin-left: auto;
  }
  .stock {
    flex-wrap: wrap;
    white-space: nowrap;
  }
  .stock button {
    border: 0;
    background: none;
    border-top: 1px solid var(--verdigris);
    font: 400 var(--fs-small) var(--mono);
    letter-spacing: -0.02em;
    padding: 0 5px;
    min-height: 24px;
  }
  .stock button.on {
    background: var(--verdigris);
    color: var(--sheet-bright);
    font-weight: 600;
  }
  .stock button:hover:not(.on) {
    color: var(--verdigris);
  }
  .refused {
    color: var(--oxide);
    font-weight: 500;
    font-size: var(--fs-small);
  }
</style>
