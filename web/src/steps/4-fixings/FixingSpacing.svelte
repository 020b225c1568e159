<!-- ΔU of a group over its spacing, solved and by the approximate formula, with the hand on it. -->
<script lang="ts">
  import { pairs } from 'd3-array';
  import type { Assembly, Fixing, FixingSweepPoint } from '@/api/client';
  import { api, inProject, take } from '@/api/client';
  import { asking } from '@/api/live.svelte';
  import { Solving } from '@/api/solving.svelte';
  import PsiCurve from '@/draw/PsiCurve.svelte';
  import SolvingBar from '@/kit/SolvingBar.svelte';
  import type { Units } from '@/kit/units';
  import { router } from '@/project/router.svelte';
  import { session } from '@/project/session.svelte';

  interface Props {
    draft: Assembly;
    fixing: Fixing;
    units: Units;
    width: number;
    onmove: (change: Partial<Fixing>) => void;
    onturn: (change: Partial<Fixing>, what: string) => void;
  }
  let { draft, fixing, units, width, onmove, onturn }: Props = $props();
  const saved = $derived(session.assembly(draft.id));
  const solving = new Solving();
  const sweep = asking(
    () =>
      saved?.fixings?.some((one) => one.id === fixing.id)
        ? {
            project: router.place.project,
            building: router.place.building,
            assembly: saved,
            fixing: fixing.id,
          }
        : undefined,
    async ({ project, building, assembly, fixing }): Promise<FixingSweepPoint[]> => {
      const found = await solving.run((ticket) =>
        take(
          api.POST('/api/v1/projects/{project_id}/fixing-sweep', {
            ...inProject(project),
            body: { building_id: building, assembly, fixing_id: fixing, ticket },
          }),
        ),
      );
      return found.points;
    },
  );
  const points = $derived(sweep.of({ fixing: fixing.id }) ?? []);
  const least = $derived(points[0]?.value ?? 0);
  const most = $derived(points.at(-1)?.value ?? 1);
  const spacing = $derived(fixing.across ?? Math.sqrt(1 / (fixing.n ?? 1)));
  /** The group at a spacing between those that were sent: its pattern changes evenly from one to the next. */
  function spaced(to: number): Partial<Fixing> {
    const [a, b] = pairs(points).find(([, right]) => to <= right.value) ?? [points.at(-2), points.at(-1)];
    if (!a || !b) return {};
    const share = (to - a.value) / (b.value - a.value);
    return { n: null, across: to, along: a.along + share * (b.along - a.along) };
  }
</script>

{#if points.length}
  <h2>ΔU over the spacing across, {units.symbol('transmittance')}</h2>
  <PsiCurve
    points={points.map((one) => ({
      value: one.value,
      psi: one.delta_U,
      f_rsi: null,
      why_not: one.why_not,
    }))}
    beside={points.map((one) => one.delta_U_approximate)}
    of="transmittance"
    value={spacing}
    {least}
    {most}
    dimension="length"
    name="spacing across"
    {units}
    {width}
    stale={sweep.stale}
    onmove={(to) => onmove(spaced(to))}
    onrest={(to) => onturn(spaced(Number(to.toPrecision(4))), `spacing ${units.full(to, 'length')}`)}
  />
  <p class="soft">Solved in ink, the approximate formula dashed.</p>
{:else}<p role="status" class="soft">Solving nine spacings</p>{/if}
<SolvingBar {solving} name="the spacings" />
