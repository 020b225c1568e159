<!-- The whole-shell effect of the last edit: six cells, always in the same order. What is not counted is named. -->
<script lang="ts">
  import type { Building, Change, Consequence, Basis } from '@/api/client';
  import type { Units } from '@/kit/units';
  import { router } from '@/project/router.svelte';
  import { verdicts } from '@/project/verdicts.svelte';
  import Figure from '@/kit/Figure.svelte';
  import { points } from '@/kit/reading';
  import LeakCell from './LeakCell.svelte';
  import './ledger.css';

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
    (shown?.H_joints === null || shown?.H_joints === undefined ? 'areas only' : 'areas, joints') +
      (shown?.lines.some((one) => one.U_kind === 'with the ground') ? ', ground' : ''),
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
    <LeakCell {building} {units} />
  </div>
</footer>
