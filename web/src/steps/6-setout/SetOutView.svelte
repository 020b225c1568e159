<!-- Step 6: faces cut into numbered panels, sheet by sheet. -->
<script lang="ts">
  import type { Building } from '@/api/client';
  import { stream } from '@/api/stream.svelte';
  import Notice from '@/kit/Notice.svelte';
  import { refusals } from '@/kit/refusals.svelte';
  import SolvingBar from '@/kit/SolvingBar.svelte';
  import SheetHead from '@/kit/SheetHead.svelte';
  import type { Units } from '@/kit/units';
  import { href, router } from '@/project/router.svelte';
  import { session } from '@/project/session.svelte';
  import { forms } from '@/project/forms.svelte';
  import { setout } from '@/project/setout.svelte';
  import { untrack } from 'svelte';
  import CompareSheet from './CompareSheet.svelte';
  import CoursesSheet from './CoursesSheet.svelte';
  import DriftSheet from './DriftSheet.svelte';
  import ElevationSheet from './ElevationSheet.svelte';
  import FittingsSheet from './FittingsSheet.svelte';
  import LiningView from './LiningSheet.svelte';
  import PanelsSheet from './PanelsSheet.svelte';
  import PourSheet from './PourSheet.svelte';
  import TimberSheet from './TimberSheet.svelte';

  interface Props {
    building: Building;
    units: Units;
  }
  let { building, units }: Props = $props();
  const SHEETS = [
    { view: '', text: 'Elevation' },
    { view: 'panels', text: 'Panels' },
    { view: 'timber', text: 'Timber' },
    { view: 'fittings', text: 'Fittings' },
    { view: 'compared', text: 'Compared' },
  ];
  const FORMS = [
    { view: 'courses', text: 'Courses', title: 'Form walls in courses' },
    { view: 'drift', text: 'Drift', title: 'Foam against rigid sheets' },
    { view: 'pour', text: 'Pour', title: 'Pour: pressure, lifts, braces' },
    { view: 'lining', text: 'Lining', title: 'Lining: furred or direct' },
  ];
  const place = $derived(router.place);
  const project = $derived(session.open?.project.id ?? '');
  const revision = $derived(session.open?.revision ?? 0);
  $effect.pre(() => {
    const here = [project, building.id] as const;
    untrack(() => [setout, forms].forEach((one) => one.follow(...here)));
  });
  // What the shell comes to is asked again with every answer, until nothing of it is lacking.
  let answered = 0;
  $effect(() => {
    if (setout.saved.answer?.effect === null) answered = stream.answers;
    const question = { project, building: building.id, revision, system: session.system, answers: answered };
    untrack(() => setout.saved.askNew(question));
  });
  const sheet = $derived(setout.saved.of({ project, building: building.id }));
  const face = $derived(sheet?.faces.find((one) => one.face === place.element) ?? sheet?.faces[0]);
  const why = (part: string) => refusals.current?.items.find((item) => item.pointer.endsWith(part))?.detail;
  const nameOf = (element: string) => building.elements?.find((one) => one.id === element)?.name ?? '';
  /** Sheets of walls that are cast: shown where there are any, or where one is asked for. */
  const cast = $derived(FORMS.find((one) => one.view === place.view));
  const sheets = $derived(cast || sheet?.forms ? [...SHEETS, ...FORMS] : SHEETS);
  const title = $derived(
    cast
      ? cast.title
      : place.view === 'panels'
        ? 'Key plan and panel list'
        : place.view === 'timber'
          ? 'Timber and seams, back into the build-ups'
          : place.view === 'fittings'
            ? 'Posts, anchors, screws, sensors'
            : place.view === 'compared'
              ? 'The same walls in other ways'
              : face
                ? `${face.kind === 'wall' ? 'Wall' : face.kind === 'roof' ? 'Roof' : 'Floor'} ${face.mark}: panel set-out`
                : 'Panel set-out',
  );

  function go(event: MouseEvent, change: { view?: string; element?: string }): void {
    if (event.ctrlKey || event.metaKey || event.shiftKey) return;
    event.preventDefault();
    setout.drop();
    router.go(change);
  }
  function key(event: KeyboardEvent): void {
    const typing = event.target instanceof HTMLElement && /INPUT|SELECT|TEXTAREA/.test(event.target.tagName);
    if (typing || event.ctrlKey || event.metaKey || event.altKey || !sheet || place.view) return;
    if (event.key === 'f' || event.key === 'F') {
      event.preventDefault();
      event.stopPropagation();
      const at = sheet.faces.findIndex((one) => one.face === face?.face);
      const next = sheet.faces[(at + (event.shiftKey ? -1 : 1) + sheet.faces.length) % sheet.faces.length];
      setout.drop();
      if (next) router.go({ element: next.face });
    }
  }
</script>

<svelte:window onkeydowncapture={key} />

<SheetHead zone="{place.station}6" {title}>
  <nav aria-label="Sheets of the set-out">
    {#each sheets as { view, text } (view)}
      <a
        href={href({ ...place, view })}
        aria-current={place.view === view ? 'page' : undefined}
        onclick={(event) => go(event, { view })}>{text}</a
      >
    {/each}
  </nav>
</SheetHead>

{#if place.view === 'courses'}
  <CoursesSheet {building} {units} {why} />
{:else if place.view === 'drift'}
  <DriftSheet {building} {units} {why} />
{:else if place.view === 'lining'}
  <LiningView {building} {units} {why} />
{:else if place.view === 'pour'}
  <PourSheet {building} {units} {why} />
{:else if setout.saved.problem && !sheet}
  <Notice
    tone="note"
    title={setout.saved.problem.items[0]?.detail ?? 'It cannot be set out'}
    text={setout.saved.problem.items[0]?.hint ?? ''}
  />
  <p><a href={href({ ...place, step: 1, view: 'shape' })}>Draw its shape</a></p>
{:else if !sheet}
  <p role="status">Being set out</p>
  <SolvingBar solving={setout.solving} name="set-out" />
{:else}
  <div data-stale={setout.saved.stale}>
    {#if place.view === 'panels'}
      <PanelsSheet {sheet} {units} {nameOf} />
    {:else if place.view === 'compared'}
      <CompareSheet {building} {units} />
    {:else if place.view === 'fittings'}
      <FittingsSheet {sheet} {building} {units} {why} />
    {:else if place.view === 'timber'}
      <TimberSheet {sheet} {building} {units} {why} />
    {:else if face}
      <nav class="faces" aria-label="Faces">
        {#each sheet.faces as one (one.face)}
          <a
            href={href({ ...place, element: one.face })}
            aria-current={one.face === face.face ? 'true' : undefined}
            aria-label="{one.kind} {one.mark}{one.sum ? '' : ', cannot be set out'}"
            class:open={!one.sum}
            onclick={(event) => go(event, { element: one.face })}>{one.mark}</a
          >
        {/each}
        <span class="soft"><kbd>F</kbd> next face</span>
      </nav>
      {#key face.face}
        <ElevationSheet {face} {building} {units} {nameOf} />
      {/key}
    {:else}
      <Notice
        tone="note"
        title="No face of this building is made of panels"
        text={[...new Set(sheet.others.map((one) => one.reason))].join('; ')}
      />
    {/if}
  </div>
{/if}

<style>
  .faces {
    display: flex;
    flex-wrap: wrap;
    gap: 4px;
    align-items: center;
    margin: 2px 0 6px;
  }
  .faces a {
    min-width: 26px;
    height: 24px;
    padding: 0 6px;
    border: 1px solid var(--line);
    border-radius: var(--radius);
    display: inline-grid;
    place-items: center;
    font: 500 12px var(--mono);
    color: var(--ink);
    text-decoration: none;
  }
  .faces a[aria-current] {
    background: var(--verdigris);
    border-color: var(--verdigris);
    color: var(--sheet-bright);
  }
  .faces a.open:not([aria-current]) {
    border-color: var(--oxide);
    color: var(--oxide);
  }
  .faces .soft {
    margin-left: 8px;
  }
</style>
