<!-- The figure opened to its working: formula, the same with numbers, inputs and where they come from, clause. -->
<script lang="ts">
  import { session } from '@/project/session.svelte';
  import { working } from '@/project/working.svelte';
  import Button from '@/kit/Button.svelte';
  import { plainSymbol, shortNumber, symbol, tokens } from '@/kit/symbols';

  let panel = $state<HTMLElement>();
  let back: Element | null = null;
  const steps = $derived(working.steps);
  const figure = $derived(steps.at(-1));
  const formulas = $derived(steps.filter((step) => step.formula));
  const inputs = $derived(steps.filter((step) => !step.formula));
  const values = $derived(new Map(steps.map((step) => [step.symbol, step.value])));
  const units = $derived(session.units);
  let copied = $state(false);

  $effect(() => {
    if (working.opened && panel) {
      back = document.activeElement;
      panel.focus();
      return () => {
        if (back instanceof HTMLElement && back.isConnected) back.focus();
      };
    }
    return undefined;
  });

  async function copy(): Promise<void> {
    const lines = steps.map((step) =>
      step.formula
        ? `${plainSymbol(step.symbol)} = ${step.formula} = ${step.value} ${step.unit}   [${step.text}; ${step.source}]`
        : `${plainSymbol(step.symbol)} = ${step.value} ${step.unit}   [${step.text}; ${step.source}]`,
    );
    await navigator.clipboard.writeText([working.opened?.title ?? '', ...lines].join('\n'));
    copied = true;
    setTimeout(() => (copied = false), 2000);
  }
</script>

{#snippet sym(name: string)}
  {@const parts = symbol(name)}<var
    >{parts.base}{#if parts.sub}<sub>{parts.sub}</sub>{/if}</var
  >
{/snippet}

{#if working.opened}
  <div
    class="drawer no-print"
    role="dialog"
    aria-label="Working: {working.opened.title}"
    tabindex="-1"
    bind:this={panel}
    data-testid="working"
  >
    <div class="bar">
      <span>Working</span><button onclick={() => working.close()}>Close <kbd>Esc</kbd></button>
    </div>
    <h2>{working.opened.title}</h2>
    {#if working.problem}
      <p class="problem">{working.problem.sentence}</p>
    {:else if figure && units}
      <p class="result" data-value={figure.value}>
        <b>{units.full(figure.value, working.opened.dimension, working.opened.decimals)}</b>
      </p>
      <p class="full">{figure.value} {figure.unit} unrounded, in SI</p>
      <ol>
        {#each formulas.toReversed() as step (step.symbol)}
          <li>
            <p class="what">{step.text}</p>
            <p class="formula">
              {@render sym(step.symbol)} =
              {#each tokens(step.formula) as token, at (at)}{#if token.kind === 'symbol'}{@render sym(
                    token.name,
                  )}{:else}{token.text}{/if}{/each}
            </p>
            <p class="numbers">
              = {#each tokens(step.formula) as token, at (at)}{token.kind === 'symbol'
                  ? shortNumber(values.get(token.name) ?? NaN)
                  : token.text}{/each}
            </p>
            <p class="equals">= <b>{shortNumber(step.value)}</b> {step.unit}</p>
            {#if step.source}<p class="source">{step.source}</p>{/if}
          </li>
        {/each}
      </ol>
      <h3>Inputs</h3>
      <table>
        <tbody>
          {#each inputs as step (step.symbol)}
            <tr>
              <th scope="row">{@render sym(step.symbol)}</th>
              <td><span>{step.text}</span><small>{step.source}</small></td>
              <td class="number">{shortNumber(step.value)}<small>{step.unit}</small></td>
            </tr>
          {/each}
        </tbody>
      </table>
      <div class="foot">
        <Button onclick={() => void copy()}>{copied ? 'Copied' : 'Copy as text'}</Button>
      </div>
    {:else}
      <p class="full" role="status">Working it out</p>
    {/if}
  </div>
{/if}

<style>
  .drawer {
    position: fixed;
    right: 0;
    top: var(--strip-h);
    bottom: var(--ledger-h);
    width: 380px;
    max-width: 100vw;
    background: var(--sheet-bright);
    border-left: 2px solid var(--ink-2);
    padding: var(--s3) var(--s4);
    overflow: auto;
    z-index: 5;
  }
  .bar {
    display: flex;
    justify-content: space-between;
    color: var(--ink-2);
  }
  .bar button {
    border: 0;
    background: none;
    min-height: 24px;
  }
  h2 {
    font-size: var(--fs-title);
    font-weight: 600;
    line-height: 1.25;
  }
  h3 {
    font-size: var(--fs-lead);
    font-weight: 600;
    margin: var(--s4) 0 var(--s1);
  }
  .result b {
    font: 600 var(--fs-figure) var(--mono);
    color: var(--verdigris);
    letter-spacing: -0.03em;
  }
  .full,
  .source {
    font-size: var(--fs-cap);
    color: var(--ink-3);
    overflow-wrap: anywhere;
  }
  ol {
    list-style: none;
    margin-top: var(--s2);
  }
  li {
    border-top: 1px solid var(--hair);
    padding: 7px 0;
  }
  .what {
    font-weight: 500;
  }
  .formula {
    font-size: var(--fs-lead);
    overflow-wrap: anywhere;
  }
  .numbers,
  .equals {
    font: 400 var(--fs-small) var(--mono);
    letter-spacing: -0.02em;
    color: var(--ink-2);
    overflow-wrap: anywhere;
  }
  .equals b {
    color: var(--ink);
    font-weight: 600;
  }
  var {
    font-style: normal;
    font-weight: 500;
  }
  sub {
    font-size: 0.75em;
  }
  table {
    width: 100%;
    border-collapse: collapse;
    font-size: var(--fs-small);
  }
  tr {
    border-top: 1px solid var(--hair);
  }
  th,
  td {
    text-align: left;
    vertical-align: top;
    padding: 3px 6px 3px 0;
    font-weight: 400;
  }
  small {
    display: block;
    color: var(--ink-3);
    font-size: var(--fs-cap);
  }
  .number {
    text-align: right;
    font-family: var(--mono);
    white-space: nowrap;
    padding-right: 0;
  }
  .problem {
    color: var(--oxide);
  }
  .foot {
    margin-top: var(--s3);
  }
  @media (min-width: 1600px) {
    .drawer {
      position: static;
      flex: none;
    }
  }
</style>
