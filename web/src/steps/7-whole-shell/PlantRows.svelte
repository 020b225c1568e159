<!-- Figures of a part of a building's plant, typed where they stand. -->
<script lang="ts">
  import type { Building, Plant } from '@/api/client';
  import Entry from '@/kit/Entry.svelte';
  import { savePlant } from '@/project/whole.svelte';

  export interface PlantRow {
    field: string;
    text: string;
    dimension: string;
    decimals?: number;
    optional?: boolean;
    /** Low, likely and high of it. */
    three?: boolean;
  }
  interface Props {
    building: Building;
    part: keyof Plant | '';
    title: string;
    rows: PlantRow[];
    refused: (pointer: string) => string | undefined;
  }
  let { building, part, title, rows, refused }: Props = $props();
  const values = $derived(
    ((part ? building.plant?.[part] : building.plant) ?? {}) as Record<string, number | number[] | null>,
  );
  const of = (field: string) => values[field] as number | null | undefined;
  const three = (field: string) => (values[field] ?? []) as number[];
  const save = (field: string, value: unknown, text: string) =>
    savePlant(building, part, field, value, `${title}: ${text}`);
</script>

<section>
  <h3>{title}</h3>
  <div class="rows">
    {#each rows as row (row.field)}
      {#if row.three}
        <span class="three"
          >{row.text}
          {#each ['low', 'likely', 'high'] as end, at (end)}
            <Entry
              label="{row.text}, {end}"
              showLabel={false}
              showUnit={at === 2}
              width="tiny"
              dimension={row.dimension}
              decimals={row.decimals}
              value={three(row.field)[at]}
              refused={at === 2 ? refused(`/${row.field}`) : undefined}
              onsave={(value) =>
                value !== null &&
                save(
                  row.field,
                  three(row.field).map((old, n) => (n === at ? value : old)),
                  row.text,
                )}
            />
          {/each}
        </span>
      {:else}
        <Entry
          label={row.text}
          dimension={row.dimension}
          decimals={row.decimals}
          optional={row.optional ?? false}
          value={of(row.field)}
          refused={refused(`/${row.field}`)}
          onsave={(value) => (value !== null || row.optional) && save(row.field, value, row.text)}
        />
      {/if}
    {/each}
  </div>
</section>

<style>
  .rows {
    display: grid;
    gap: 2px;
    justify-items: end;
    max-width: 460px;
  }
  .three {
    display: flex;
    gap: 4px;
    align-items: center;
    font-size: var(--fs-small);
    color: var(--ink-2);
  }
</style>
