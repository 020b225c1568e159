<!-- What is open in this building, each with what would settle it; from the register, as every other place reads it. -->
<script lang="ts">
  import type { Building, OpenDecision } from '@/api/client';
  import { decisions } from '@/project/decisions.svelte';
  import { session } from '@/project/session.svelte';
  import { counted } from '@/kit/reading';
  import Button from '@/kit/Button.svelte';
  import SolvingBar from '@/kit/SolvingBar.svelte';
  import { Solving } from '@/api/solving.svelte';
  import { goTo, settle } from './going';
  import { searchWays } from './ways';

  interface Props {
    building: Building;
    onclose: () => void;
  }
  let { building, onclose }: Props = $props();
  let panel = $state<HTMLElement>();
  $effect(() => {
    const back = document.activeElement;
    panel?.focus();
    return () => {
      if (back instanceof HTMLElement && back.isConnected) back.focus();
    };
  });
  const all = $derived(decisions.of(building.id));
  const groups = $derived(
    [
      { name: 'Falls short', state: 'open' },
      { name: 'Nobody has said yet', state: 'unknown' },
    ]
      .map((group) => ({ ...group, list: all.filter((one) => one.state === group.state) }))
      .filter((group) => group.list.length),
  );
  const solving = new Solving();
  let searched = $state('');
  let told = $state<Record<string, string>>({});
  /** Have the changes that settle a decision searched; they are ways out from then on. */
  async function search(one: OpenDecision): Promise<void> {
    searched = one.key;
    told[one.key] = await searchWays(one, building, solving);
    searched = '';
  }
  const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
  const zone = (one: OpenDecision) => (one.station && one.step > 1 ? `${one.station}${one.step}` : '1');
</script>

<div
  class="drawer no-print"
  role="dialog"
  aria-label="Open decisions"
  tabindex="-1"
  bind:this={panel}
  data-testid="register"
>
  <div class="bar">
    <span>Open decisions, {building.name}</span><button onclick={onclose}>Close <kbd>Esc</kbd></button>
  </div>
  {#if decisions.waiting}<p class="soft" role="status">
      Still being solved: {counted(
        decisions.live.answer?.waiting ?? 0,
        'joint or verdict',
        'joints and verdicts',
      )}; more may come.
    </p>{/if}
  {#each groups as group (group.state)}
    <h2>{group.name} <span class="soft">{group.list.length}</span></h2>
    <ul class={group.state}>
      {#each group.list as one (one.key)}
        <li>
          <button class="what" onclick={() => goTo(one)}><em>{zone(one)}</em> <span>{one.text}</span></button>
          {#if one.ways.some((way) => way.search)}
            <Button onclick={() => search(one)} disabled={searched !== ''}>Search what would settle it</Button
            >
            {#if searched === one.key}<SolvingBar {solving} name="the search" />{/if}
            {#if told[one.key]}<p class="soft" role="status">{told[one.key]}</p>{/if}
          {/if}
          {#each one.ways as way, at (at)}
            {#if way.thing || way.step || way.view}
              <Button
                onclick={() => (way.thing ? settle(one, way) : goTo(one, way))}
                disabled={!!way.thing && session.saves.saving > 0}
                >{capital(way.text)}{way.thing ? '' : ' …'}</Button
              >
            {:else}<p class="soft">{way.text}</p>{/if}
          {/each}
        </li>
      {/each}
    </ul>
  {:else}
    <p>{decisions.waiting ? 'Nothing yet.' : 'Nothing is open in this building.'}</p>
  {/each}
</div>

<style>
  .drawer {
    position: fixed;
    right: 0;
    top: var(--strip-h);
    bottom: var(--ledger-h);
    z-index: 4;
    width: 400px;
    max-width: 100vw;
    background: var(--sheet-bright);
    border-left: 2px solid var(--ink-2);
    padding: 10px 14px 20px;
    overflow: auto;
  }
  .bar {
    display: flex;
    justify-content: space-between;
    font-size: var(--fs-small);
    color: var(--ink-2);
  }
  .bar button,
  .what {
    all: unset;
    cursor: pointer;
  }
  .bar button:focus-visible,
  .what:focus-visible {
    box-shadow: var(--focus);
  }
  h2 {
    font-size: var(--fs-lead);
    margin: 14px 0 4px;
  }
  ul {
    list-style: none;
    margin: 0;
    padding: 0;
  }
  li {
    border-left: 3px solid var(--oxide);
    padding: 4px 0 6px 9px;
    margin-bottom: 7px;
    display: flex;
    flex-wrap: wrap;
    gap: 4px 6px;
  }
  .unknown li {
    border-color: var(--ochre-line);
  }
  .what {
    flex-basis: 100%;
    line-height: 1.35;
    font-size: 12.5px;
  }
  .what:hover span {
    text-decoration: underline;
  }
  .what em {
    font: 600 11.5px var(--mono);
    color: var(--verdigris);
    margin-right: 4px;
  }
  li p {
    margin: 0;
    font-size: var(--fs-small);
  }
</style>
