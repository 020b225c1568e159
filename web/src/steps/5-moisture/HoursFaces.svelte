<!-- Temperature, humidity and water at the faces between layers, at one moment of a run. -->
<script lang="ts">
  import type { HoursRun } from '@/api/client';
  import type { States } from '@/draw/states';
  import type { Units } from '@/kit/units';

  interface Props {
    run: HoursRun;
    field: States;
    /** Places on both sides of each face. */
    faces: { inner: number; outer: number }[];
    moment: number;
    named: (layer: number) => string;
    units: Units;
  }
  let { run, field, faces, moment, named, units }: Props = $props();
</script>

<table data-testid="faces">
  <thead
    ><tr
      ><th>between</th><th class="n">{units.symbol('temperature')}</th><th class="n">% RH</th><th class="n"
        >{units.symbol('density')}</th
      ></tr
    ></thead
  >
  <tbody>
    {#each faces as one (one.inner)}
      {@const a = field.at(moment, one.inner)}
      {@const b = field.at(moment, one.outer)}
      <tr>
        <td>{named(run.layer[one.inner] ?? 0)} and {named(run.layer[one.outer] ?? 0)}</td>
        <td class="n">{units.show((a.theta + b.theta) / 2, 'temperature')}</td>
        <td class="n">{units.show(Math.max(a.phi, b.phi), 'share', 0)}</td>
        <td class="n">{units.show(a.w, 'density', 1)} | {units.show(b.w, 'density', 1)}</td>
      </tr>
    {/each}
  </tbody>
</table>
