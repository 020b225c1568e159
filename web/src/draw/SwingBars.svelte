<!-- What each input does to the money over the life: bars either side of one datum, the largest first. -->
<script lang="ts">
  import type { Decision } from '@/api/client';
  import type { Units } from '@/kit/units';

  interface Props {
    swings: Decision['swings'];
    units: Units;
  }
  let { swings, units }: Props = $props();
  const most = $derived(Math.max(...swings.flatMap((swing) => swing.money.map(Math.abs)), 1e-9));
  const size = (value: number) => (Math.abs(value) / most) * 44;
</script>

<table>
  <caption class="visually-hidden">Change of money over the life for each input varied by itself</caption>
  <tbody>
    {#each swings as swing (swing.key)}
      {@const [low = 0, high = 0] = swing.money}
      <tr>
        <th scope="row">{swing.text}</th>
        <td
          ><svg width="92" height="14" aria-hidden="true">
            <path d="M46 0V14" />
            {#each [low, high] as value, at (at)}
              <rect
                class:gain={value < 0}
                x={value < 0 ? 46 - size(value) : 46}
                y="3"
                width={size(value)}
                height="8"
                fill={value < 0 ? 'var(--ink)' : 'url(#h-loss)'}
              />
            {/each}
          </svg></td
        >
        <td class="n">±{units.show(Math.max(Math.abs(low), Math.abs(high)), 'cost', 1)}</td>
      </tr>
    {/each}
  </tbody>
</table>

<style>
  table {
    font-size: var(--fs-cap);
    width: 100%;
  }
  th {
    color: var(--ink-2);
    padding-right: 4px;
  }
  td,
  th {
    line-height: 1;
    border: 0;
    padding-block: 0;
  }
  .n {
    font-family: var(--mono);
    letter-spacing: -0.04em;
  }
  path {
    stroke: var(--ink);
  }
  rect {
    stroke: var(--ochre-line);
    stroke-width: 0.75;
  }
  rect.gain {
    stroke: none;
  }
</style>
