<!-- A number that opens to its working. -->
<script lang="ts">
  interface Props {
    value: string;
    unit?: string;
    label: string;
    onwork?: (() => void) | undefined;
    weight?: 'figure' | 'lead' | 'small';
    tone?: 'ink' | 'decision' | 'caution' | 'yours';
    /** What a click does. */
    act?: string;
  }
  let {
    value,
    unit = '',
    label,
    onwork,
    weight = 'small',
    tone = 'ink',
    act = 'show working',
  }: Props = $props();
</script>

{#if onwork}
  <button
    class="figure {weight} {tone}"
    onclick={onwork}
    aria-label="{label}: {unit ? `${value} ${unit}` : value}, {act}"
  >
    <b>{value}</b>{#if unit}<i>&nbsp;{unit}</i>{/if}
  </button>
{:else}
  <span class="figure {weight} {tone}"
    ><b>{value}</b>{#if unit}<i>&nbsp;{unit}</i>{/if}</span
  >
{/if}

<style>
  .figure {
    border: 0;
    background: none;
    text-align: inherit;
    white-space: nowrap;
    line-height: 1.15;
    padding: 1px 0;
  }
  /* A target of 24 px even where the ink is thinner. */
  button.figure {
    min-height: 24px;
    min-width: 24px;
  }
  b {
    font: 500 var(--fs-small) var(--mono);
    letter-spacing: -0.02em;
  }
  button b {
    border-bottom: 1px dotted var(--line);
  }
  button:hover b {
    border-bottom: 1px solid var(--verdigris);
    color: var(--verdigris);
  }
  .lead b {
    font-size: var(--fs-lead);
    font-weight: 600;
  }
  .figure.figure b {
    font-size: 17px;
    font-weight: 600;
  }
  .figure.small b {
    font-size: 12.5px;
    font-weight: 500;
  }
  .figure.lead b {
    font-size: var(--fs-lead);
  }
  .decision b {
    color: var(--oxide);
  }
  .caution b {
    color: var(--ochre);
  }
  .yours b {
    color: var(--verdigris);
  }
  i {
    font-style: normal;
    font-size: var(--fs-cap);
    color: var(--ink-2);
  }
</style>
