<!-- A building without a shape: its lengths are typed, and a body stands. -->
<script lang="ts">
  import type { Body, Building } from '@/api/client';
  import Button from '@/kit/Button.svelte';
  import Choice from '@/kit/Choice.svelte';
  import Entry from '@/kit/Entry.svelte';
  import type { Units } from '@/kit/units';
  import { shape } from '@/project/shape.svelte';
  import { footprint, newBody } from './footprint';
  import type { Plan } from './footprint';

  interface Props {
    building: Building;
    units: Units;
  }
  let { building, units }: Props = $props();
  let plan = $state<Plan>('rectangle');
  let [long, wide, arm, depth] = $state([12.0, 8.4, 4.8, 3.6]);
  let storey = $state(2.8);
  let count = $state(1);
  let form = $state<'flat' | 'one pitch' | 'two pitches' | 'hip'>('two pitches');
  let pitch = $state(35);
  const outline = $derived(footprint(plan, long, wide, arm, depth));
  const typed = $derived((building.elements ?? []).filter((one) => (one.area ?? 0) > 0).length);
  function begin(): void {
    const body: Body = {
      ...newBody(building, outline),
      storeys: Array.from({ length: count }, () => storey),
      roof: { form, pitch: form === 'flat' ? 0 : pitch, towards: 180, overhang: 0, parapet: 0 },
    };
    void shape.commit((now) => ({ ...now, bodies: [body] }), `${building.name} drawn`);
  }
  const PLANS: { value: Plan; text: string }[] = [
    { value: 'rectangle', text: 'rectangle' },
    { value: 'L', text: 'L' },
    { value: 'T', text: 'T' },
    { value: 'U', text: 'U' },
  ];
  const SCALE = $derived(Math.min(300 / long, 200 / wide));
</script>

<div class="columns">
  <svg width="340" height="240" role="img" aria-label="The plan as it begins">
    <path d="M{outline.map(([x, y]) => `${20 + x * SCALE} ${220 - y * SCALE}`).join('L')}Z" class="plan" />
    <text x="170" y="236">{units.length(long)}</text>
  </svg>
  <form
    class="stack"
    onsubmit={(event) => {
      event.preventDefault();
      begin();
    }}
  >
    <p>
      {building.name} has no shape yet{typed
        ? `; ${typed} areas are typed and stay until they are given to it`
        : ''}. Type its lengths.
    </p>
    <Choice label="footprint" value={plan} options={PLANS} onsave={(value) => (plan = value as Plan)} />
    <Entry
      label="long"
      dimension="length"
      value={long}
      positive
      onpreview={(value) => (long = value)}
      onsave={(value) => (long = value ?? long)}
    />
    <Entry
      label="wide"
      dimension="length"
      value={wide}
      positive
      onpreview={(value) => (wide = value)}
      onsave={(value) => (wide = value ?? wide)}
    />
    {#if plan !== 'rectangle'}
      <Entry
        label="an arm is wide"
        dimension="length"
        value={arm}
        positive
        onpreview={(value) => (arm = value)}
        onsave={(value) => (arm = value ?? arm)}
      />
      <Entry
        label="and reaches out"
        dimension="length"
        value={depth}
        positive
        onpreview={(value) => (depth = value)}
        onsave={(value) => (depth = value ?? depth)}
      />
    {/if}
    <Entry
      label="storeys"
      dimension="ratio"
      decimals={0}
      value={count}
      positive
      onsave={(value) => (count = Math.max(1, Math.round(value ?? 1)))}
    />
    <Entry
      label="each high"
      dimension="length"
      value={storey}
      positive
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
        value={pitch}
        positive
        onsave={(value) => (pitch = value ?? pitch)}
      />
    {/if}
    <Button strong onclick={begin}>Draw it</Button>
  </form>
</div>

<style>
  .plan {
    fill: var(--sheet-bright);
    stroke: var(--ink-2);
    stroke-dasharray: 6 4;
  }
  text {
    text-anchor: middle;
    font: 500 12px var(--mono);
    fill: var(--verdigris);
  }
  .columns {
    --columns: 360px minmax(0, 360px);
  }
</style>
