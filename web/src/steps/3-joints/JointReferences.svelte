<!-- What ψ is counted against: the plane elements beside the joint, and what the drawing takes for granted. -->
<script lang="ts">
  import type { JointDrawing, JointSolved } from '@/api/client';
  import type { Units } from '@/kit/units';

  interface Props {
    solved: JointSolved;
    drawing: JointDrawing;
    /** χ instead of ψ: there is nothing to convert. */
    point: boolean;
    note: string;
    dimensions: 'internal' | 'overall' | 'external';
    units: Units;
  }
  let { solved, drawing, point, note, dimensions, units }: Props = $props();
</script>

<h2>Against what</h2>
<table>
  <thead
    ><tr><th>plane element</th><th class="n">U</th><th class="n">{units.symbol('distance')}</th></tr></thead
  >
  <tbody>
    {#each solved.references as one, at (at)}
      <tr>
        <td>{one.name}</td><td class="n">{units.show(one.U, 'transmittance')}</td>
        <td class="n"
          >{units.show(
            one.lengths[['internal', 'overall', 'external'].indexOf(dimensions)] ?? 0,
            'distance',
          )}</td
        >
      </tr>
    {/each}
  </tbody>
</table>
<p class="soft">
  {#if !point}ψ internal {units.show(solved.psi_out['internal'] ?? 0, 'linear')}, overall {units.show(
      solved.psi_out['overall'] ?? 0,
      'linear',
    )}, external {units.show(solved.psi_out['external'] ?? 0, 'linear')}.{/if}
  {#each drawing.assumptions as one (one)}
    {one[0]?.toUpperCase()}{one.slice(1)}.{/each}
  {note}
</p>

<style>
  table {
    font-size: var(--fs-small);
  }
</style>
