<!-- What is entered on the faces: posts under loads, anchors, screws, sensors, sockets; and what is looked at first. -->
<script lang="ts">
  import type { Building, SetOutChoices, SetOutSheet } from '@/api/client';
  import Entry from '@/kit/Entry.svelte';
  import { counted } from '@/kit/reading';
  import type { Units } from '@/kit/units';
  import { setout } from '@/project/setout.svelte';
  import type { Column } from '@/project/columns';
  import EnteredTable from '@/project/EnteredTable.svelte';

  interface Props {
    sheet: SetOutSheet;
    building: Building;
    units: Units;
    why: (part: string) => string | undefined;
  }
  let { sheet, building, units, why }: Props = $props();
  type Post = NonNullable<SetOutChoices['posts']>[number];
  type Anchor = NonNullable<SetOutChoices['anchors']>[number];
  type Sensor = NonNullable<SetOutChoices['sensors']>[number];
  type Socket = NonNullable<SetOutChoices['sockets']>[number];
  const choices = $derived(sheet.choices);
  const first = $derived(sheet.faces[0]?.face ?? '');
  const faces = $derived(sheet.faces.map((one) => ({ value: one.face, text: one.mark })));
  const walls = $derived(sheet.faces.filter((one) => one.kind === 'wall'));
  const WAYS = ['up', 'down', 'left', 'right'].map((value) => ({ value, text: value }));
  const STOREYS = [0, 1, 2, 3].map((n) => ({ value: String(n), text: String(n + 1) }));
  const u = { key: 'u', label: 'from the left', kind: 'figure', dimension: 'length' } as const;
  const v = { key: 'v', label: 'above the foot', kind: 'figure', dimension: 'length' } as const;
  const way = { key: 'way', label: 'leads', kind: 'choice', options: WAYS } as const;
  const face = $derived({ key: 'face', label: 'face', kind: 'choice', options: faces } as const);
  const POSTS = $derived<Column<Post>[]>([
    face,
    { key: 'storey', label: 'storey', kind: 'choice', options: STOREYS, number: true },
    u,
    { key: 'width', label: 'width', kind: 'figure', dimension: 'length' },
    { key: 'load', label: 'load as stated', kind: 'figure', dimension: 'force', optional: true },
  ]);
  const ANCHORS = $derived<Column<Anchor>[]>([
    { key: 'name', label: 'as on the drawing', kind: 'text' },
    {
      key: 'kind',
      label: 'kind',
      kind: 'choice',
      options: [
        { value: 'anchor', text: 'bolt' },
        { value: 'hold_down', text: 'hold-down' },
      ],
    },
    {
      key: 'face',
      label: 'face',
      kind: 'choice',
      options: [
        { value: '', text: 'every wall' },
        ...walls.map((one) => ({ value: one.face, text: one.mark })),
      ],
    },
    {
      key: 'spacing',
      label: 'spacing at most',
      kind: 'figure',
      dimension: 'length',
      optional: true,
      clears: { at: [] },
    },
    { key: 'at', label: 'or at', kind: 'places', clears: { spacing: null } },
    { key: 'end', label: 'from the ends', kind: 'figure', dimension: 'length' },
    { key: 'clear', label: 'clear of joints', kind: 'figure', dimension: 'length' },
    { key: 'by', label: 'whose pattern', kind: 'text' },
  ]);
  const SENSORS = $derived<Column<Sensor>[]>([
    { key: 'name', label: 'identity', kind: 'text' },
    face,
    u,
    v,
    { key: 'depth', label: 'from the inside', kind: 'figure', dimension: 'length' },
    way,
  ]);
  const SOCKETS = $derived<Column<Socket>[]>([face, u, v, way]);
  const anchored = $derived(sheet.faces.filter((one) => one.anchors.length || one.no_anchors.length));
  const screws = $derived(
    !choices.screws
      ? 'no pattern entered'
      : sheet.screws === null || sheet.boxes === null
        ? `not counted: ${sheet.lacking.join(', ')} cannot be set out`
        : `${sheet.screws} in ${counted(sheet.boxes, 'box', 'boxes')}`,
  );
  const holds = $derived(sheet.faces.flatMap((one) => one.holds));
  const save = (change: Partial<SetOutChoices>, words: string) => setout.save(building, change, words);
  const saveScrews = (change: Partial<NonNullable<SetOutChoices['screws']>>) =>
    save(
      { screws: { spacing: 0.15, end: 0.05, through: null, box: 250, ...choices.screws, ...change } },
      'Screw pattern',
    );
  const named = (of: readonly { name: string }[], stem: string) => {
    let n = of.length + 1;
    while (of.some((one) => one.name === `${stem}${n}`)) n += 1;
    return `${stem}${n}`;
  };
</script>

<p class="caution" role="note">
  Posts, anchors, hold-downs and screws stand here as the engineer specified them: they are placed, drawn and
  counted, never sized.
</p>
<div class="columns">
  <div>
    <EnteredTable
      title="Posts under loads"
      note="no joint comes into them; one may stand exactly at an edge"
      one="Post"
      rows={choices.posts ?? []}
      columns={POSTS}
      fresh={() => ({ face: first, u: 1.2, storey: 0, width: 0.076, load: null })}
      {units}
      why={(path) => why(`/setout/posts${path}`)}
      onsave={(posts, words) => save({ posts }, words)}
    />
    <EnteredTable
      title="Anchors and hold-downs"
      note="along the bottom plate of the lowest storey"
      one="Anchor"
      rows={choices.anchors ?? []}
      columns={ANCHORS}
      fresh={() => ({
        name: named(choices.anchors ?? [], 'AB'),
        kind: 'anchor' as const,
        face: '',
        at: [],
        spacing: 1.2,
        end: 0.3,
        clear: 0.05,
        by: '',
      })}
      {units}
      why={(path) => why(`/setout/anchors${path}`)}
      onsave={(anchors, words) => save({ anchors }, words)}
    />
    {#if anchored.length}
      <table class="found">
        <caption class="visually-hidden">Anchors as they are placed</caption>
        <thead><tr><th>face</th><th class="n">anchors</th><th>what does not go on</th></tr></thead>
        <tbody>
          {#each anchored as one (one.face)}
            <tr>
              <td class="mono">{one.mark}</td>
              <td class="n">{one.anchors.length}</td>
              <td class:bad={one.no_anchors.length || one.anchors.some((each) => each.problem)}
                >{[
                  ...one.no_anchors,
                  ...one.anchors
                    .filter((each) => each.problem)
                    .map((each) => `${each.name} at ${units.full(each.u, 'length')}: ${each.problem}`),
                ].join('; ') || 'all clear of joints and posts'}</td
              >
            </tr>
          {/each}
        </tbody>
      </table>
    {/if}
    <EnteredTable
      title="Sensors"
      note="drawn on their panel, with the way their cable takes"
      one="Sensor"
      rows={choices.sensors ?? []}
      columns={SENSORS}
      fresh={() => ({
        name: named(choices.sensors ?? [], 'S'),
        face: first,
        u: 1.0,
        v: 1.0,
        depth: 0.05,
        way: 'up' as const,
      })}
      {units}
      why={(path) => why(`/setout/sensors${path}`)}
      onsave={(sensors, words) => save({ sensors }, words)}
    />
    <EnteredTable
      title="Sockets and chases"
      note="cut in the shop, so that nobody cuts the airtight layer on site"
      one="Socket"
      rows={choices.sockets ?? []}
      columns={SOCKETS}
      fresh={() => ({ face: first, u: 1.0, v: 0.3, way: 'down' as const })}
      {units}
      why={(path) => why(`/setout/sockets${path}`)}
      onsave={(sockets, words) => save({ sockets }, words)}
    />
  </div>
  <aside class="side">
    <h2>
      Screws <span>{screws}</span>
    </h2>
    <div class="stack">
      <Entry
        label="spacing in skins"
        dimension="length"
        value={choices.screws?.spacing ?? null}
        optional
        refused={why('/setout/screws/spacing')}
        onsave={(spacing) =>
          spacing === null ? save({ screws: null }, 'No screw pattern') : saveScrews({ spacing })}
      />
      {#if choices.screws}
        <Entry
          label="from the ends"
          dimension="length"
          value={choices.screws.end}
          refused={why('/setout/screws/end')}
          onsave={(end) => end !== null && saveScrews({ end })}
        />
        <Entry
          label="through the core"
          dimension="length"
          value={choices.screws.through}
          optional
          refused={why('/setout/screws/through')}
          onsave={(through) => saveScrews({ through })}
        />
      {/if}
    </div>
    <p class="soft">
      In both skins of both panels at every joint, and along plates. Those through the core count as points of
      the build-up once the set-out is its source.
    </p>
    <h2>Hold points <span>{holds.length ? counted(holds.length, 'point') : 'none'}</span></h2>
    <ul class="holds">
      {#each holds.slice(0, 40) as one, n (n)}
        <li><b>{one.panel}</b> {one.what}</li>
      {/each}
    </ul>
    {#if holds.length > 40}<p class="soft">and {holds.length - 40} more, in the workbook</p>{/if}
  </aside>
</div>

<style>
  .columns {
    --columns: minmax(0, 1fr) 252px;
  }
  .found {
    margin: 6px 0 2px;
  }
  .mono,
  .holds b {
    font: 500 12px var(--mono);
  }
  .bad {
    color: var(--oxide);
  }
  .holds {
    padding-left: 16px;
    font-size: var(--fs-small);
  }
  .caution {
    margin: 2px 0 8px;
  }
</style>
