<!-- ψ or χ of a joint over one of its parameters: which one, the solved curve, and the hand on it. -->
<script lang="ts">
  import type { Joint, JointFamily, JointVariant, SweepPoint } from '@/api/client';
  import { api, inProject, take } from '@/api/client';
  import PsiCurve from '@/draw/PsiCurve.svelte';
  import { joints } from './joints.svelte';
  import { asking } from '@/api/live.svelte';
  import { router } from '@/project/router.svelte';
  import { Solving } from '@/api/solving.svelte';
  import Choice from '@/kit/Choice.svelte';
  import SolvingBar from '@/kit/SolvingBar.svelte';
  import type { Units } from '@/kit/units';

  interface Props {
    /** As saved: the curve belongs to it. */
    joint: Joint;
    family: JointFamily;
    variant: JointVariant;
    condition: string;
    revision: number;
    /** The parameters as drafted. */
    values: Record<string, string | number>;
    units: Units;
    width: number;
    onturn: (key: string, value: number) => void;
  }
  let { joint, family, variant, condition, revision, values, units, width, onturn }: Props = $props();
  const numbers = $derived(variant.parameters.filter((one) => one.kind === 'number'));
  let chosen = $state('');
  const swept = $derived(
    numbers.find((one) => one.key === chosen) ?? numbers.find((one) => one.key === 'position') ?? numbers[0],
  );
  const solving = new Solving();
  const sweep = asking(
    () => {
      const { key, least, most } = swept ?? {};
      if (key === undefined || typeof least !== 'number' || typeof most !== 'number') return undefined;
      const places = Array.from({ length: 13 }, (_, n) => least + (n / 12) * (most - least));
      return { project: router.place.project, joint, condition, key, values: places, revision };
    },
    async ({ project, joint, condition, key, values }): Promise<SweepPoint[]> => {
      const found = await solving.run((ticket) =>
        take(
          api.POST('/api/v1/projects/{project_id}/joint-sweep', {
            ...inProject(project),
            body: { joint, building_id: router.place.building, condition, key, values, ticket },
          }),
        ),
      );
      return found.points;
    },
  );
  const now = $derived(swept && values[swept.key]);
</script>

{#if swept}
  <h2>{family.point ? 'χ' : 'ψ'} over one parameter</h2>
  <Choice
    label="turn"
    value={swept.key}
    options={numbers.map((one) => ({ value: one.key, text: one.text }))}
    onsave={(key) => (chosen = key)}
  />
  {#if sweep.answer && sweep.answered?.key === swept.key}
    <PsiCurve
      points={sweep.answer}
      of={family.point ? 'coupling' : 'linear'}
      value={typeof now === 'number' ? now : Number(swept.start)}
      least={swept.least ?? 0}
      most={swept.most ?? 1}
      dimension={swept.dimension ?? 'length'}
      name={swept.text}
      {units}
      {width}
      stale={sweep.stale}
      onmove={(to) => joints.move(joints.turned(swept.key, to))}
      onrest={(to) => onturn(swept.key, Number(to.toPrecision(6)))}
    />
  {:else}<p role="status">Solving thirteen values</p>{/if}
  <SolvingBar {solving} name="the curve" />
{/if}

<style>
  p {
    color: var(--ink-3);
    font-size: var(--fs-small);
  }
</style>
