<!-- A build-up by month: the verdict, the drawn year, what the surface has to have, and the building's worst surfaces. -->
<script lang="ts">
  import type { Assembly, Building, Moisture } from '@/api/client';
  import { api, inProject, take } from '@/api/client';
  import FactorYear from '@/draw/FactorYear.svelte';
  import YearCells from '@/draw/YearCells.svelte';
  import { beside, where } from '@/project/layers';
  import { MONTHS } from '@/kit/months';
  import { asking } from '@/api/live.svelte';
  import { counted } from '@/kit/reading';
  import { decisions } from '@/project/decisions.svelte';
  import { router } from '@/project/router.svelte';
  import { session } from '@/project/session.svelte';
  import { surfaces } from '@/project/surfaces.svelte';
  import { verdicts } from '@/project/verdicts.svelte';
  import { working } from '@/project/working.svelte';
  import Figure from '@/kit/Figure.svelte';
  import Notice from '@/kit/Notice.svelte';
  import type { Units } from '@/kit/units';
  import VerdictBar from './VerdictBar.svelte';

  interface Props {
    building: Building;
    assembly: Assembly;
    units: Units;
  }
  let { building, assembly, units }: Props = $props();
  const place = $derived(router.place);
  const revision = $derived(session.open?.revision ?? 0);
  const month = $derived(/^\d+$/.test(place.condition) ? Number(place.condition) : undefined);
  const materials = $derived(session.materials);

  const live = asking(
    () => ({ project: place.project, building: building.id, revision, assembly }),
    ({ project, building: building_id, assembly: asked }): Promise<Moisture> =>
      take(
        api.POST('/api/v1/projects/{project_id}/moisture', {
          ...inProject(project),
          body: { building_id, assembly: asked },
        }),
      ),
  );
  const year = $derived(live.answered?.assembly.id === assembly.id ? live.answer : undefined);
  const problem = $derived(live.problem);
  function opened(figure: string, title: string, dimension: string): void {
    void working.show({
      figure, title, dimension, project: place.project, building: building.id, condition: place.condition, assembly,
      of: { kind: 'moisture', month: year?.critical ?? 0 },
    }); // prettier-ignore
  }
  const places = $derived(verdicts.of(building.id)?.places ?? []);
  const REASONS = {
    surface: 'its inner surface decides',
    'outer surface': 'its outer surface decides: outside air comes to its dew point there',
    gathers: 'what gathers from year to year decides',
    'too wet': 'the most that a plane may hold decides',
    leak: 'room air through it decides',
    '': '',
  };
  const ranking = $derived(surfaces.of(building.id));
  const verdict = $derived.by(() => {
    if (!year) return undefined;
    const worst = year.wet.toSorted((a, b) => b.peak / b.limit - a.peak / a.limit)[0];
    if (!worst) {
      const shares = year.share[year.closest_month]?.[year.closest_plane] ?? 0;
      return {
        tone: 'good',
        title: 'Dry in every month.',
        text: `It comes closest to saturation in ${MONTHS[year.closest_month]}, with ${units.full(shares, 'share', 0)} of it ${beside(assembly, materials, year.x[year.closest_plane] ?? 0)}.`,
      };
    }
    const held = `${units.full(worst.peak, 'condensate')} ${where(assembly, materials, worst.inner, worst.outer)}`;
    const limit = `the limit is ${units.full(worst.limit, 'condensate')}: ${worst.reason}`;
    if (year.verdict === 'gathers')
      return {
        tone: 'decision',
        title: 'Does not dry within the year.',
        text: `${units.full(year.left, 'condensate')} are left; at most ${held}.`,
      };
    if (year.verdict === 'too wet')
      return { tone: 'decision', title: 'Dries, but gets too wet.', text: `At most ${held}; ${limit}.` };
    if (year.verdict === 'slowly')
      return {
        tone: 'good',
        title: 'Gathers slowly.',
        text: `${units.full(year.left, 'condensate')} are left in a year, at most ${held}; in ${year.years} years it does not come to the limit (${units.full(worst.limit, 'condensate')}: ${worst.reason}).`,
      };
    return { tone: 'good', title: 'Gets wet and dries.', text: `At most ${held}; ${limit}.` };
  });
  // One month-by-month check that passes does not make a build-up that passes.
  const fails = $derived(
    decisions
      .open(building.id)
      .some((one) => one.matter === 'moisture' && one.station === place.station && one.view === ''),
  );
  const inwards = $derived(
    (year?.months ?? []).map((one) => one.outer_required).filter((one) => one !== null),
  );
  const signed = (value: number, dimension: string, digits?: number) =>
    `${value < 0 ? '' : '+'}${units.show(value, dimension, digits)}`;
</script>

<div class="columns">
  <div class="main" data-stale={live.stale}>
    {#if problem}
      <Notice title="No year for this build-up." text={problem.sentence} live />
    {:else if year && verdict}
      <p class="verdict {verdict.tone === 'good' && fails ? 'part' : verdict.tone}" data-testid="verdict">
        <strong>{verdict.title}</strong>
        {verdict.text}
        {#if verdict.tone === 'good' && fails}It fails all the same, by what is judged below.{/if}
      </p>
      <VerdictBar {building} {assembly} {units} />
      <p class="page">
        <a
          href="/api/v1/projects/{place.project}/buildings/{building.id}/build-ups/{assembly.id}/moisture.pdf?units={session.system}"
          download>Sheet, PDF</a
        > <span class="soft">of the build-up as saved, with what is known by the hour</span>
      </p>
      <h2>
        Wet at the end of each month <span
          >outside on the left; {units.symbol('condensate')} held, or the highest share of saturation</span
        >
      </h2>
      <YearCells
        {assembly}
        {materials}
        {year}
        {units}
        {month}
        onmonth={(to) => router.go({ condition: String(to) }, true)}
      />
      {#if year.wet.length}
        <table data-testid="wet">
          <thead
            ><tr><th>plane</th><th class="n">at most</th><th class="n">limit</th><th>why this limit</th></tr
            ></thead
          >
          <tbody>
            {#each year.wet as plane, number (number)}
              <tr>
                <td><b>{number + 1}</b> {where(assembly, materials, plane.inner, plane.outer)}</td>
                <td class="n" class:over={plane.peak > plane.limit}>{units.show(plane.peak, 'condensate')}</td
                >
                <td class="n">{units.show(plane.limit, 'condensate')}</td>
                <td class="soft">{plane.reason}</td>
              </tr>
            {/each}
          </tbody>
        </table>
      {/if}
      <p class="soft method">
        ISO 13788, vapour only, steady in each month, slices of R ≤ {units.full(0.25, 'resistance')}; each
        month is solved for all planes at once, so that no water is lost.{assembly.outside === 'ground'
          ? ' The ground below has a quarter of the air’s swing, a month late, and 99 % of humidity.'
          : ''} Air through joints, rain, stored water and sun are not seen by it. Limits are the trade's usual
        ones; the practice's own and local codes take their place, and a judgement on damage belongs to a licensed
        reviewer.
      </p>
    {/if}
    {#if places.length}
      <h2>Margins of {building.name} <span>points of room humidity</span></h2>
      <table class="ranking" data-testid="margins">
        <thead><tr><th>place</th><th class="n">fails at, %</th><th class="n">margin</th></tr></thead>
        <tbody>
          {#each places as one (one.id)}
            <tr>
              <td
                ><button
                  onclick={() =>
                    router.go({
                      station: one.station,
                      step: 5,
                      element: one.joint ? '' : one.id,
                      view: one.joint ? 'joints' : '',
                    })}><b>{one.station}</b> {one.name}</button
                ></td
              >
              {#if one.verdict}
                <td class="n"
                  >{one.verdict.phi_fails === null
                    ? '–'
                    : one.verdict.phi_fails === 0
                      ? 'any'
                      : units.show(one.verdict.phi_fails, 'share', 0)}</td
                >
                <td class="n" class:over={!one.verdict.passes} title={REASONS[one.verdict.reason]}
                  >{one.verdict.margin === null
                    ? 'none up to 95 %'
                    : signed(one.verdict.margin, 'share', 0)}</td
                >
              {:else}
                <td class="soft" colspan="2">{one.why_not || 'being judged'}</td>
              {/if}
            </tr>
          {/each}
        </tbody>
      </table>
      <p class="soft">Surface, planes inside and, at joints, room air together; the months decide here.</p>
    {/if}
  </div>
  <aside>
    {#if year}
      <h2>
        Surface factor asked <span
          >{units.full(session.shipped?.mould_phi ?? 0, 'share', 0)} at the surface</span
        >
      </h2>
      <FactorYear {year} {units} />
      <p class="soft">
        {#if year.critical === null}No month asks anything of the inner surface.{:else}
          {MONTHS[year.critical]} asks most:
          <Figure
            value={units.show(year.months[year.critical]?.required ?? 0, 'ratio')}
            label="Surface factor asked in {MONTHS[year.critical]}"
            onwork={() => opened('f_required', 'Surface factor asked', 'ratio')}
          />. There the room may have
          <Figure
            value={units.show(year.months[year.critical]?.phi_fails ?? 0, 'share', 0)}
            unit="%"
            label="Room humidity at which the surface fails"
            onwork={() => opened('phi_fails', 'Room humidity at which the surface fails', 'share')}
          /> before this surface reaches {(year.months[year.critical]?.theta_i ?? 20) > 0
            ? units.full(session.shipped?.mould_phi ?? 0, 'share', 0)
            : 'saturation; mould does not grow in a room that freezes'}.{/if}
      </p>
      {#if inwards.length}
        <p class="soft" data-testid="inwards">
          Heat flows inwards in {counted(inwards.length, 'month')}: the outer surface is the critical one. Its
          factor is {units.show(year.f_outer, 'ratio')}; outside air comes to its dew point there below
          <span class:over={!year.outer_passes}>{units.show(Math.max(...inwards), 'ratio')}</span>. Outer
          surfaces of joints are not judged.
        </p>
      {/if}
    {/if}
    {#if ranking}
      <h2>Worst surfaces of {building.name}</h2>
      <table class="ranking" data-testid="ranking">
        <thead
          ><tr
            ><th>place</th><th class="n">f<sub>Rsi</sub></th><th class="n">margin</th><th
              class="n"
              title="room humidity at which it starts to fail">fails at, %</th
            ></tr
          ></thead
        >
        <tbody>
          {#each ranking.surfaces as one (one.id)}
            <tr>
              <td
                ><button
                  onclick={() =>
                    router.go({ station: one.station, step: one.joint ? 3 : 5, element: one.id, view: '' })}
                  ><b>{one.station}</b> {one.name}</button
                ></td
              >
              {#if one.f_rsi === null}
                <td class="soft" colspan="3">{one.why_not}</td>
              {:else}
                <td class="n">{units.show(one.f_rsi, 'ratio')}</td>
                <td class="n" class:over={one.margin !== null && one.margin < 0}
                  >{one.margin === null ? '–' : signed(one.margin, 'ratio')}</td
                >
                <td class="n">{one.phi_fails === null ? '–' : units.show(one.phi_fails, 'share', 0)}</td>
              {/if}
            </tr>
          {/each}
        </tbody>
      </table>
    {/if}
  </aside>
</div>

<style>
  .columns {
    --columns: minmax(0, 1fr) 330px;
    gap: 28px;
  }
  .none {
    color: var(--ink-2);
    margin: 8px 0;
  }
  h2 {
    font-size: var(--fs-lead);
    margin: 14px 0 6px;
    display: flex;
    justify-content: space-between;
    gap: 8px;
  }
  aside h2:first-child {
    margin-top: 4px;
  }
  td {
    padding: 3px 6px 3px 0;
    vertical-align: baseline;
  }
  .n + :not(.n) {
    padding-left: 14px;
  }
  .page {
    margin: 0 0 6px;
  }
  .page a {
    color: var(--verdigris);
    font-weight: 500;
  }
  .ranking button {
    all: unset;
    cursor: pointer;
    color: var(--ink);
    min-height: 24px;
  }
  .ranking button:hover {
    text-decoration: underline;
  }
  .ranking button:focus-visible {
    box-shadow: var(--focus);
  }
</style>
