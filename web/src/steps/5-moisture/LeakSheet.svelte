<!-- Room air through the joints of a station: what it leaves on the outer skin, what dries, and how tight is tight enough. -->
<script lang="ts">
  import type { Building, Joint, LeakYear } from '@/api/client';
  import { api, inProject, take } from '@/api/client';
  import LeakChart from '@/draw/LeakChart.svelte';
  import { where } from '@/project/layers';
  import { MONTHS } from '@/kit/months';
  import { asking } from '@/api/live.svelte';
  import { router } from '@/project/router.svelte';
  import { session } from '@/project/session.svelte';
  import { Solving } from '@/api/solving.svelte';
  import { surfaces } from '@/project/surfaces.svelte';
  import { working } from '@/project/working.svelte';
  import Button from '@/kit/Button.svelte';
  import Entry from '@/kit/Entry.svelte';
  import Figure from '@/kit/Figure.svelte';
  import Notice from '@/kit/Notice.svelte';
  import SolvingBar from '@/kit/SolvingBar.svelte';
  import Which from '@/kit/Which.svelte';
  import type { Units } from '@/kit/units';
  import JointSurface from './JointSurface.svelte';

  interface Props {
    building: Building;
    joints: Joint[];
    units: Units;
  }
  let { building, joints, units }: Props = $props();
  let which = $state('');
  const joint = $derived(joints.find((one) => one.id === which) ?? joints[0]);
  /** A leakage that is tried instead of the joint's own. */
  let tried = $state<number>();
  let seen = $state('');
  $effect(() => {
    if (joint && joint.id !== seen) {
      seen = joint.id;
      tried = undefined;
    }
  });
  const solving = new Solving();
  const live = asking(
    () =>
      joint && {
        project: router.place.project,
        building: building.id,
        joint: joint.id,
        leakage: tried ?? null,
        f_rsi:
          surfaces.of(building.id)?.surfaces.find((one) => one.joint && one.id === joint.id)?.f_rsi ?? null,
        revision: session.open?.revision ?? 0,
      },
    ({ project, building: building_id, joint: joint_id, leakage }): Promise<LeakYear | null> =>
      solving.run((ticket) =>
        take(
          api.POST('/api/v1/projects/{project_id}/moisture/leak', {
            ...inProject(project),
            body: { building_id, joint_id, leakage, ticket },
          }),
        ),
      ),
  );
  const year = $derived(live.answered?.joint === joint?.id ? live.answer : undefined);
  const problem = $derived(live.problem);
  const assembly = $derived(session.assembly(joint?.roles[0]?.assembly_id));
  const wettest = $derived(
    year
      ? year.months.reduce((best, one, at) => (one.gained > (year.months[best]?.gained ?? 0) ? at : best), 0)
      : 0,
  );
  const month = $derived(/^\d+$/.test(router.place.condition) ? Number(router.place.condition) : wettest);
  const at = $derived(year?.months[month]);
  function opened(): void {
    if (!assembly || !joint) return;
    void working.show({
      figure: 'carried', title: `Left by the air in ${MONTHS[month]}`, dimension: 'condensate_line',
      project: router.place.project, building: building.id, condition: router.place.condition, assembly,
      of: { kind: 'leak', joint_id: joint.id, month, leakage: tried ?? null },
    }); // prettier-ignore
  }
  const flow = (value: number) => units.full(value, 'joint_flow');
  const grams = (value: number, digits = 0) => units.full(value, 'condensate_line', digits);
</script>

{#if joints.length > 1}
  <Which label="Joints of this station" options={joints} chosen={joint?.id} onchoose={(id) => (which = id)} />
{/if}
{#if joint}<JointSurface {building} {joint} {units} />{/if}
{#if problem}
  <Notice title="No year for this joint." text={problem.sentence} live />
{:else if year === null}
  <Notice
    tone="note"
    title="This build-up has no outer skin."
    text="Nothing of it lies outside of its core, where room air could leave its water."
  />
{:else if year && at}
  <div class="columns" data-stale={live.stale}>
    <div>
      <p class="verdict" class:decision={!year.verdict.passes} data-testid="leak-verdict">
        {#if year.verdict.reason === 'leak'}
          <strong>Room air wets the outer skin.</strong> At most {grams(year.peak)} held; the limit is {grams(
            year.limit,
          )}: {year.reason}.
        {:else if year.verdict.reason === 'surface'}
          <strong>Its inner surface decides.</strong> The skin holds at most {grams(year.peak)} of {grams(
            year.limit,
          )}.
        {:else}
          <strong>Dry enough.</strong> At most {grams(year.peak)} held of {grams(year.limit)}{year.verdict
            .margin === null
            ? '.'
            : `, and until the room has ${units.show(year.verdict.phi_fails ?? 0, 'share', 0)} % in the cold months.`}
        {/if}
      </p>
      <h2>
        Held in the outer skin along the joint <span
          >{units.symbol('condensate_line')}; dashed: the other grades of seal, each at its high end</span
        >
      </h2>
      <LeakChart {year} {units} {month} onmonth={(to) => router.go({ condition: String(to) }, true)} />
      <p class="soft method">
        ISO 13788 month by month, with air as a conductance between the room's vapour pressure and the skin's:
        stack and wind press {units.full(at.pressure, 'pressure', 1)} outwards here, flow by q = C·Δp^n. Of the
        air {units.full(year.reaching, 'share', 0)} is taken to cool down to the skin, wetting {units.full(
          year.strip,
          'length',
        )} of it; both are starting values in the Basis. The air's own heat is left out. It screens joints and does
        not replace a run by the hour; damage is for a licensed reviewer to judge.
      </p>
    </div>
    <aside>
      <h2>How tight is tight enough</h2>
      <p class="safe" data-testid="safe">
        {#if year.largest_safe === null}Even without any leakage it is wet.
        {:else}Safe up to <b>{flow(year.largest_safe)}</b> at 50 Pa, {year.safe_grade === 'open'
            ? 'so even open.'
            : year.safe_grade
              ? `so with ${year.safe_grade} of seal.`
              : 'tighter than every grade here.'}{/if}
      </p>
      <table>
        <thead
          ><tr
            ><th>grade of seal</th><th class="n">{units.symbol('joint_flow')}</th><th class="n"
              >at most held</th
            ></tr
          ></thead
        >
        <tbody>
          {#each year.grades as one (one.name)}
            <tr class:on={one.name === year.grade && tried === undefined}>
              <td><button class="choose" onclick={() => (tried = one.high)}>{one.name}</button></td>
              <td class="n">{units.show(one.low, 'joint_flow', 2)}–{units.show(one.high, 'joint_flow', 2)}</td
              >
              <td class="n" class:over={!one.safe}>{grams(one.peak)}</td>
            </tr>
          {/each}
        </tbody>
      </table>
      <div class="try">
        <Entry
          label="leakage judged, at 50 Pa"
          dimension="joint_flow"
          value={year.leakage}
          decimals={3}
          yours={tried !== undefined}
          onsave={(value) => (tried = value ?? undefined)}
        />
        {#if tried !== undefined}<Button onclick={() => (tried = undefined)}>As sealed: {year.grade}</Button
          >{/if}
      </div>
      <SolvingBar {solving} name="the joint line" />
      <h2>{MONTHS[month]} at the skin</h2>
      <dl data-testid="leak-month">
        <div>
          <dt>temperature of the skin</dt>
          <dd>{units.full(at.theta_skin, 'temperature')}</dd>
        </div>
        <div>
          <dt>air there can hold</dt>
          <dd>{units.full(at.v_skin, 'vapour_content')}</dd>
        </div>
        <div>
          <dt>room air has</dt>
          <dd>{units.full(at.v_room, 'vapour_content')}</dd>
        </div>
        <div>
          <dt>pressure outwards</dt>
          <dd>{units.full(at.pressure, 'pressure', 1)}</dd>
        </div>
        <div>
          <dt>air through the joint</dt>
          <dd>{flow(at.flow)}</dd>
        </div>
        <div>
          <dt>left by the air</dt>
          <dd>
            <Figure
              value={units.show(at.carried, 'condensate_line', 1)}
              unit={units.symbol('condensate_line')}
              label="Water left by the air in {MONTHS[month]}"
              onwork={opened}
            />
          </dd>
        </div>
        <div>
          <dt>dried or spread by diffusion</dt>
          <dd>{grams(at.gained - at.carried, 1)}</dd>
        </div>
        <div class="sum">
          <dt>gained in {MONTHS[month]}</dt>
          <dd>{grams(at.gained, 1)}</dd>
        </div>
      </dl>
      {#if assembly}
        <p class="soft">
          The skin {where(assembly, session.materials, year.inner, year.outer)}, {units.full(
            year.x_skin,
            'length',
          )} from the inner face of {year.assembly}.
        </p>
      {/if}
    </aside>
  </div>
{:else}
  <SolvingBar {solving} name="the joint line" />
{/if}

<style>
  .columns {
    --columns: minmax(0, 1fr) 340px;
    gap: 28px;
  }
  h2 {
    font-size: var(--fs-lead);
    display: flex;
    justify-content: space-between;
    gap: 8px;
  }
  .try {
    display: flex;
    gap: 8px;
    align-items: center;
    flex-wrap: wrap;
  }
  dl div {
    align-items: baseline;
    border-bottom: 1px solid var(--hair);
  }
</style>
