<!-- What the other variant changes: ψ, and with the length the heat loss; take it, or leave it out. -->
<script lang="ts">
  import type { Joint, JointFamily } from '@/api/client';
  import Button from '@/kit/Button.svelte';
  import Choice from '@/kit/Choice.svelte';
  import type { Units } from '@/kit/units';

  interface Props {
    draft: Joint;
    family: JointFamily;
    /** Of the build-up at its first role. */
    system: string;
    /** Of ψ or χ, solved; unknown while one of both is. */
    change: number | undefined;
    /** One of both is still being solved: what stands is of before, or not final. */
    stale: boolean;
    units: Units;
    onswap: () => void;
    /** That counts in the building: typed, or of the shape [m], or pieces. */
    length: number;
    /** Compare with another variant, or with none. */
    onother: (variant: string, words: string) => void;
  }
  let { draft, family, system, change, stale, units, onswap, length, onother }: Props = $props();
</script>

{#if draft.other}
  <h2>What B changes</h2>
  {#if change !== undefined}
    <dl data-stale={stale}>
      <div>
        <dt>{family.point ? 'χ' : 'ψ'}, solved</dt>
        <dd>
          {units.delta(change, family.point ? 'coupling' : 'linear')}
          <small>{units.symbol(family.point ? 'coupling' : 'linear')}</small>
        </dd>
      </div>
      <div>
        <dt>{family.point ? 'pieces' : 'length'}</dt>
        <dd>
          × {family.point ? length.toFixed(0) : units.full(length, 'distance', 1)}
        </dd>
      </div>
      <div class="sum">
        <dt>heat loss</dt>
        <dd class:worse={change > 0}>
          {units.delta(change * length, 'coupling')}
          <small>{units.symbol('coupling')}</small>
        </dd>
      </div>
    </dl>
  {/if}
  <div class="acts">
    <Button strong={!stale && (change === undefined || change <= 0)} onclick={onswap}>Take B</Button>
    <Button onclick={() => onother('', 'no comparison')}>Leave B out</Button>
  </div>
{:else}
  <Choice
    label="compare with"
    value=""
    options={[
      { value: '', text: 'another variant' },
      ...family.variants
        .filter((one) => one.suits.includes(system) && one.key !== draft.variant)
        .map((one) => ({ value: one.key, text: one.text })),
    ]}
    onsave={(other) => other && onother(other, `compared with ${other}`)}
  />
{/if}

<style>
  .worse {
    color: var(--ochre);
  }
  dl div {
    font-size: var(--fs-small);
  }
  small {
    color: var(--ink-3);
    font-size: var(--fs-cap);
  }
  .acts {
    display: flex;
    gap: 6px;
    margin-top: 6px;
  }
</style>
