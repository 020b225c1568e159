<!-- A room through the year: temperature and humidity, or the regime that its humidity follows. -->
<script lang="ts">
  import type { Basis } from '@/api/client';
  import Choice from '@/kit/Choice.svelte';
  import Entry from '@/kit/Entry.svelte';

  type Room = Basis['indoor'];
  interface Props {
    room: Room;
    refused: (pointer: string) => string | undefined;
    onsave: (change: Partial<Room>, text: string) => void;
  }
  let { room, refused, onsave }: Props = $props();
  const regime = $derived(room.regime ?? 'fixed');
  const PARTS = [
    { of: 'heating', row: 'heated months', label: 'Heated', text: 'heated' },
    { of: 'cooling', row: 'warm months', label: 'Warm', text: 'warm' },
  ] as const;
</script>

<div class="grid">
  <span></span><small>temperature</small><small>humidity</small>
  {#each PARTS as part (part.of)}
    <span>{part.row}</span>
    <Entry
      label="{part.label} temperature"
      showLabel={false}
      dimension="temperature"
      value={room[`theta_${part.of}`]}
      width="tiny"
      refused={refused(`/theta_${part.of}`)}
      onsave={(value) =>
        value !== null && onsave({ [`theta_${part.of}`]: value }, `Indoor temperature, ${part.text}`)}
    />
    {#if regime !== 'fixed'}<small>by regime</small>{:else}<Entry
        label="{part.label} humidity"
        showLabel={false}
        dimension="share"
        decimals={0}
        value={room[`phi_${part.of}`]}
        width="tiny"
        refused={refused(`/phi_${part.of}`)}
        onsave={(value) =>
          value !== null && onsave({ [`phi_${part.of}`]: value }, `Indoor humidity, ${part.text}`)}
      />{/if}
  {/each}
  <span>heated below</span>
  <Entry
    label="Heated below"
    showLabel={false}
    dimension="temperature"
    value={room.heated_below}
    width="tiny"
    refused={refused('/heated_below')}
    onsave={(value) => value !== null && onsave({ heated_below: value }, 'Heating limit')}
  /><span></span>
</div>
<div class="stack">
  <Choice
    label="humidity of the room"
    value={regime}
    options={[
      { value: 'fixed', text: 'fixed, as entered' },
      { value: 'class 1', text: 'class 1, stores' },
      { value: 'class 2', text: 'class 2, offices, shops' },
      { value: 'class 3', text: 'class 3, dwellings, few people' },
      { value: 'class 4', text: 'class 4, dwellings, many people' },
      { value: 'class 5', text: 'class 5, laundries, pools' },
      { value: 'production', text: 'production over ventilation' },
    ]}
    onsave={(to) => onsave({ regime: to as Room['regime'] }, 'Humidity of the room')}
  />
  {#if regime.startsWith('class')}
    <Choice
      label="vapour of the class"
      value={room.class_margin ? 'margin' : 'plain'}
      options={[
        { value: 'plain', text: 'Δp of the class' },
        { value: 'margin', text: '1.1 · Δp, with the margin of the standard' },
      ]}
      onsave={(to) => onsave({ class_margin: to === 'margin' }, 'Margin of the humidity class')}
    />
  {/if}
  {#if regime === 'production'}
    <Entry
      label="vapour produced"
      dimension="vapour_rate"
      value={room.production}
      refused={refused('/production')}
      onsave={(value) => value !== null && onsave({ production: value }, 'Vapour produced')}
    />
    <Entry
      label="outside air"
      dimension="air_flow"
      value={room.ventilation}
      positive
      refused={refused('/ventilation')}
      onsave={(value) => value !== null && onsave({ ventilation: value }, 'Outside air')}
    />
  {/if}
  <Entry
    label="added in heated months, points"
    dimension="share"
    decimals={0}
    value={room.added}
    refused={refused('/added')}
    onsave={(value) => value !== null && onsave({ added: value }, 'Humidity added')}
  />
</div>

<style>
  .grid {
    display: grid;
    grid-template-columns: 1fr auto auto;
    gap: 5px 12px;
    align-items: center;
    color: var(--ink-2);
    font-size: var(--fs-small);
  }
  .stack {
    gap: 5px;
    margin-top: 6px;
  }
  small {
    color: var(--ink-3);
    font-size: var(--fs-small);
  }
</style>
