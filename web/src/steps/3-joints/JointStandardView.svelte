<!-- The joint as a practice standard: keep it, build as one says, see where each is used, take a newer version. -->
<script lang="ts">
  import type { Building, Joint, JointOffer, JointStandard, Problem } from '@/api/client';
  import { api, asProblem, take } from '@/api/client';
  import { families } from '@/project/families.svelte';
  import { joints } from './joints.svelte';
  import { router } from '@/project/router.svelte';
  import StandardKeep from '@/project/StandardKeep.svelte';
  import StandardOffer from '@/project/StandardOffer.svelte';
  import { keepJointStandard, takeJointStandard } from '@/project/standards';
  import StandardsList from '@/project/StandardsList.svelte';
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
  const family = $derived(families.of(joint.family));
  const mine = $derived(joints.standards.find((one) => one.id === joint.standard?.id));
  const variantOf = (one: JointStandard) =>
    families.of(one.joint.family)?.variants.find((each) => each.key === one.joint.variant)?.text ??
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
{#if problem}<Notice title={problem.body.title} text={problem.sentence} live />{/if}
<div class="columns">
  <div>
    <h2>
      {joint.standard ? `Taken from a standard, version ${joint.standard.version}` : 'Not from a standard'}
    </h2>
    {#if mine}<p class="soft">
        {mine.reason}{mine.trusted_since ? `; trusted since ${mine.trusted_since}` : ''}
      </p>{/if}
    {#if offer}
      <StandardOffer
        version={offer.standard.version}
        taken={joint.standard?.version}
        what="joint"
        differences={offer.differences}
        name={(one) => words.get(one.what)?.text ?? one.what}
        value={(one, side) => value(one[side], one.what)}
        ontake={() => offer && build(offer.standard.id, offer.standard.version)}
      />
    {/if}
    <h2>{joint.standard ? 'Keep as its next version' : 'Keep this joint as a standard'}</h2>
    <p class="soft">
      Its variant, parameters and seals are kept; build-ups, length and decisions stay this project's.
    </p>
    <StandardKeep onkeep={(...said) => keepJointStandard(building.id, joint.id, ...said)} />
  </div>
  <div class="side">
    <h2>Practice standards, joints</h2>
    <p class="soft">
      <a href="/api/v1/standards.json" download>Export, JSON</a>; they come in with the build-ups' file, at
      any build-up's standard sheet.
    </p>
    <StandardsList
      standards={joints.standards}
      testid="joint-standards"
      name={(one) => one.joint.name}
      kind={variantOf}
      onwithdraw={(one) => void withdraw(one)}
    >
      {#snippet more(standard)}
        {#if standard.joint.family === joint.family && !standard.withdrawn && standard.id !== joint.standard?.id}
          <Button
            label="Build it as it says: {standard.joint.name}"
            onclick={() => build(standard.id, standard.version)}>Build it as it says</Button
          >
        {/if}
      {/snippet}
    </StandardsList>
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
</style>
