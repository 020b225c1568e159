<!-- A supplier's claim for the core, worked through to what remains of it in the wall. -->
<script lang="ts">
  import type { Assembly, Checked, Problem, Studied } from '@/api/client';
  import { api, asProblem, inProject, take } from '@/api/client';
  import Button from '@/kit/Button.svelte';
  import Choice from '@/kit/Choice.svelte';
  import Entry from '@/kit/Entry.svelte';
  import Notice from '@/kit/Notice.svelte';
  import type { Units } from '@/kit/units';
  import { router } from '@/project/router.svelte';
  import Worked from '@/project/Worked.svelte';

  interface Props {
    draft: Assembly;
    units: Units;
  }
  let { draft, units }: Props = $props();
  const place = $derived(router.place);
  const core = $derived(draft.layers.find((layer) => layer.studied));
  let claimR = $state<number>();
  let claimD = $state<number>();
  let theta = $state('24');
  let age = $state('fresh');
  let checked = $state.raw<{ found: Checked; assembly: Assembly; of: Studied }>();
  let refused = $state.raw<Problem>();
  async function check(): Promise<void> {
    refused = undefined;
    checked = undefined;
    try {
      const assembly = draft;
      const asked = { R: claimR ?? 0, d: claimD ?? core?.d ?? 0, theta: Number(theta), age: age as 'fresh' };
      const found = await take(
        api.POST('/api/v1/projects/{project_id}/claim', {
          ...inProject(place.project),
          body: { building_id: place.building, assembly, ...asked },
        }),
      );
      checked = { found, assembly, of: { kind: 'claim', ...asked } };
    } catch (error) {
      refused = asProblem(error);
    }
  }
</script>

<h2>A supplier's claim for the core</h2>
<div class="controls" data-testid="claim">
  <Entry
    label="claimed R"
    dimension="resistance"
    value={claimR}
    optional
    positive
    onsave={(value) => (claimR = value ?? undefined)}
  />
  <Entry
    label="of thickness"
    dimension="length"
    value={claimD ?? core?.d}
    positive
    onsave={(value) => (claimD = value ?? undefined)}
  />
  <Choice
    label="mean temperature"
    value={theta}
    options={['-4', '4', '10', '24'].map((value) => ({
      value,
      text: units.full(Number(value), 'temperature', 0),
    }))}
    onsave={(value) => (theta = value)}
  />
  <Choice
    label="tested"
    value={age}
    options={[
      { value: 'fresh', text: 'fresh, or not said' },
      { value: 'aged', text: 'aged' },
    ]}
    onsave={(value) => (age = value)}
  />
  <Button strong onclick={() => void check()} disabled={!claimR}>Work it through</Button>
</div>
{#if refused}<Notice title="The claim cannot be worked through." text={refused.sentence} live />{/if}
{#if checked}
  {@const said = checked}
  {#snippet figure(key: string, title: string, text: string, dimension = 'resistance')}<Worked
      figure={key}
      {title}
      {text}
      {dimension}
      assembly={said.assembly}
      of={said.of}
    />{/snippet}
  {#snippet R(key: string, title: string)}{@render figure(
      key,
      title,
      units.show(said.found.figures[key] ?? 0, 'resistance'),
    )}{/snippet}
  <p data-testid="claim-answer">
    Claimed λ {@render figure(
      'lambda_claimed',
      'Claimed λ',
      units.full(said.found.lambda_claimed, 'conductivity', 4),
      'conductivity',
    )}; aged and at the label temperature of the Basis {@render figure(
      'lambda_aged',
      'Claimed λ, aged, at the label',
      units.full(said.found.lambda_aged, 'conductivity', 4),
      'conductivity',
    )}, where the catalogue has {units.full(said.found.lambda_catalogue, 'conductivity', 4)}. With it this
    build-up is R {@render R('R_nominal', 'R nominal with the claim')} nominal, {@render R(
      'R_parallel',
      'R by parallel paths with the claim',
    )} by parallel paths, {@render R('R_isothermal', 'R by isothermal planes with the claim')} by isothermal planes,
    {@render R('R_combined', 'R combined with the claim')} combined, {@render R(
      'R_winter_clear',
      'R in winter with the claim',
    )} in winter and {@render R('R_summer_clear', 'R in summer with the claim')} in summer.
    <b
      >{@render figure(
        'remains',
        'Clear-wall R over the claim',
        `${units.show(said.found.remains, 'share', 0)} %`,
        'share',
      )} of the claim is the clear wall's R</b
    >, films and the other layers included; joints and fixings still to come off.
  </p>
{/if}

<style>
  h2 {
    margin-top: 16px;
    border-top: 1px solid var(--line);
    padding-top: 8px;
  }
</style>
