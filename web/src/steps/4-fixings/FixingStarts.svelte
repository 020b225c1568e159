<!-- What a group of fixings can start as, and the layer it goes through. -->
<script lang="ts">
  import type { Assembly } from '@/api/client';
  import { asProblem } from '@/api/client';
  import FixingMark from '@/draw/FixingMark.svelte';
  import { bench } from '@/project/bench.svelte';
  import { fixings } from './fixings.svelte';
  import { router } from '@/project/router.svelte';
  import { session } from '@/project/session.svelte';
  import Choice from '@/kit/Choice.svelte';
  import Notice from '@/kit/Notice.svelte';
  import SheetHead from '@/kit/SheetHead.svelte';

  interface Props {
    draft: Assembly;
    zone: string;
    onbegun: (id: string) => void;
  }
  let { draft, zone, onbegun }: Props = $props();
  const solid = $derived(
    draft.layers.map((layer, at) => ({ layer, at })).filter(({ layer }) => layer.material),
  );
  let chosen = $state('');
  const layer = $derived(
    solid.find(({ layer }) => layer.id === chosen)?.layer ??
      draft.layers.find((one) => one.studied) ??
      solid[0]?.layer,
  );
  let trouble = $state.raw<ReturnType<typeof asProblem>>();

  async function begin(kind: string, text: string): Promise<void> {
    if (!layer) return;
    trouble = undefined;
    const id = crypto.randomUUID().replaceAll('-', '').slice(0, 16);
    try {
      const place = router.place;
      const made = await fixings.begin(place.project, place.building, draft, kind, layer.id, id);
      await bench.commit(
        (one) => ({ ...one, fixings: [...(one.fixings ?? []), made] }),
        `${text[0]?.toUpperCase()}${text.slice(1)} added`,
        zone,
      );
      onbegun(id);
    } catch (error) {
      trouble = asProblem(error);
    }
  }
</script>

<SheetHead {zone} title="Add fixings to {draft.name}" />
<div class="through">
  <Choice
    label="through"
    value={layer?.id ?? ''}
    options={solid.map(({ layer, at }) => ({
      value: layer.id,
      text: `layer ${at + 1}: ${session.materials.get(layer.material ?? '')?.name ?? ''}`,
    }))}
    onsave={(id) => (chosen = id)}
  />
</div>
{#if trouble}<Notice title="This group cannot start here." text={trouble.sentence} live />{/if}
<ul>
  {#each fixings.offered?.kinds ?? [] as kind (kind.key)}
    <li>
      <button onclick={() => void begin(kind.key, kind.text)}>
        <FixingMark kind={kind.key} />
        <span><b>{kind.text}</b><small>{kind.note}</small></span>
      </button>
    </li>
  {/each}
</ul>
<p class="soft">{fixings.offered?.caution ?? ''}</p>

<style>
  .through {
    margin: 8px 0;
  }
  ul {
    list-style: none;
    padding: 0;
    margin: 0;
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(270px, 1fr));
    gap: 8px;
  }
  button {
    display: flex;
    gap: 10px;
    width: 100%;
    align-items: center;
    text-align: left;
    border: 1px solid var(--line);
    background: var(--sheet-bright);
    padding: 6px 8px;
    min-height: 52px;
  }
  button:hover {
    border-color: var(--verdigris);
  }
  b {
    display: block;
  }
  small,
  .soft {
    font-size: var(--fs-small);
    color: var(--ink-2);
  }
</style>
