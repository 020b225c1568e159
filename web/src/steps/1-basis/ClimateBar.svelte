<!-- Where the climate comes from: one that ships, a CSV or a weather file; and its daily range and scatter. -->
<script lang="ts">
  import type { Basis, Problem, Weather } from '@/api/client';
  import { api, asProblem, take } from '@/api/client';
  import { base64 } from '@/kit/file';
  import { session } from '@/project/session.svelte';
  import Button from '@/kit/Button.svelte';
  import Choice from '@/kit/Choice.svelte';
  import Entry from '@/kit/Entry.svelte';
  import Notice from '@/kit/Notice.svelte';
  import type { Units } from '@/kit/units';

  interface Props {
    basis: Basis;
    name: string;
    units: Units;
  }
  let { basis, name, units }: Props = $props();
  let input = $state<HTMLInputElement>();
  let problem = $state.raw<Problem>();
  let read = $state.raw<Weather>();
  const month = $derived(basis.climate.theta_e.indexOf(Math.max(...basis.climate.theta_e)));

  function take_(climate: Basis['climate'], site: Partial<Basis['site']>, text: string): void {
    void session.saveBasis({ ...basis, climate, site: { ...basis.site, ...site } }, name, text.slice(0, 200));
  }
  function ship(key: string): void {
    const found = session.shipped?.climates.find((one) => one.key === key);
    if (found)
      take_(
        found.climate,
        { theta_winter: found.theta_winter, theta_summer: found.theta_summer },
        `Climate: ${found.climate.name}`,
      );
  }
  async function open(file: File | undefined): Promise<void> {
    if (!file) return;
    problem = undefined;
    read = undefined;
    try {
      read = await take(
        api.POST('/api/v1/weather', { body: { name: file.name.slice(0, 200), content: await base64(file) } }),
      );
    } catch (error) {
      problem = asProblem(error);
    } finally {
      if (input) input.value = '';
    }
  }
  function accept(): void {
    if (!read) return;
    const site = read.site
      ? {
          place: read.site.place,
          latitude: read.site.latitude,
          altitude: read.site.altitude,
          theta_winter: read.site.theta_winter,
          theta_summer: read.site.theta_summer,
        }
      : {};
    take_(read.climate, site, `Climate: ${read.climate.name}`);
    read = undefined;
  }
  const all = (value: number) => Array.from({ length: 12 }, () => value);
  function scatter(kind: 'swing' | 'sigma', value: number): void {
    const now = basis.climate[kind] ?? all(8);
    const shift = value - (now[month] ?? 0);
    const climate = {
      ...basis.climate,
      [kind]: now.map((one) => Math.max(0, Number((one + shift).toFixed(2)))),
    };
    take_(climate, {}, kind === 'swing' ? 'Daily range' : 'Spread of daily means');
  }
</script>

<p class="soft">{basis.climate.name}. {basis.climate.source}</p>
<div class="row">
  <Choice
    label="take a shipped climate"
    value=""
    options={[
      { value: '', text: 'invented, by formula' },
      ...(session.shipped?.climates ?? []).map((one) => ({ value: one.key, text: one.climate.name })),
    ]}
    onsave={ship}
  />
  <Button onclick={() => input?.click()}>Read a CSV or EPW file</Button>
  <Entry
    label="daily range, warmest month"
    dimension="difference"
    value={basis.climate.swing?.[month] ?? 8}
    width="tiny"
    onsave={(value) => value !== null && scatter('swing', value)}
  />
  <Entry
    label="spread of daily means"
    dimension="difference"
    value={basis.climate.sigma?.[month] ?? 3}
    width="tiny"
    onsave={(value) => value !== null && scatter('sigma', value)}
  />
</div>
<input
  class="visually-hidden"
  type="file"
  accept=".csv,.epw,text/csv"
  aria-label="Climate file to read"
  tabindex="-1"
  bind:this={input}
  onchange={(event) => void open(event.currentTarget.files?.[0])}
/>
{#if problem}
  <Notice
    title="The climate file was not read. Nothing was changed."
    text={problem.items.map((item) => `${item.detail}: ${item.hint}.`).join(' ') || problem.sentence}
    live
  />
{/if}
{#if read}
  <Notice
    tone="note"
    title="Read: {read.climate.name}."
    text="{read.site
      ? `${read.site.hours} hours, ${read.site.filled} of them filled from their neighbours; design ${units.full(read.site.theta_winter, 'temperature')} and ${units.full(read.site.theta_summer, 'temperature')}. `
      : ''}Mean of January {units.full(read.climate.theta_e[0] ?? 0, 'temperature')}, of July {units.full(
      read.climate.theta_e[6] ?? 0,
      'temperature',
    )}."
    live
    ><Button strong onclick={accept}>Take it</Button><Button onclick={() => (read = undefined)}
      >Leave it</Button
    ></Notice
  >
{/if}

<style>
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 12px;
    align-items: center;
    margin-top: 6px;
  }
  .row :global(select) {
    max-width: 190px;
  }
</style>
