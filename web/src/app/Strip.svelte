<!-- The job's steps that are built, the units, and the way back to the projects. -->
<script lang="ts">
  import { decisions, seenIn } from '@/project/decisions.svelte';
  import { href, router } from '@/project/router.svelte';
  import { session } from '@/project/session.svelte';
  import { STEPS } from './steps';

  interface Props {
    onunits: (units: 'SI' | 'IP') => void;
    onpalette: () => void;
    onregister: () => void;
    onkeys: () => void;
  }
  let { onunits, onpalette, onregister, onkeys }: Props = $props();
  const place = $derived(router.place);
  const units = $derived(session.system);
  const open = $derived(decisions.open(place.building));
  const building = $derived(place.building || (session.open?.project.buildings?.[0]?.id ?? ''));

  function go(event: MouseEvent, change: Parameters<typeof router.go>[0]): void {
    if (event.ctrlKey || event.metaKey || event.shiftKey) return;
    event.preventDefault();
    router.go(change);
  }
</script>

<header class="strip no-print">
  <a class="job" href="/" onclick={(event) => go(event, { project: '', building: '' })}>
    {#if session.open}
      <b>{session.open.project.name}</b><span>revision {session.open.revision} · all projects</span>
    {:else}
      <b>Nimble Shell</b><span>projects</span>
    {/if}
  </a>
  <nav aria-label="Steps of the job">
    {#if session.open}
      {#each STEPS as { step, name } (step)}
        {@const on = place.step === step}
        <a
          class:on
          aria-current={on ? 'page' : undefined}
          href={href({ ...place, building, step })}
          onclick={(event) => go(event, { step, building })}
        >
          <em>{step}</em><span class="step">{name}</span>
          {#if open.some((one) => seenIn(one, step))}<i class="decision" title="a decision waits"></i><span
              class="visually-hidden">, a decision waits</span
            >{:else}<i class="bar"></i>{/if}
        </a>
      {/each}
    {/if}
  </nav>
  {#if session.open}
    <button class="palette" class:open={open.length} onclick={onregister} data-testid="open-count"
      >{open.length
        ? `${open.length} open`
        : !decisions.knows(place.building)
          ? 'reading'
          : decisions.waiting
            ? 'solving'
            : 'nothing open'}
      <kbd>N</kbd></button
    >
    <button class="palette" onclick={onpalette}>Do anything <kbd>Ctrl K</kbd></button>
    <button class="palette keys" onclick={onkeys} title="Keys">Keys <kbd>?</kbd></button>
    <div class="units" role="group" aria-label="Units you read in">
      {#each ['SI', 'IP'] as const as system (system)}
        <button aria-pressed={units === system} class:on={units === system} onclick={() => onunits(system)}
          >{system}</button
        >
      {/each}
    </div>
  {/if}
</header>

<style>
  .strip {
    display: flex;
    height: var(--strip-h);
    background: var(--limestone);
    border-bottom: 1px solid var(--line);
    position: relative;
    z-index: 3;
  }
  .job {
    width: var(--mast-w);
    flex: none;
    padding: 4px 8px 0 12px;
    line-height: 1.2;
    border-right: 1px solid var(--line);
    color: inherit;
    text-decoration: none;
    overflow: hidden;
    white-space: nowrap;
  }
  .job b {
    display: block;
    font-weight: 600;
    font-size: 13.5px;
    text-overflow: ellipsis;
    overflow: hidden;
  }
  .job span {
    font-size: var(--fs-cap);
    color: var(--ink-2);
  }
  .job:hover span {
    color: var(--verdigris);
    text-decoration: underline;
  }
  nav {
    display: flex;
    flex: 1;
  }
  nav a {
    /* Eleven steps have to stand on the smallest screen. */
    padding: 11px clamp(7px, calc((100vw - 900px) / 42), 18px) 0;
    position: relative;
    font-size: 12.5px;
    color: var(--ink-2);
    text-decoration: none;
    border-inline: 1px solid transparent;
    height: 41px;
    white-space: nowrap;
  }
  nav a:hover {
    color: var(--ink);
  }
  nav em {
    font: 500 var(--fs-cap) var(--mono);
    color: var(--ink-3);
    margin-right: 5px;
  }
  nav a.on {
    background: var(--sheet);
    color: var(--verdigris);
    font-weight: 600;
    border-color: var(--line);
    box-shadow: inset 0 3px var(--verdigris);
  }
  .on em {
    color: var(--verdigris);
  }
  i {
    position: absolute;
    left: 50%;
    bottom: 3px;
  }
  .bar {
    width: 13px;
    margin-left: -6px;
    height: 3px;
    background: var(--ink-2);
  }
  .decision {
    width: 7px;
    height: 7px;
    margin-left: -3px;
    background: var(--oxide);
  }
  .palette {
    border: 0;
    background: none;
    font-size: var(--fs-small);
    color: var(--ink-2);
    padding: 0 14px;
    white-space: nowrap;
  }
  .palette:hover {
    color: var(--verdigris);
  }
  .units {
    display: flex;
    align-items: center;
    padding: 0 12px 0 10px;
    border-left: 1px solid var(--line);
  }
  .units button {
    font: 500 var(--fs-small) var(--mono);
    padding: 3px 8px;
    min-height: 24px;
    border: 1px solid var(--line);
    color: var(--ink-2);
    background: var(--sheet);
  }
  .units button + button {
    border-left: 0;
  }
  .units button.on {
    background: var(--verdigris);
    border-color: var(--verdigris);
    color: var(--sheet-bright);
  }
  @media (max-width: 1023px) {
    .job {
      width: 140px;
    }
    nav a {
      padding-inline: 8px;
    }
    nav em {
      margin-right: 3px;
    }
    .units {
      padding-inline: 6px;
    }
    .palette {
      margin-left: 0;
      padding: 0 6px;
    }
    .palette kbd {
      display: none;
    }
  }
  /* Where not all of their names have room a step is its number; the one that is open keeps its name. */
  @media (max-width: 1199px) {
    nav a:not(.on) .step {
      position: absolute;
      width: 1px;
      height: 1px;
      overflow: hidden;
      clip-path: inset(50%);
    }
    nav a:not(.on) em {
      margin: 0 4px;
    }
  }
  @media (max-width: 759px) {
    .job {
      width: 104px;
    }
    nav a {
      padding-inline: 3px;
    }
  }
  @media (max-width: 1179px) {
    .keys {
      display: none;
    }
  }
  .palette.open {
    color: var(--oxide);
    font-weight: 600;
  }
</style>
