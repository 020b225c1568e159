<!-- The schools that a project follows: decimals, films, methods, vapour, and between which faces is measured. -->
<script lang="ts">
  import type { Basis } from '@/api/client';
  import Button from '@/kit/Button.svelte';
  import Choice from '@/kit/Choice.svelte';
  import Notice from '@/kit/Notice.svelte';
  import type { Units } from '@/kit/units';

  type Schools = Basis['schools'];
  interface Props {
    schools: Schools;
    units: Units;
    onchange: (change: Partial<Schools>, words: string) => void;
  }
  let { schools, units, onchange }: Props = $props();
  /** A choice's word, as one of those that it offers. */
  const as = <K extends keyof Schools>(key: K, word: string) => ({ [key]: word }) as Partial<Schools>;
</script>

<Choice
  label="typed 1,200"
  value={schools.decimal}
  options={[
    { value: 'point', text: units.system === 'IP' ? 'is 1200' : 'is asked back' },
    { value: 'comma', text: 'is 1.2, decimal comma' },
  ]}
  onsave={(decimal) => onchange(as('decimal', decimal), `Decimal ${decimal}`)}
/>
<Choice
  label="surface films"
  value={schools.films}
  options={[
    { value: 'iso6946', text: 'ISO 6946' },
    { value: 'north_american', text: 'North American' },
  ]}
  onsave={(films) => onchange(as('films', films), 'School of films')}
/>
{#if units.system === 'IP' && schools.films !== 'north_american'}
  <Notice tone="note" title="You read inch-pound; surface films are those of ISO 6946.">
    <Button onclick={() => onchange({ films: 'north_american' }, 'School of films')}
      >Use North American films</Button
    >
  </Notice>
{/if}
<Choice
  label="bridged R"
  value={schools.bridged}
  options={[
    { value: 'parallel', text: 'parallel paths' },
    { value: 'isothermal', text: 'isothermal planes' },
    { value: 'combined', text: 'combined limits' },
  ]}
  onsave={(bridged) => onchange(as('bridged', bridged), `Bridged R by ${bridged}`)}
/>
<Choice
  label="labelled λ at"
  value={String(schools.label_mean)}
  options={[
    { value: '10', text: `${units.full(10, 'temperature', 0)} mean` },
    { value: '24', text: `${units.full(24, 'temperature', 0)} mean` },
  ]}
  onsave={(value) => onchange({ label_mean: Number(value) }, 'Label temperature')}
/>
<Choice
  label="vapour"
  value={schools.vapour}
  options={[
    { value: 'sd', text: 'μ and s_d' },
    { value: 'perm', text: 'permeance' },
  ]}
  onsave={(vapour) => onchange(as('vapour', vapour), 'Vapour quantities')}
/>
<Choice
  label="areas and lengths by"
  value={schools.dimensions}
  options={[
    { value: 'external', text: 'outer faces' },
    { value: 'overall', text: 'overall inner faces' },
    { value: 'internal', text: 'inner faces' },
  ]}
  onsave={(dimensions) => onchange(as('dimensions', dimensions), 'Areas and lengths by other faces')}
/>
<Choice
  label="shapes are drawn to"
  value={schools.drawn_to}
  options={[
    { value: 'outer', text: 'outer faces' },
    { value: 'structure', text: 'outer faces of the structure' },
    { value: 'inner', text: 'inner faces' },
  ]}
  onsave={(drawn_to) => onchange(as('drawn_to', drawn_to), 'Shapes drawn to other faces')}
/>
