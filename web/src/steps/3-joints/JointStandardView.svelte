<!-- The joint as a practice standard: keep it, build as one says, see where each is used, take a newer version. -->
<script lang="ts">
  import type { Building, Joint, JointOffer, JointStandard, Problem } from '@/api/client';
  import { api, asProblem, take } from '@/api/client';
  import { joints } from './joints.svelte';
  import { router } from '@/project/router.svelte';
  import { session } from '@/project/session.svelte';
  import { takeJointStandard } from '@/project/standards';
  import { keepJointStandard } from '@/project/standards';
  import Button from '@/kit/Button.svelte';
  import Notice from '@/kit/Notice.svelte';
  import SheetHead from '@/kit/SheetHead.svelte';
  import type { Units } from '@/kit/units';

  interface Props {
    building: Building;
    joint: Joint;
    units: Units;
    revision: number;
  }
  let { building, joint, units, revision }: Props = $props();
  let offer = $state.raw<JointOffer | null>(null);
  let problem = $state.raw<Problem>();
  /** Why the last request to keep it was refused; a list that is loaded again does not take that back. */
  let refused = $state.raw<Problem>();
  let reason = $state('');
  let source = $state('');
  let since = $state('');
  const family = $derived(joints.family(joint.family));
  const mine = $derived(joints.standards.find((one) => one.id === joint.standard?.id));
  const variantOf = (one: JointStandard) =>
    joints.family(one.joint.family)?.variants.find((each) => each.key === one.joint.variant)?.text ??
    one.joint.variant;

  async function load(project: string, where: string, id: string): Promise<void> {
    try {
      const [, found] = await Promise.all([
        joints.loadStandards(),
        take(
          api.GET('/api/v1/projects/{project_id}/buildings/{building_id}/joints/{joint_id}/offer', {
            params: { path: { project_id: project, building_id: where, joint_id: id } },
          }),
        ),
      ]);
      offer = found;
      problem = undefined;
    } catch (error) {
      problem = asProblem(error);
    }
  }
  $effect(() => {
    void revision;
    void load(router.place.project, building.id, joint.id);
  });
  async function keep(): Promise<void> {
    const good = await keepJointStandard(building.id, joint.id, reason.trim(), source.trim(), since.trim());
    refused = good ? undefined : session.saves.takeRefusal();
    if (good) reason = source = since = '';
  }
  async function withdraw(standard: JointStandard): Promise<void> {
    try {
      await take(
        api.POST('/api/v1/joint-standards/{standard_id}/withdrawal', {
          params: { path: { standard_id: standard.id } },
          body: { again: standard.withdrawn },
        }),
      );
      await joints.loadStandards();
    } catch (error) {
      problem = asProblem(error);
    }
  }
  const build = (id: string, version: number) => void takeJointStandard(building.id, joint, id, version);
  // A parameter as its variant calls it, in its own unit.
  const words = $derived(
    new Map((family?.variants ?? []).flatMap((one) => one.parameters).map((one) => [one.key, one])),
  );
  const value = (one: string | number | null, what: string) =>
    one === null
      ? 'none'
      : typeof one === 'number'
        ? units.full(one, words.get(what)?.dimension ?? 'length')
        : one;
</script>

<SheetHead zone="{joint.station}3" title="{joint.name}: practice standard">
  <Button onclick={() => router.go({ view: '' })}>Back to the joint</Button>
</SheetHead>
{#each [problem, refused] as one, at (at)}
  {#if one}<Notice title={one.body.title} text={one.sentence} live />{/if}
{/each}
<div class="columns">
  <div>
    <h2>
      {joint.standard ? `Taken from a standard, version ${joint.standard.version}` : 'Not from a standard'}
    </h2>
    {#if mine}<p class="soft">
        {mine.reason}{mine.trusted_since ? `; trusted since ${mine.trusted_since}` : ''}
      </p>{/if}
    {#if offer}
      <Notice
        tone="note"
        title={offer.standard.version === joint.standard?.version
          ? 'This joint was changed since it was taken.'
          : `Version ${offer.standard.version} of the standard is there.`}
        text="Taking it changes what is listed, as one step that undo takes back."
      />
      <table data-testid="offer">
        <thead><tr><th>what</th><th>here</th><th>standard</th></tr></thead>
        <tbody>
          {#each offer.differences as one, at (at)}
            <tr
              ><th scope="row">{words.get(one.what)?.text ?? one.what}</th><td
                >{value(one.before, one.what)}</td
              ><td>{value(one.after, one.what)}</td></tr
            >
          {:else}<tr><td colspan="3">no difference but the version</td></tr>{/each}
        </tbody>
      </table>
      <Button strong onclick={() => offer && build(offer.standard.id, offer.standard.version)}>Take it</Button
      >
    {/if}
    <h2>{joint.standard ? 'Keep as its next version' : 'Keep this joint as a standard'}</h2>
    <p class="soft">
      Its variant, parameters and seals are kept; build-ups, length and decisions stay this project's.
    </p>
    <div class="form">
      <label>why the practice trusts it<input bind:value={reason} maxlength="200" /></label>
      <label>source, tested at<input bind:value={source} maxlength="200" /></label>
      <label>trusted since<input bind:value={since} maxlength="60" /></label>
      <Button strong onclick={() => void keep()}>Keep</Button>
    </div>
  </div>
  <div class="side">
    <h2>Practice standards, joints</h2>
    <p class="soft">
      <a href="/api/v1/standards.json" download>Export, JSON</a>; they come in with the build-ups' file, at
      any build-up's standard sheet.
    </p>
    <ul data-testid="joint-standards">
      {#each joints.standards as standard (standard.id)}
        <li class:withdrawn={standard.withdrawn}>
          <p>
            <b>{standard.joint.name}</b>
            {variantOf(standard)}, version {standard.version}{standard.withdrawn ? ', withdrawn' : ''}
            {#if standard.joint.family === joint.family && !standard.withdrawn && standard.id !== joint.standard?.id}
              <Button
                label="Build as {standard.joint.name} says"
                onclick={() => build(standard.id, standard.version)}>Build it so</Button
              >
            {/if}
            <Button
              label="{standard.withdrawn ? 'Offer' : 'Withdraw'} {standard.joint.name}"
              onclick={() => void withdraw(standard)}
              >{standard.withdrawn ? 'Offer again' : 'Withdraw'}</Button
            >
          </p>
          <p class="soft">{standard.reason}{standard.source ? `; ${standard.source}` : ''}</p>
          <p class="soft">
            {#each standard.uses as use, at (at)}{at ? '; ' : 'used: '}{use.project}, {use.name} (version {use.version}){:else}not
              used{/each}
          </p>
        </li>
      {:else}
        <li class="soft">None yet.</li>
      {/each}
    </ul>
  </div>
</div>

<style>
  .columns {
    --columns: minmax(0, 1fr) minmax(0, 1fr);
    margin-top: 8px;
  }
  h2 {
    margin: 10px 0 6px;
  }
  a {
    color: var(--verdigris);
  }
  table {
    font-size: var(--fs-small);
  }
  th,
  td {
    font-weight: 400;
    padding: 2px 14px 2px 0;
    border-bottom: 1px solid var(--hair);
  }
  .form {
    display: grid;
    gap: 6px;
    max-width: 380px;
    justify-items: start;
  }
  label {
    display: grid;
    width: 100%;
    font-size: var(--fs-small);
    color: var(--ink-2);
  }
  input {
    border: 1px solid var(--line);
    background: var(--sheet-bright);
    min-height: 26px;
    padding: 1px 6px;
  }
  ul {
    list-style: none;
    padding: 0;
  }
  li {
    border-top: 1px solid var(--hair);
    padding: 6px 0;
  }
  .withdrawn b {
    text-decoration: line-through;
  }
</style>
