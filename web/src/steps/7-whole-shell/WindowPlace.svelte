<!-- Where the windows sit in the depth of the wall: installed ψ over it, solved, and the hand on it. -->
<script lang="ts">
  import { asking } from '@/api/live.svelte';
  import type { Building, Joint, JointFamily, WholeBuilding } from '@/api/client';
  import { Solving } from '@/api/solving.svelte';
  import { spread, swept } from '@/api/swept';
  import PsiCurve from '@/draw/PsiCurve.svelte';
  import SolvingBar from '@/kit/SolvingBar.svelte';
  import type { Units } from '@/kit/units';
  import { href, router } from '@/project/router.svelte';
  import { session } from '@/project/session.svelte';

  interface Props {
    joint: Joint;
    family: JointFamily;
    found: WholeBuilding;
    building: Building;
    units: Units;
  }
  let { joint, family, found, building, units }: Props = $props();
  const KEY = 'position';
  const place = $derived(router.place);
  const variant = $derived(family.variants.find((one) => one.key === joint.variant));
  const parameter = $derived(variant?.parameters.find((one) => one.key === KEY));
  const solving = new Solving();
  const sweep = asking(
    () => {
      const values = spread(parameter);
      const revision = session.open?.revision ?? 0;
      const { project } = router.place;
      return (
        values && { project, building: building.id, joint, condition: 'winter', key: KEY, values, revision }
      );
    },
    (question) => swept(question, solving),
  );
  const points = $derived(sweep.of({ building: building.id }) ?? []);
  const known = $derived(points.filter((one) => one.psi !== null));
  const saved = $derived(
    joint.values?.find((one) => one.key === KEY)?.number ?? Number(parameter?.start ?? 0),
  );
  let hand = $state<{ of: Joint; at: number }>();
  const at = $derived(hand?.of === joint ? hand.at : saved);
  const line = $derived(found.losses.find((one) => one.id === joint.id));
  const best = $derived(known.toSorted((a, b) => (a.psi ?? 0) - (b.psi ?? 0))[0]);
  const least = $derived(Math.min(...known.map((one) => one.f_rsi ?? 1)));
  const most = $derived(Math.max(...known.map((one) => one.f_rsi ?? 0)));
  let width = $state(460);

  async function rest(to: number): Promise<void> {
    hand = { of: joint, at: to };
    const values = [
      ...(joint.values ?? []).filter((one) => one.key !== KEY),
      { key: KEY, number: Number(to.toPrecision(6)) },
    ];
    const joints = (building.joints ?? []).map((one) => (one.id === joint.id ? { ...one, values } : one));
    const text = `${joint.name}: ${parameter?.text ?? ''} ${units.show(to, 'share', 0)} %`;
    await session.saveBuilding({ ...building, joints }, text.slice(0, 200), `${joint.station}3`);
    hand = undefined;
  }
</script>

<figure data-testid="window-place">
  <figcaption>
    <a href={href({ ...place, step: 3, station: joint.station, element: joint.id, view: '' })}>{joint.name}</a
    >{#if line}, {units.full(line.amount, 'distance', 1)}{/if}
  </figcaption>
  <div bind:clientWidth={width}>
    {#if points.length}
      <PsiCurve
        {points}
        value={at}
        least={parameter?.least ?? 0}
        most={parameter?.most ?? 1}
        dimension={parameter?.dimension ?? 'share'}
        name="{joint.name}, {parameter?.text}"
        {units}
        {width}
        stale={sweep.stale}
        onmove={(to) => (hand = { of: joint, at: to })}
        onrest={(to) => void rest(to)}
      />
    {:else if sweep.problem}<p role="alert">{sweep.problem.sentence}</p>
    {:else}<p role="status">Solving thirteen places</p>{/if}
    <SolvingBar {solving} name="the places of {joint.name}" />
  </div>
  {#if best && known.length > 1 && !sweep.stale}
    <p class="soft">
      {#if known.length < points.length}Of {known.length} of {points.length} places, those that are solved:
      {/if}
      {#if line && line.H !== null}Now {units.full(line.H, 'coupling', 2)}; at its best about {units.full(
          (best.psi ?? 0) * line.amount,
          'coupling',
          2,
        )}.{/if}
      Its coldest inside surface lies between f<sub>Rsi</sub>
      {least.toFixed(2)} and {most.toFixed(2)}{best.f_rsi === null
        ? ''
        : `, ${best.f_rsi.toFixed(2)} where ψ is least`}.
    </p>
  {/if}
</figure>

<style>
  figure {
    margin: 0 0 10px;
  }
  figcaption {
    font-size: var(--fs-small);
  }
</style>
