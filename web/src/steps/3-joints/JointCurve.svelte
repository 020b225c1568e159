<!-- ψ or χ of a joint over one of its parameters: which one, the solved curve, and the hand on it. -->
<script lang="ts">
  import type { Joint, JointFamily, JointVariant } from '@/api/client';
  import PsiCurve from '@/draw/PsiCurve.svelte';
  import { joints } from './joints.svelte';
  import { asking } from '@/api/live.svelte';
  import { router } from '@/project/router.svelte';
  import { Solving } from '@/api/solving.svelte';
  import { spread, swept } from '@/api/swept';
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
  const turned = $derived(
    numbers.find((one) => one.key === chosen) ?? numbers.find((one) => one.key === 'position') ?? numbers[0],
  );
  const solving = new Solving();
  const sweep = asking(
    () => {
      const values = spread(turned);
      if (!turned || !values) return undefined;
      const { project, building } = router.place;
      return { project, building, joint, condition, key: turned.key, values, revision };
    },
    (question) => swept(question, solving),
  );
  const now = $derived(turned && values[turned.key]);
</script>

{#if turned}
  <h2>{family.point ? 'χ' : 'ψ'} over one parameter</h2>
  <Choice
    label="turn"
    value={turned.key}
    options={numbers.map((one) => ({ value: one.key, text: one.text }))}
    onsave={(key) => (chosen = key)}
  />
  {#if sweep.answer && sweep.answered?.key === turned.key}
    <PsiCurve
      points={sweep.answer}
      of={family.point ? 'coupling' : 'linear'}
      value={typeof now === 'number' ? now : Number(turned.start)}
      least={turned.least ?? 0}
      most={turned.most ?? 1}
      dimension={turned.dimension ?? 'length'}
      name={turned.text}
      {units}
      {width}
      stale={sweep.stale}
      onmove={(to) => joints.move(joints.turned(turned.key, to))}
      onrest={(to) => onturn(turned.key, Number(to.toPrecision(6)))}
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
