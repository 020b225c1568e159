<!-- The chosen opening, typed: its size, its place between its neighbours, what it is counted with. -->
<script lang="ts">
  import type { BodyOpening, Building, DrawnSide } from '@/api/client';
  import Button from '@/kit/Button.svelte';
  import Choice from '@/kit/Choice.svelte';
  import Entry from '@/kit/Entry.svelte';
  import { session } from '@/project/session.svelte';

  interface Props {
    opening: BodyOpening;
    building: Building;
    side: DrawnSide | undefined;
    onpreview: (change: Partial<BodyOpening>, words: string) => void;
    onchange: (change: Partial<BodyOpening>, words: string) => void;
    oncancel: () => void;
    onremove: () => void;
  }
  let { opening, building, side, onpreview, onchange, oncancel, onremove }: Props = $props();
  const name = $derived(opening.mark || opening.id);
  const elements = $derived(
    (building.elements ?? [])
      .filter((one) => one.station === 'E')
      .map((one) => ({ value: one.id, text: one.name })),
  );
  const types = $derived(session.open?.project.units ?? []);
  const FIELDS = [
    { key: 'w', text: 'width' },
    { key: 'h', text: 'height' },
    { key: 'sill', text: 'sill above the floor' },
    { key: 'u', text: 'from the left' },
  ] as const;
</script>

<div class="form">
  <label class="name"
    ><span>{opening.kind === 'door' ? 'door' : 'window'}</span><input
      value={opening.mark}
      maxlength="40"
      aria-label="Mark of the opening"
      onkeydown={(event) => event.key === 'Enter' && event.currentTarget.blur()}
      onchange={(event) => onchange({ mark: event.currentTarget.value.trim() }, `${name} renamed`)}
    /></label
  >
  {#each FIELDS as { key, text } (key)}
    <Entry
      label={text}
      dimension="length"
      value={opening[key]}
      onpreview={(value) => onpreview({ [key]: value }, `${name}: ${text}`)}
      {oncancel}
      onsave={(value) => value !== null && onchange({ [key]: value }, `${name}: ${text}`)}
    />
  {/each}
  {#if side}
    <Entry
      label="from the right"
      dimension="length"
      value={side.length - opening.u - opening.w}
      onpreview={(value) => onpreview({ u: side.length - opening.w - value }, `${name}: from the right`)}
      {oncancel}
      onsave={(value) =>
        value !== null && onchange({ u: side.length - opening.w - value }, `${name}: from the right`)}
    />
  {/if}
  <Choice
    label="kind"
    value={opening.kind ?? 'window'}
    options={[
      { value: 'window', text: 'window' },
      { value: 'door', text: 'door' },
    ]}
    onsave={(kind) => onchange({ kind: kind as 'window' }, `${name}: a ${kind}`)}
  />
  <Choice
    label="type"
    value={opening.unit ?? ''}
    options={[{ value: '', text: 'none' }, ...types.map((one) => ({ value: one.id, text: one.name }))]}
    onsave={(unit) => {
      const type = types.find((one) => one.id === unit);
      void session.fillOpenings(building.id, [opening.id], unit, `${name}: ${type?.name ?? 'no type'}`);
    }}
  />
  <Choice
    label="counted with"
    value={opening.zone ?? ''}
    options={[{ value: '', text: 'nothing yet' }, ...elements]}
    onsave={(zone) => onchange({ zone }, `${name}: counted with another element`)}
  />
  <Button onclick={onremove}>Remove {name}</Button>
</div>

<style>
  .form {
    display: grid;
    gap: 3px;
    justify-items: end;
  }
  .name {
    display: flex;
    gap: 6px;
    align-items: center;
  }
  .name input {
    width: 80px;
  }
  .name span {
    color: var(--ink-2);
    font-size: var(--fs-small);
  }
</style>
