<!-- The whole-shell effect of the last edit: six cells, always in the same order. What is not counted is named. -->
<script lang="ts">
  import type { Building, Change, Consequence, Basis } from '@/api/client';
  import type { Units } from '@/kit/units';
  import { router } from '@/project/router.svelte';
  import { verdicts } from '@/project/verdicts.svelte';
  import Figure from '@/kit/Figure.svelte';
  import { points } from '@/kit/reading';

  interface Props {
    consequence: Consequence | undefined;
    building: Building;
    basis: Basis;
    units: Units;
    last: Change | null;
    stale: boolean;
    saving: boolean;
    onundo: () => void;
    /** What another window has done last. */
    elsewhere?: { text: string; who: string } | undefined;
    /** What is drawn and not taken yet, in words. */
    drawing?: string;
    onwork: (figure: string, title: string, dimension: string) => void;
  }
  let {
    consequence,
    building,
    basis,
    units,
    last,
    stale,
    saving,
    onundo,
    onwork,
    elsewhere,
    drawing = '',
  }: Props = $props();
  const now = $derived(consequence?.now);
  const before = $derived(consequence?.before);
  /** A sum that lacks a part is never shown as the whole: the last one that lacked nothing stands. */
  const whole = $derived(now?.whole ?? true);
  const lastWhole = $derived(whole ? undefined : consequence?.last);
  const shown = $derived(lastWhole ?? now);
  /** What the sum lacks, in a few words. */
  const lacks = $derived(
    now?.pending.length
      ? `${now.pending.length} being solved`
      : now?.missing.length
        ? `without ${now.missing[0]}${now.missing.length > 1 ? ` and ${now.missing.length - 1} more` : ''}`
        : '',
  );
  const counted = $derived(
    shown?.H_joints === null || shown?.H_joints === undefined ? 'areas only' : 'areas, joints',
  );
  const share = $derived(shown?.share_joints);
  const shareBefore = $derived(before?.share_joints);
  const cells = $derived([
    {
      key: 'R_effective',
      name: `Effective R, ${counted}`,
      dimension: 'resistance',
      value: shown?.R_effective,
      part: now?.R_effective,
      old: before?.R_effective,
      asked: basis.targets.R_shell,
      more: true,
      scale: 0.5,
    },
    {
      key: 'H_shell',
      name: `Heat loss, ${counted}`,
      dimension: 'coupling',
      value: shown?.H,
      part: now?.H,
      old: before?.H,
      asked: building.asked_H,
      more: false,
      scale: 10,
    },
  ]);
  const places = $derived(verdicts.of(building.id)?.places ?? []);
  const judging = $derived(places.filter((one) => !one.verdict && !one.why_not).length);
  const dampest = $derived(places.find((one) => one.verdict && one.verdict.margin !== null)); // the least stands first
  const moisture = $derived(dampest?.verdict?.margin ?? undefined);
  const pending = [{ name: 'Air leakage used', why: 'not counted: step 7' }];
</script>

<footer class="ledger no-print" aria-label="Ledger: what the last edit means for the whole shell">
  <div class="last">
    <small
      >{saving
        ? 'Saving'
        : consequence?.preview || drawing
          ? 'Preview, not saved yet'
          : elsewhere
            ? 'Changed in another window'
            : 'Last edit'}</small
    >
    {#if drawing}
      <p title={units.said(drawing)}>{units.said(drawing)}</p>
      <span class="quiet"><kbd>Enter</kbd> takes, <kbd>Esc</kbd> back</span>
    {:else if elsewhere}
      <p class="elsewhere" title={units.said(elsewhere.text)}>{units.said(elsewhere.text)}</p>
      <span class="quiet">{elsewhere.who}</span>
    {:else if last}
      <p title={units.said(last.text)}>{units.said(last.text)}</p>
      <button onclick={onundo}><span>{last.zone} · undo</span> <kbd>Ctrl Z</kbd></button>
    {:else}
      <p class="quiet">nothing to take back</p>
    {/if}
  </div>
  <div class="cells" data-stale={stale}>
    {#each cells as cell (cell.key)}
      {@const known = cell.value !== null && cell.value !== undefined}
      {@const change =
        known && whole && before?.whole && cell.old !== null && cell.old !== undefined
          ? (cell.value ?? 0) - cell.old
          : undefined}
      {@const gain = change !== undefined && (cell.more ? change > 0 : change < 0)}
      {@const open = consequence?.open.includes(cell.key)}
      <div class="cell" class:open class:part={!whole} class:held={lastWhole} data-testid={cell.key}>
        <small>{cell.name}</small>
        <div class="value">
          {#if known}
            <Figure
              value={units.show(cell.value ?? 0, cell.dimension)}
              unit={units.symbol(cell.dimension)}
              label={cell.name}
              weight="figure"
              tone={open ? 'decision' : 'ink'}
              onwork={lastWhole ? undefined : () => onwork(cell.key, cell.name, cell.dimension)}
            />
          {:else}
            <span class="none">–</span>
          {/if}
          {#if cell.asked}<em>asked {units.show(cell.asked, cell.dimension)}</em>{/if}
        </div>
        <div class="delta">
          {#if !known}
            <span class="no">{now ? 'no element has a U yet' : 'being read'}</span>
          {:else if !whole}
            <span class="no" title={[...(now?.pending ?? []), ...(now?.missing ?? [])].join(', ')}
              >{#if lastWhole && cell.part !== null && cell.part !== undefined}<i class="so-far"
                  >{units.show(cell.part, cell.dimension)}</i
                >
                so far,{:else}so far,{/if}
              {lacks}</span
            >
          {:else if change === undefined || Math.abs(change) < 1e-12}
            <span class="no">no change</span>
          {:else}
            {@const size = Math.min(Math.abs(change) / cell.scale, 1) * 34 + 1}
            <span class:loss={!gain} class:preview={consequence?.preview}
              >{units.delta(change, cell.dimension)}</span
            >
            <svg width="80" height="12" aria-hidden="true">
              <path d="M0 6H80M40 0V12" />
              <rect
                class:gain
                class:preview={consequence?.preview}
                x={change > 0 ? 40 : 40 - size}
                y="2"
                width={size}
                height="8"
                fill={consequence?.preview ? 'none' : gain ? 'var(--ink)' : 'url(#h-loss)'}
              />
            </svg>
          {/if}
        </div>
      </div>
    {/each}
    <div
      class="cell"
      class:pending={share === null || share === undefined}
      class:part={!whole}
      class:held={lastWhole}
      data-testid="share_joints"
    >
      <small>Lost at joints and fixings</small>
      {#if share !== null && share !== undefined}
        <div class="value">
          <Figure
            value={units.show(share, 'share')}
            unit="%"
            label="Lost at joints and fixings"
            weight="figure"
            onwork={lastWhole
              ? undefined
              : () => onwork('share_joints', 'Share lost at joints and fixings', 'share')}
          />
        </div>
        <span class="no"
          >{!whole
            ? lacks
            : before?.whole &&
                shareBefore !== null &&
                shareBefore !== undefined &&
                Math.abs(share - shareBefore) > 1e-6
              ? units.delta(share - shareBefore, 'share') + ' %'
              : now?.H_joints === null
                ? 'fixings only: joints in step 3'
                : ''}</span
        >
      {:else}
        <span class="none">–</span><span class="no"
          >{!now ? 'being read' : now.pending.length ? lacks : 'no joint has a length: step 3'}</span
        >
      {/if}
    </div>
    <div
      class="cell"
      class:open={whole && shown?.lowest?.falls_short}
      class:part={!whole}
      class:held={lastWhole}
      data-testid="f_rsi"
    >
      <small>Lowest surface factor</small>
      <div class="value">
        {#if shown?.lowest}
          <Figure
            value={units.show(shown.lowest.f_rsi, 'ratio', 2)}
            label="Lowest surface factor"
            weight="figure"
            tone={whole && shown.lowest.falls_short ? 'decision' : 'ink'}
            onwork={lastWhole
              ? undefined
              : () => onwork('f_rsi_lowest', 'Lowest surface factor, clear sections', 'ratio')}
          />
          <em
            >{shown.lowest.station}{shown.lowest.asked
              ? ` asked ${units.show(shown.lowest.asked, 'ratio', 2)}`
              : ''}</em
          >
        {:else}<span class="none">–</span>{/if}
      </div>
      <span class="no"
        >{!whole && lacks
          ? lacks
          : building.joints?.length
            ? 'clear sections and joints'
            : 'clear section; joints: step 3'}</span
      >
    </div>
    <div
      class="cell"
      class:pending={moisture === undefined}
      class:open={moisture !== undefined && moisture < 0}
      class:part={judging > 0}
      data-testid="moisture_margin"
    >
      <small title="room humidity in the cold months up to where the worst place fails">Moisture margin</small
      >
      {#if moisture !== undefined && dampest}
        <div class="value">
          <Figure
            value={units.show(moisture, 'share', 0)}
            unit={points(moisture)}
            label="Moisture margin, {dampest.name}"
            act="open its sheet"
            weight="figure"
            tone={moisture < 0 ? 'decision' : 'ink'}
            onwork={() =>
              router.go({
                station: dampest.station,
                step: 5,
                element: dampest.joint ? '' : dampest.id,
                view: dampest.joint ? 'joints' : '',
              })}
          />
        </div>
        <span class="no" title="{dampest.name}{judging ? `, ${judging} being judged` : ''}"
          >{dampest.station} {dampest.name}{judging ? `, ${judging} being judged` : ''}</span
        >
      {:else}
        <span class="none">–</span><span class="no"
          >{judging
            ? `${judging} being judged`
            : places.length
              ? 'nothing fails up to 95 %'
              : 'no build-up yet'}</span
        >
      {/if}
    </div>
    {#each pending as cell (cell.name)}
      <div class="cell pending">
        <small>{cell.name}</small><span class="none">–</span><span class="no">{cell.why}</span>
      </div>
    {/each}
  </div>
</footer>

<style>
  .ledger {
    height: var(--ledger-h);
    flex: none;
    background: var(--limestone);
    border-top: 1.5px solid var(--ink);
    display: flex;
    position: relative;
    z-index: 2;
  }
  small {
    font-size: var(--fs-cap);
    color: var(--ink-2);
    display: block;
    line-height: 1.2;
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .last {
    width: var(--mast-w);
    flex: none;
    padding: 6px 8px 0 12px;
    border-right: 1px solid var(--line);
    overflow: hidden;
  }
  .last p {
    font-size: 12.5px;
    font-weight: 500;
    line-height: 1.3;
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .last .quiet {
    font-weight: 400;
    color: var(--ink-3);
  }
  .last button {
    border: 0;
    background: none;
    font-size: var(--fs-cap);
    color: var(--ink-2);
    min-height: 24px;
    margin-top: -3px;
  }
  .last button:hover span {
    color: var(--verdigris);
    text-decoration: underline;
  }
  .elsewhere {
    border-left: 3px solid var(--ink-2);
    padding-left: 6px;
  }
  .cells {
    flex: 1;
    display: grid;
    grid-template-columns: 1.15fr 1.15fr 1fr 1fr 0.9fr 0.9fr;
    min-width: 0;
  }
  .cell {
    padding: 6px 8px 0 12px;
    border-right: 1px solid var(--hair);
    min-width: 0;
    overflow: hidden;
  }
  .cell.open {
    box-shadow: inset 0 3px var(--oxide);
  }
  /* A part is never drawn like the whole: dashed above, and what stands in its place is hatched. */
  .cell.part {
    border-top: 1.5px dashed var(--ink-3);
    padding-top: 4.5px;
  }
  .cell.held .value {
    background-image: repeating-linear-gradient(
      45deg,
      transparent 0 4px,
      color-mix(in srgb, var(--line) 45%, transparent) 4px 5px
    );
  }
  .so-far {
    font: 500 var(--fs-small) var(--mono);
    border-bottom: 1px dashed var(--ink-3);
  }
  .value {
    display: flex;
    align-items: baseline;
    white-space: nowrap;
    height: 23px;
  }
  em {
    font-style: normal;
    font-size: var(--fs-cap);
    color: var(--ink-3);
    margin-left: auto;
    padding-left: 6px;
  }
  .none {
    font: 600 17px/23px var(--mono);
    display: block;
    color: var(--ink-3);
  }
  .delta {
    display: flex;
    justify-content: space-between;
    align-items: center;
    height: 16px;
  }
  .delta span {
    font: 500 var(--fs-small) var(--mono);
  }
  .delta .no,
  .no {
    font: 400 var(--fs-cap) var(--sans);
    color: var(--ink-3);
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .delta .loss {
    color: var(--ochre);
  }
  .delta .preview {
    color: var(--verdigris);
  }
  path {
    stroke: var(--line);
    stroke-width: 0.75;
  }
  rect {
    stroke: var(--ochre-line);
  }
  rect.gain {
    stroke: none;
  }
  rect.preview {
    stroke: var(--verdigris);
    stroke-dasharray: 2 2;
  }
  @media (max-width: 1023px) {
    .ledger {
      height: auto;
      flex-wrap: wrap;
    }
    .last {
      width: 100%;
      display: flex;
      gap: 10px;
      align-items: center;
      padding: 0 12px;
      border-right: 0;
    }
    .last p {
      flex: 1;
    }
    .cells {
      flex: 1 0 100%;
      grid-template-columns: repeat(3, 1fr);
    }
    .cell {
      padding-top: 5px;
      display: flex;
      flex-wrap: wrap;
      gap: 0 8px;
      align-items: baseline;
    }
    .value,
    .none {
      height: auto;
      line-height: 20px;
    }
    .cell small {
      flex-basis: 100%;
    }
    .delta {
      display: none;
    }
    .cell .no {
      flex: 1 1 0;
      min-width: 0;
    }
  }
</style>
