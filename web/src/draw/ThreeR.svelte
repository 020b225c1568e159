<!-- R by kind and method as bars on one scale: what is lost to members is hatched and named. -->
<script lang="ts">
  import type { BenchOut } from '@/api/client';
  import Figure from '@/kit/Figure.svelte';
  import type { Units } from '@/kit/units';

  interface Props {
    found: BenchOut;
    units: Units;
    asked: number | null | undefined;
    method: string;
    stale: boolean;
    onwork: (figure: string, title: string, dimension: string) => void;
  }
  let { found, units, asked, method, stale, onwork }: Props = $props();
  const R = (key: string) => found.figures[`R_${key}`]?.value ?? 0;
  const U = (key: string) => found.figures[`U_${key}`]?.value ?? 0;
  const top = $derived(Math.max(R('nominal'), R('parallel'), asked ?? 0) * 1.17);
  const part = (value: number) => `${(100 * value) / top}%`;
  const rows = $derived([
    { key: 'nominal', name: 'Nominal', words: 'as labelled, through the field' },
    { key: 'parallel', name: 'Clear wall', words: 'parallel paths' },
    { key: 'isothermal', name: 'Clear wall', words: 'isothermal planes' },
    { key: 'combined', name: 'Clear wall', words: 'combined limits' },
  ]);
  const open = $derived(found.study ? !found.study.met : false);
</script>

<div class="three" data-stale={stale} data-testid="three-r">
  {#each rows as row (row.key)}
    {@const used = row.key === method}
    <div class="row" class:used>
      <p>
        <b>{row.name}</b> <span>{row.words}{used ? ' · in use' : ''}</span>
        <span class="u"
          >U <Figure
            value={units.show(U(row.key), 'transmittance')}
            label="U, {row.name}, {row.words}"
            onwork={() =>
              onwork(`U_${row.key}`, `U, ${row.name.toLowerCase()}, ${row.words}`, 'transmittance')}
          /></span
        >
      </p>
      <div class="track">
        <div class="bar" class:thin={row.key !== 'nominal' && !used} style:width={part(R(row.key))}>
          <button
            onclick={() => onwork(`R_${row.key}`, `R, ${row.name.toLowerCase()}, ${row.words}`, 'resistance')}
            aria-label="R, {row.name}, {row.words}: {units.full(R(row.key), 'resistance')}, show working"
            data-testid="R-{row.key}">{units.show(R(row.key), 'resistance')}</button
          >
        </div>
        {#if row.key !== 'nominal' && R('nominal') - R(row.key) > 0.005}
          <svg class="loss" style:width={part(R('nominal') - R(row.key))} aria-hidden="true"
            ><rect width="100%" height="100%" fill="url(#h-loss)" /></svg
          >
          <span class="lost">−{units.show(R('nominal') - R(row.key), 'resistance')}</span>
        {/if}
        {#if used && asked !== null && asked !== undefined}
          <i class="asked" class:open style:left={part(asked)} aria-hidden="true"></i>
        {/if}
      </div>
    </div>
  {/each}
  {#if asked !== null && asked !== undefined}
    <p class="limit" class:open style:padding-left="min({part(asked)}, calc(100% - 70px))">
      asked {units.show(asked, 'resistance')}
    </p>
  {/if}
</div>

<style>
  p {
    display: flex;
    gap: 6px;
    align-items: baseline;
    font-size: 12.5px;
    line-height: 16px;
  }
  p span {
    color: var(--ink-2);
  }
  p .u {
    margin-left: auto;
    margin-block: -4px;
    font-size: var(--fs-small);
  }
  .track {
    position: relative;
    display: flex;
    align-items: center;
    height: 17px;
  }
  .bar {
    background: var(--ink-2);
    height: 15px;
    flex: none;
  }
  .bar.thin {
    background: var(--ink-3);
  }
  .used .bar {
    background: var(--ink);
  }
  .bar button {
    border: 0;
    background: none;
    color: var(--sheet-bright);
    font: 600 12.5px/15px var(--mono);
    padding: 0 6px;
    height: 24px;
    margin-top: -4px;
    letter-spacing: -0.02em;
    text-decoration: underline dotted 1px;
    text-underline-offset: 2px;
  }
  .bar button:focus-visible {
    outline-color: var(--verdigris);
    outline-offset: 0;
    background: var(--ink);
  }
  .loss {
    height: 15px;
    flex: none;
    outline: 1px solid var(--ochre-line);
    outline-offset: -1px;
  }
  .lost {
    color: var(--ochre);
    font: 500 var(--fs-small) var(--mono);
    margin-left: 5px;
    white-space: nowrap;
  }
  .asked {
    position: absolute;
    top: -3px;
    bottom: -4px;
    width: 2px;
    background: var(--ink);
    pointer-events: none;
  }
  .asked.open {
    background: var(--oxide);
  }
  .limit {
    font-size: var(--fs-small);
    font-weight: 500;
    line-height: 14px;
    display: block;
  }
  .limit.open {
    color: var(--oxide);
  }
</style>
