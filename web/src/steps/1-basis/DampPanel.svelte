<!-- What the practice accepts of water and mould, and what drives air through joints. -->
<script lang="ts">
  import type { Basis } from '@/api/client';
  import { session } from '@/project/session.svelte';
  import Choice from '@/kit/Choice.svelte';
  import Entry from '@/kit/Entry.svelte';

  interface Props {
    basis: Basis;
    name: string;
    refused: (pointer: string) => string | undefined;
  }
  let { basis, name, refused }: Props = $props();
  type Row = { field: string; text: string; dimension: string; decimals?: number };
  const WATER: Row[] = [
    { field: 'wood', text: 'water in wood, by mass', dimension: 'share' },
    { field: 'mould', text: 'mould index', dimension: 'ratio', decimals: 1 },
    { field: 'plane', text: 'condensed at a plane', dimension: 'condensate' },
    { field: 'beside_tight', text: 'condensed beside a layer that absorbs none', dimension: 'condensate' },
    { field: 'timber', text: 'water gained by solid wood, by mass', dimension: 'share' },
    { field: 'board', text: 'water gained by wood boards, by mass', dimension: 'share' },
    { field: 'years', text: 'years of slow gathering counted', dimension: 'ratio', decimals: 0 },
  ];
  const AIR: Row[] = [
    { field: 'ridge', text: 'ridge above the neutral level', dimension: 'height', decimals: 1 },
    { field: 'footing', text: 'footing above the neutral level', dimension: 'height', decimals: 1 },
    { field: 'wind', text: 'wind, outwards on the lee', dimension: 'pressure', decimals: 1 },
    { field: 'fan', text: 'fan, room over outside', dimension: 'pressure', decimals: 1 },
    { field: 'exponent', text: 'flow exponent n', dimension: 'ratio', decimals: 2 },
    {
      field: 'reaching',
      text: 'share of leaking air that cools at the outer skin',
      dimension: 'share',
      decimals: 0,
    },
    { field: 'strip', text: 'width of outer skin it wets', dimension: 'length' },
  ];
  const NAMES = ['open', 'one line of seal', 'two lines', 'three lines'];
  const leakages = $derived(basis.air?.leakages ?? []);
  function leak(grade: number, end: 0 | 1, value: number | null): void {
    if (value === null) return;
    const changed = leakages.map((row, at) =>
      at === grade ? row.map((old, n) => (n === end ? value : old)) : row,
    );
    void session.saveBasis(
      { ...basis, air: { ...basis.air, leakages: changed } } as Basis,
      name,
      'Leakage by grade',
    );
  }
  function save(part: 'damp' | 'air', field: string, value: number | null, text: string): void {
    if (value === null) return;
    void session.saveBasis({ ...basis, [part]: { ...basis[part], [field]: value } } as Basis, name, text);
  }
</script>

{#snippet rows(part: 'damp' | 'air', of: Row[])}
  <div class="rows">
    {#each of as row (row.field)}
      <Entry
        label={row.text}
        dimension={row.dimension}
        decimals={row.decimals}
        value={(basis[part] as Record<string, unknown>)[row.field] as number}
        refused={refused(`/${row.field}`)}
        onsave={(value) => save(part, row.field, value, `Moisture: ${row.text}`)}
      />
    {/each}
  </div>
{/snippet}

<div class="two" data-testid="damp">
  <section>
    <h2>Water accepted <span>starting values of the trade</span></h2>
    {@render rows('damp', WATER)}
    <div class="rows">
      <Choice
        label="mould grows on"
        value={basis.damp?.mould_surface ?? 'sawn'}
        options={[
          { value: 'sawn', text: 'sawn, SQ 0' },
          { value: 'moderate', text: 'moderate, SQ 0.5' },
          { value: 'kiln dried', text: 'kiln dried, SQ 1' },
        ]}
        onsave={(mould_surface) =>
          void session.saveBasis(
            { ...basis, damp: { ...basis.damp, mould_surface } } as Basis,
            name,
            `Mould on ${mould_surface} surfaces`,
          )}
      />
    </div>
  </section>
  <section>
    <h2>Air through joints <span>starting values, by month</span></h2>
    {@render rows('air', AIR)}
  </section>
  <section>
    <h2>Leakage by grade of seal <span>{session.units?.symbol('joint_flow')} at 50 Pa, low, high</span></h2>
    <div class="rows">
      {#each leakages as [low, high], grade (grade)}
        <span class="grade"
          >{NAMES[grade]}
          <Entry
            label="{NAMES[grade]}, low"
            showLabel={false}
            showUnit={false}
            width="tiny"
            dimension="joint_flow"
            decimals={2}
            value={low}
            onsave={(value) => leak(grade, 0, value)}
          />
          <Entry
            label="{NAMES[grade]}, high"
            showLabel={false}
            showUnit={false}
            width="tiny"
            dimension="joint_flow"
            decimals={2}
            value={high}
            refused={refused(`/leakages/${grade}`)}
            onsave={(value) => leak(grade, 1, value)}
          /></span
        >
      {/each}
      <small>your own tests take the place of these; the seals of a joint decide its grade</small>
    </div>
  </section>
</div>

<style>
  .two {
    display: grid;
    grid-template-columns: repeat(3, minmax(0, 340px));
    gap: 28px;
    margin-top: 14px;
  }
  h2 {
    font-size: var(--fs-lead);
    margin: 0 0 6px;
  }
  .rows {
    display: flex;
    flex-direction: column;
    align-items: flex-end;
    gap: 4px;
  }
  .grade {
    display: flex;
    gap: 6px;
    align-items: center;
    color: var(--ink-2);
  }
  small {
    color: var(--ink-3);
    font-size: var(--fs-small);
    text-align: right;
  }
  @media (max-width: 1023px) {
    .two {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
