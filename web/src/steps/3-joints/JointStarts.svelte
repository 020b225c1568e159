<!-- Starting a joint: every way to build it that suits the build-ups of this building, drawn to scale. -->
<script lang="ts">
  import type { Building, Joint, JointDrawing, JointFamily, JointStandard, JointVariant } from '@/api/client';
  import { api, take } from '@/api/client';
  import JointField from '@/draw/JointField.svelte';
  import { families as everyFamily } from '@/project/families.svelte';
  import { joints } from './joints.svelte';
  import { router } from '@/project/router.svelte';
  import { session } from '@/project/session.svelte';
  import { STATIONS } from '@/project/stations';
  import Choice from '@/kit/Choice.svelte';
  import SheetHead from '@/kit/SheetHead.svelte';
  import type { Units } from '@/kit/units';

  interface Props {
    building: Building;
    units: Units;
  }
  let { building, units }: Props = $props();
  const place = $derived(router.place);
  const PLACE_OF: Record<string, string> = { wall: 'D', upper: 'D', party: 'D', roof: 'B', floor: 'H' };
  const at = (station: string) =>
    (building.elements ?? []).filter((one) => one.station === station && one.assembly_id);
  // What the designer chose to meet, by role; the first element of its place if not chosen.
  let chosen = $state.raw<Record<string, string>>({});
  const meeting = $derived((role: string) => {
    const found = at(PLACE_OF[role] ?? 'D');
    return chosen[role] ?? (role === 'upper' ? found[1] : found[0])?.assembly_id ?? undefined;
  });
  const families = $derived(everyFamily.all.filter((one) => one.station === place.station));
  const roles = $derived([...new Set(families.flatMap((one) => one.roles))]);
  const offers = $derived(
    families.flatMap((family) => {
      const system = session.assembly(meeting(family.roles[0] ?? 'wall'))?.system ?? '';
      const complete = family.roles.every((role) => meeting(role));
      return complete
        ? family.variants.filter((one) => one.suits.includes(system)).map((variant) => ({ family, variant }))
        : [];
    }),
  );
  const draftOf = (family: JointFamily, variant: JointVariant): Joint => ({
    id: 'new',
    station: place.station as 'A',
    name: variant.text.slice(0, 60),
    family: family.key,
    variant: variant.key,
    roles: family.roles.map((role) => ({ role, assembly_id: meeting(role) ?? '' })),
    values: [],
    length: 0,
    follows: [],
    decided: true,
    other: '',
    omitted: [],
    sealed: false,
    sealant: 'polyurethane',
    tape: 'acrylic tape',
    fall: null,
    drains_to: '',
  });
  let drawings = $state.raw<Record<string, JointDrawing>>({});
  $effect(() => {
    const project = place.project;
    for (const { family, variant } of offers) {
      const joint = draftOf(family, variant);
      const key = `${family.key}/${variant.key}/${joint.roles.map((one) => one.assembly_id).join()}`;
      if (drawings[key]) continue;
      take(
        api.POST('/api/v1/projects/{project_id}/joint-drawing', {
          params: { path: { project_id: project } },
          body: {
            joint,
            building_id: router.place.building,
            variant: '',
            condition: 'winter',
            accuracy: 'working',
            ticket: '',
          },
        }),
      )
        .then((found) => (drawings = { ...drawings, [key]: found.drawing }))
        .catch(() => undefined);
    }
  });
  const drawingOf = (family: JointFamily, variant: JointVariant) =>
    drawings[`${family.key}/${variant.key}/${family.roles.map((role) => meeting(role) ?? '').join()}`];

  void joints.loadStandards();
  // What the practice trusts, of these families and build-ups, before everything else.
  const trusted = $derived(
    joints.standards.flatMap((standard) => {
      const own = offers.find(
        ({ family, variant }) =>
          family.key === standard.joint.family && variant.key === standard.joint.variant,
      );
      return standard.withdrawn || !own ? [] : [{ standard, ...own }];
    }),
  );

  /** Edges of the shape that this family is drawn for, between these build-ups, and that have no joint yet. */
  async function edgesFor(family: JointFamily, joint: Joint): Promise<string[]> {
    if (!building.bodies.length) return [];
    const found = await take(
      api.POST('/api/v1/projects/{project_id}/buildings/{building_id}/shape', {
        params: { path: { project_id: place.project, building_id: building.id } },
        body: {},
      }),
    ).catch(() => undefined); // without an answer its length is typed
    const meets = new Set(joint.roles.map((one) => one.assembly_id));
    const edge = joint.values.find((one) => one.key === 'edge')?.word;
    return (found?.now?.edges ?? [])
      .filter((one) => !one.joint && one.family === family.key && (!edge || one.kind.includes(edge)))
      .filter((one) =>
        one.elements.every((id) => {
          const assembly = building.elements?.find((element) => element.id === id)?.assembly_id;
          return !assembly || meets.has(assembly);
        }),
      )
      .map((one) => one.key);
  }

  async function start(family: JointFamily, variant: JointVariant, standard?: JointStandard): Promise<void> {
    const id = `j${crypto.randomUUID().replaceAll('-', '').slice(0, 12)}`;
    const { values, omitted, sealant, tape, fall, drains_to } = standard?.joint ?? draftOf(family, variant);
    const drawn = draftOf(family, variant);
    const joint: Joint = {
      ...drawn,
      follows: await edgesFor(family, drawn),
      ...{ values, omitted, sealant, tape, fall: fall ?? null, drains_to },
      id,
      name: standard?.joint.name ?? family.name,
      standard: standard ? { id: standard.id, version: standard.version } : null,
    };
    const text = `${joint.name}: ${variant.text}`;
    const good = await session.saveBuilding(
      { ...building, joints: [...(building.joints ?? []), joint] },
      text.slice(0, 200),
      `${place.station}3`,
    );
    if (good) router.go({ element: id, view: '' });
  }
</script>

<SheetHead zone="{place.station}3" title="{STATIONS[place.station] ?? ''}: a joint" />
<div class="meets">
  {#each roles as role (role)}
    <Choice
      label={role}
      value={meeting(role) ?? ''}
      options={(session.open?.project.assemblies ?? []).map((one) => ({ value: one.id, text: one.name }))}
      onsave={(id) => (chosen = { ...chosen, [role]: id })}
    />
  {/each}
</div>
{#if !offers.length}
  <p class="soft">
    {families.length
      ? 'No way to build a joint here suits the build-ups chosen above.'
      : 'Joints are drawn at the other stations of the mast.'}
  </p>
{/if}
{#if trusted.length}
  <h2>What the practice trusts</h2>
  <ul class="trusted" data-testid="trusted-joints">
    {#each trusted as { standard, family, variant } (standard.id)}
      <li>
        <button onclick={() => void start(family, variant, standard)}>
          <b>{standard.joint.name}</b>
          <span>{variant.text}, version {standard.version}; {standard.reason}</span>
        </button>
      </li>
    {/each}
  </ul>
  <h2>Every way to build one</h2>
{/if}
<ul data-testid="joint-starts">
  {#each offers as { family, variant } (`${family.key}/${variant.key}`)}
    {@const drawing = drawingOf(family, variant)}
    <li>
      <button onclick={() => void start(family, variant)}>
        <span class="drawing">
          {#if drawing}<JointField
              {drawing}
              solved={undefined}
              width={210}
              height={140}
              {units}
              name={variant.text}
              stale={false}
              flowLines={false}
              words={new Map()}
            />{/if}
        </span>
        <b>{variant.text}</b><span>{family.name}</span>
      </button>
    </li>
  {/each}
</ul>

<style>
  h2 {
    margin: 8px 0 4px;
  }
  .meets {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 14px;
    margin-bottom: 10px;
  }
  ul {
    list-style: none;
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(230px, 1fr));
    gap: 14px;
  }
  li button {
    display: flex;
    flex-direction: column;
    align-items: flex-start;
    gap: 2px;
    border: 0;
    background: none;
    text-align: left;
    padding: 6px;
    width: 100%;
    border-top: 1px solid var(--hair);
  }
  li button:hover {
    background: var(--verdigris-wash);
  }
  .drawing {
    height: 150px;
    pointer-events: none;
  }
  .drawing :global(.dimension),
  .drawing :global(.plate) {
    display: none;
  }
  span {
    color: var(--ink-3);
    font-size: var(--fs-small);
  }
</style>
