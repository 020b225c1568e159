<!-- The build-up bench: the wall drawn and edited on the left, what it comes to on the right. -->
<script lang="ts">
  import type { Assembly, Remark } from '@/api/client';
  import Section from '@/draw/Section.svelte';
  import StudyCurve from '@/draw/StudyCurve.svelte';
  import ThreeR from '@/draw/ThreeR.svelte';
  import VapourChart from '@/draw/VapourChart.svelte';
  import { fit, slabs } from '@/draw/section';
  import ControlStrip from '@/draw/ControlStrip.svelte';
  import { MONTHS } from '@/kit/months';
  import { bench } from '@/project/bench.svelte';
  import { router } from '@/project/router.svelte';
  import { session } from '@/project/session.svelte';
  import { working } from '@/project/working.svelte';
  import Choice from '@/kit/Choice.svelte';
  import Figure from '@/kit/Figure.svelte';
  import Notice from '@/kit/Notice.svelte';
  import Button from '@/kit/Button.svelte';
  import type { Units } from '@/kit/units';
  import LayerBar from './LayerBar.svelte';
  import LayerMore from './LayerMore.svelte';

  interface Props {
    draft: Assembly;
    units: Units;
    zone: string;
  }
  let { draft, units, zone }: Props = $props();
  const place = $derived(router.place);
  const basis = $derived(session.open?.project.basis);

  const found = $derived(bench.live.asked?.assembly.id === draft.id ? bench.found : undefined);
  const stale = $derived(bench.live.stale);

  let width = $state(640);
  let windowHeight = $state(800);
  // A taller window gives the drawing the height first.
  const body = $derived(Math.round(Math.min(Math.max(180, 180 + (windowHeight - 800) * 0.5), 420)));
  let readingWidth = $state(380);
  const LEFT = 58;
  const free = $derived(width - LEFT - 58);
  const thickness = $derived(draft.layers.reduce((sum, layer) => sum + layer.d, 0));
  // While a hand drags, the drawing keeps its scale, so that the edge stays under the pointer.
  let held = $state<number>();
  const scale = $derived(held ?? fit(thickness, free));
  const left = $derived(LEFT + Math.max(0, (free - (held ? free : thickness * scale)) / 2));
  const right = $derived(left + thickness * scale);
  const drawn = $derived(slabs(draft.layers, left, scale));
  const printed = $derived((96 / 0.0254 / scale).toFixed(1).replace(/\.0$/, ''));

  const conditions = [
    { value: 'winter', text: 'Winter design' },
    ...MONTHS.map((text, month) => ({ value: String(month), text: `${text} mean` })),
    { value: 'summer', text: 'Summer design' },
  ];
  const now = $derived(found?.profile.condition);

  function work(figure: string, title: string, dimension: string, d?: number): void {
    const layer = bench.found?.study?.layer;
    const assembly = d !== undefined && layer !== undefined ? bench.setThickness(layer, d)(draft) : draft;
    void working.show({
      figure,
      title,
      dimension,
      project: place.project,
      building: place.building,
      condition: place.condition,
      assembly,
    });
  }
  function adopt(d: number): void {
    const layer = found?.study?.layer;
    const from = layer === undefined ? undefined : draft.layers[layer]?.d;
    if (layer !== undefined && from !== undefined) bench.thickness(layer, d, from, zone);
  }
  function sentence(text: string, remark: Remark): string {
    return remark.values.reduce(
      (so, { name, value, dimension }) => so.replaceAll(`{${name}}`, units.full(value, dimension)),
      text,
    );
  }
  const seasons = $derived(
    [
      { key: 'winter', name: 'Winter', at: basis?.site.theta_winter, has: true },
      { key: 'summer', name: 'Summer', at: basis?.site.theta_summer, has: true },
    ].filter((row) => found?.figures[`R_${row.key}`]),
  );
  const facts = $derived([
    { key: 'thickness', name: 'wall' },
    { key: 'weight', name: 'weight' },
    { key: 'cost', name: 'cost, example' },
    { key: 'carbon', name: 'CO₂e, example' },
    { key: 'f_rsi', name: 'fRsi, clear section' },
    { key: 'q', name: 'heat flux now' },
  ]);
  const refusedThickness = $derived(bench.problem?.items.find((item) => item.pointer.endsWith('/d'))?.detail);
</script>

<svelte:window bind:innerHeight={windowHeight} />
<p class="conditions">
  Section, scale 1:{printed} on screen, layers numbered from the inside.
  <Choice
    label="At"
    showLabel={false}
    value={place.condition}
    options={conditions}
    onsave={(condition) => router.go({ condition }, true)}
  />
  {#if now}
    {units.full(now.theta_e, 'temperature')}, {units.show(now.phi_e, 'share', 0)} % outside; {units.full(
      now.theta_i,
      'temperature',
    )}, {units.show(now.phi_i, 'share', 0)} % inside.
  {/if}
</p>

<div class="columns">
  <div class="drawing" bind:clientWidth={width}>
    <Section
      assembly={draft}
      {found}
      {stale}
      materials={session.materials}
      {units}
      selected={bench.selected}
      ghost={bench.ghost}
      {left}
      {scale}
      {width}
      {body}
      down={({ B: 'right', F: 'left', H: 'left' } as const)[place.station as 'B']}
      refused={refusedThickness}
      onselect={(index) => (bench.selected = index)}
      onhold={() => {
        held = scale;
        bench.hold();
      }}
      onrelease={() => {
        held = undefined;
        bench.release();
      }}
      onmove={(index, d) => bench.move(bench.setThickness(index, d))}
      onthickness={(index, d, from) => bench.thickness(index, d, from, zone)}
      onnudge={(index, by) => bench.nudge(index, by, zone)}
      onwork={work}
    />
    {#if found}<ControlStrip lines={found.lines} {drawn} {left} {right} {width} />{/if}
    <h2>Vapour through the same section</h2>
    <VapourChart profile={found?.profile} {units} {left} {right} {scale} {width} {stale} onwork={work} />
    <LayerBar {zone} onwork={work} />
    <LayerMore {zone} {units} />
  </div>

  <div class="reading" bind:clientWidth={readingWidth}>
    {#if bench.problem && bench.problem.status !== 0}
      <Notice title="No answer for this build-up." text={bench.problem.sentence} live />
    {/if}
    {#if found && basis}
      <h2>R by kind and method <span>{units.symbol('resistance')}</span></h2>
      <ThreeR
        {found}
        {units}
        asked={found.study ? found.study.asked : null}
        method={basis.schools.bridged}
        {stale}
        onwork={work}
      />

      {#each found.remarks.filter((remark) => remark.weight === 'decision') as remark (remark.code)}
        <Notice
          title={`Needs a decision: ${sentence(remark.text, remark).replace(/^./, (letter) => letter.toLowerCase())}`}
          text={sentence(remark.clears, remark)}
        />
      {/each}

      <table class="seasons" data-stale={stale}>
        <thead>
          <tr><th>with λ(θ)</th><th>outside</th><th>field R</th><th>clear R</th><th>clear U</th></tr>
        </thead>
        <tbody>
          {#each seasons as row (row.key)}
            <tr>
              <th scope="row">{row.name}</th>
              <td>{row.at === undefined ? '' : units.full(row.at, 'temperature', 0)}</td>
              {#each [[`R_${row.key}`, 'resistance', `R, ${row.key}, field`], [`R_${row.key}_clear`, 'resistance', `R, ${row.key}, clear wall`], [`U_${row.key}_clear`, 'transmittance', `U, ${row.key}, clear wall`]] as [key, dimension, title] (key)}
                <td
                  ><Figure
                    value={units.show(found.figures[key ?? '']?.value ?? 0, dimension ?? '')}
                    label={title ?? ''}
                    onwork={() => work(key ?? '', title ?? '', dimension ?? '')}
                  /></td
                >
              {/each}
            </tr>
          {/each}
          {#if found.figures['R_fresh']}
            <tr>
              <th scope="row">Fresh foam</th><td>label</td>
              <td
                ><Figure
                  value={units.show(found.figures['R_fresh'].value, 'resistance')}
                  label="R, nominal, fresh foam"
                  onwork={() => work('R_fresh', 'R, nominal, fresh foam', 'resistance')}
                /></td
              >
              <td></td><td></td>
            </tr>
          {/if}
        </tbody>
      </table>

      <dl data-stale={stale}>
        {#each facts as fact (fact.key)}
          {@const figure = found.figures[fact.key]}
          {#if figure}
            <div>
              <dt>{fact.name}</dt>
              <dd data-testid="fact-{fact.key}">
                <Figure
                  value={figure.dimension === 'length'
                    ? units.length(figure.value)
                    : units.show(figure.value, figure.dimension)}
                  unit={figure.dimension === 'length'
                    ? units.system === 'SI'
                      ? 'mm'
                      : ''
                    : units.symbol(figure.dimension)}
                  label={fact.name}
                  onwork={() => work(fact.key, figure.text, figure.dimension)}
                />
              </dd>
            </div>
          {/if}
        {/each}
      </dl>

      {#if found.study}
        <h2>Thickness study <span>clear-wall R against core, {units.system === 'SI' ? 'mm' : 'in'}</span></h2>
        <StudyCurve
          study={found.study}
          settled={found.settled}
          {units}
          width={readingWidth}
          {stale}
          onadopt={adopt}
          onwork={work}
        />
      {:else}
        <Notice
          tone="note"
          title="No core."
          text="Choose a layer that counts and make it the core to study its thickness."
        />
      {/if}

      {#each found.remarks.filter((remark) => remark.weight !== 'decision') as remark, at (remark.code + at)}
        <Notice
          tone={remark.weight}
          title={sentence(remark.text, remark)}
          text={sentence(remark.clears, remark)}
        >
          {#if remark.layer !== null}
            <Button onclick={() => (bench.selected = remark.layer ?? 0)}>Layer {remark.layer + 1}</Button>
          {/if}
        </Notice>
      {/each}
    {:else if !bench.problem}
      <p class="waiting" role="status">Calculating</p>
    {/if}
  </div>
</div>

<style>
  .conditions {
    color: var(--ink-2);
    display: flex;
    gap: 8px;
    align-items: center;
    margin: 5px 0 4px;
    flex-wrap: wrap;
  }
  .columns {
    --columns: minmax(0, 1fr) clamp(340px, 36.5%, 440px);
    gap: 18px;
  }
  .drawing {
    min-width: 0;
    border-right: 1px solid var(--hair);
    padding-right: 12px;
  }
  .reading {
    min-width: 0;
    display: flex;
    flex-direction: column;
    gap: 6px;
  }
  h2 {
    display: flex;
    justify-content: space-between;
  }
  .reading h2 {
    margin: 2px 0 0;
  }
  .drawing h2 {
    margin: 6px 0 2px 58px;
  }
  .seasons {
    margin: 0;
    font-size: var(--fs-small);
  }
  .seasons th,
  .seasons td {
    text-align: right;
    font-weight: 400;
    padding: 0;
  }
  .seasons tbody tr,
  dl div {
    height: 24px;
  }
  .seasons th:first-child {
    text-align: left;
  }
  .seasons thead th {
    color: var(--ink-3);
    border-bottom: 1px solid var(--hair);
  }
  dl {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 0 16px;
    border-top: 1px solid var(--hair);
    padding-top: 3px;
  }
  dl div {
    align-items: center;
    gap: 6px;
  }
  .waiting {
    color: var(--ink-3);
  }
  @media (max-width: 1023px) {
    .drawing {
      border: 0;
      padding: 0;
    }
  }
</style>
