<!-- The shape of a building: plan, heights, walls unfolded and the whole at one scale, and every quantity that follows. -->
<script lang="ts">
  import type { BodyOpening, Building } from '@/api/client';
  import Button from '@/kit/Button.svelte';
  import Entry from '@/kit/Entry.svelte';
  import Notice from '@/kit/Notice.svelte';
  import SheetHead from '@/kit/SheetHead.svelte';
  import type { Units } from '@/kit/units';
  import { router } from '@/project/router.svelte';
  import { session } from '@/project/session.svelte';
  import { shape, shapeOf } from '@/project/shape.svelte';
  import { untrack } from 'svelte';
  import BasisTabs from '../BasisTabs.svelte';
  import BodyForm from './BodyForm.svelte';
  import FlatFaces from './FlatFaces.svelte';
  import FileReading from './FileReading.svelte';
  import HeightSection from './HeightSection.svelte';
  import OpeningSchedule from './OpeningSchedule.svelte';
  import OpeningForm from './OpeningForm.svelte';
  import {
    newOpening,
    renumbered,
    wingOf,
    withBody,
    withOpening,
    withoutBody,
    withoutOpening,
  } from './edits';
  import { bounds, lengthOf, withLength } from './outline';
  import type { Outline } from './outline';
  import PlanShape from './PlanShape.svelte';
  import ShapeQuantities from './ShapeQuantities.svelte';
  import ShapeStart from './ShapeStart.svelte';
  import ShellView from './ShellView.svelte';
  import SideEntry from './SideEntry.svelte';
  import UnfoldedFaces from './UnfoldedFaces.svelte';

  interface Props {
    building: Building;
    units: Units;
  }
  let { building, units }: Props = $props();
  const revision = $derived(session.open?.revision ?? 0);
  $effect(() => {
    const asked = [router.place.project, building, revision, units.system] as const;
    untrack(() => shape.follow(asked[0], asked[1], asked[2]));
  });

  const stored = $derived(shapeOf(building));
  const drawn = $derived(shape.draft ?? stored);
  const sheet = $derived(shape.answer?.now ?? undefined);
  const before = $derived(shape.draft ? (shape.answer?.before ?? undefined) : undefined);
  const faces = $derived(sheet?.faces ?? []);
  const sides = $derived(
    (sheet?.sides ?? []).filter((one) => drawn.bodies.some((body) => body.id === one.body)),
  );
  // What is drawn is under the hand at once; what the server says of a side follows.
  const sidesNow = $derived(
    sides.map((one) => {
      const body = drawn.bodies.find((each) => each.id === one.body);
      return body && one.side < body.outline.length
        ? { ...one, length: lengthOf(body.outline as Outline, one.side) }
        : one;
    }),
  );

  // One scale for plan, heights and walls: the walls fill the sheet, down to a pixel size that can still be read.
  let width = $state(800);
  const around = $derived(
    stored.bodies.reduce(
      (sum, body) =>
        sum + body.outline.reduce((part, _, n) => part + lengthOf(body.outline as Outline, n), 0),
      0,
    ),
  );
  const across = $derived.by(() => {
    const box = bounds(stored.bodies.flatMap((body) => body.outline));
    return stored.bodies.length ? 2 * Math.max(box.right - box.left, box.high - box.low) : 20;
  });
  const perMetre = $derived(
    Math.max(
      Math.min(
        (width - 30) / Math.max(around + 0.9 * (stored.bodies.length - 1), 8),
        (width - 210) / across,
        40,
      ),
      11,
    ),
  );
  const scale = $derived(Math.round(96 / 0.0254 / perMetre / 5) * 5);

  const thickness = (id: string) =>
    session
      .assembly(building.elements?.find((one) => one.id === id)?.assembly_id)
      ?.layers.reduce((sum, layer) => sum + layer.d, 0) ?? 0;
  const element = (id: string) => {
    const found = building.elements?.find((one) => one.id === id);
    if (!found) return undefined;
    const assembly = session.assembly(found.assembly_id);
    const core = assembly?.layers.find((layer) => layer.studied) ?? assembly?.layers[0];
    const hatch = session.materials.get(core?.material ?? '')?.hatch ?? 'board';
    return { hatch: assembly ? hatch : 'board', station: found.station, name: found.name };
  };

  const chosenBody = $derived(
    drawn.bodies.find((one) =>
      shape.chosen?.kind === 'opening'
        ? one.id === drawn.openings.find((each) => each.id === (shape.chosen as { id: string }).id)?.body
        : one.id === shape.chosen?.body,
    ) ?? drawn.bodies[0],
  );
  const chosenOpening = $derived(
    shape.chosen?.kind === 'opening'
      ? drawn.openings.find((one) => one.id === (shape.chosen as { id: string }).id)
      : undefined,
  );
  const chosenSide = $derived.by(() => {
    const chosen = shape.chosen;
    if (chosen?.kind === 'side')
      return sidesNow.find((one) => one.body === chosen.body && one.side === chosen.at);
    return chosenOpening
      ? sidesNow.find((one) => one.body === chosenOpening.body && one.side === chosenOpening.side)
      : undefined;
  });

  const LINES = {
    outer: 'Outer faces',
    structure: 'Outer faces of the structure',
    inner: 'Inner faces',
  };
  let typed = $state<{ body: string; side: number; x: number; y: number }>();
  const typedSide = $derived(sides.find((one) => one.body === typed?.body && one.side === typed.side));
  function typeLength(length: number, apply: boolean): void {
    if (!typed) return;
    const { body: id, side } = typed;
    const from = stored.bodies.find((one) => one.id === id);
    if (!from) return;
    const outline = withLength(from.outline as Outline, side, length);
    const words = `${from.name || 'Body'}: side ${side + 1} ⟨${lengthOf(from.outline as Outline, side)} length⟩ to ⟨${length} length⟩`;
    if (apply) {
      typed = undefined;
      void shape.commit(withBody(id, { outline }), words);
    } else shape.move(withBody(id, { outline }), words);
  }

  /** Openings of a file that is being read, before they are taken. */
  let ghosts = $state.raw<BodyOpening[]>([]);
  let placing = $state<'window' | 'door'>();
  function place(body: string, side: number, u: number, z: number): void {
    const length = sides.find((one) => one.body === body && one.side === side)?.length ?? 0;
    const element = building.elements?.find((one) => one.station === 'E')?.id ?? '';
    const types = session.open?.project.units ?? [];
    const opening = newOpening(drawn, placing ?? 'window', { body, side, u, z, length }, types, element);
    placing = undefined;
    shape.chosen = { kind: 'opening', id: opening.id };
    void shape.commit((now) => ({ ...now, openings: [...now.openings, opening] }), `${opening.mark} placed`);
  }
  function removeOpening(id: string): void {
    const mark = drawn.openings.find((one) => one.id === id)?.mark ?? id;
    shape.chosen = undefined;
    void shape.commit(withoutOpening(id), `${mark} removed`);
  }
  function addBody(): void {
    const last = drawn.bodies.at(-1);
    if (last) void shape.commit((now) => ({ ...now, bodies: [...now.bodies, wingOf(last)] }), 'Wing added');
  }
  function removeBody(id: string): void {
    const name = drawn.bodies.find((one) => one.id === id)?.name ?? 'Body';
    shape.chosen = undefined;
    void shape.commit(withoutBody(id), `${name || 'Body'} removed`);
  }
  function renumber(id: string, at: number, by: 1 | -1): void {
    void shape.commit(renumbered(id, at, by), by === 1 ? 'A corner more' : 'A corner less');
  }

  function key(event: KeyboardEvent): void {
    if (event.defaultPrevented || typed) return;
    const field = event.target instanceof HTMLElement && event.target.matches('input, select, textarea');
    if (event.key === 'Escape' && (shape.draft || placing)) {
      event.preventDefault();
      event.stopPropagation();
      placing = undefined;
      shape.drop();
    } else if (event.key === 'Enter' && shape.draft && !field) {
      event.preventDefault();
      void shape.apply();
    } else if (event.key === 'f' && !field && !event.ctrlKey && !event.metaKey && sides.length) {
      event.preventDefault();
      const now = sides.findIndex(
        (one) =>
          shape.chosen?.kind === 'side' && one.body === shape.chosen.body && one.side === shape.chosen.at,
      );
      const next = sides[(now + 1) % sides.length];
      if (next) shape.chosen = { kind: 'side', body: next.body, at: next.side };
    }
  }
</script>

<svelte:window onkeydowncapture={key} />
<SheetHead zone="1" title="Shape" aside="every area and joint length of {building.name} follows from it"
  ><BasisTabs /></SheetHead
>
{#if shape.problem && (shape.draft ?? building.bodies?.length)}
  <Notice tone="decision" title="This does not close." text="{shape.problem.sentence} The old shape stands.">
    <Button onclick={() => shape.drop()}>Go back</Button>
  </Notice>
{/if}
{#if !drawn.bodies.length}
  <ShapeStart {building} {units} />
{:else}
  <div class="toolbar no-print">
    <span class="soft"
      >{LINES[session.open?.project.basis.schools.drawn_to ?? 'outer']}. One scale for plan, heights and
      walls: 1:{scale} on screen.</span
    >
    <span class="tools">
      <Button
        strong={placing === 'window'}
        onclick={() => (placing = placing === 'window' ? undefined : 'window')}>Place a window</Button
      >
      <Button strong={placing === 'door'} onclick={() => (placing = placing === 'door' ? undefined : 'door')}
        >Place a door</Button
      >
      <Button onclick={addBody}>Add a body</Button>
      {#if shape.chosen?.kind === 'side'}
        {@const chosen = shape.chosen}
        <Button onclick={() => renumber(chosen.body, chosen.at, 1)}>Put a corner in</Button>
      {:else if shape.chosen?.kind === 'corner' && (chosenBody?.outline.length ?? 0) > 3}
        {@const chosen = shape.chosen}
        <Button onclick={() => renumber(chosen.body, chosen.at, -1)}>Take the corner out</Button>
      {/if}
      {#if shape.draft && !typed}
        <Button strong onclick={() => void shape.apply()}>Take it</Button>
        <Button onclick={() => shape.drop()}>Go back</Button>
      {/if}
    </span>
  </div>
  <div class="columns">
    <div bind:clientWidth={width}>
      <div class="top">
        <section>
          <h2>Plan</h2>
          <PlanShape
            {drawn}
            ghost={shape.draft ? stored : undefined}
            {faces}
            sides={sidesNow}
            openings={drawn.openings}
            {thickness}
            {perMetre}
            chosen={shape.chosen}
            {units}
            onchoose={(chosen) => (shape.chosen = chosen)}
            onmove={(body, outline, words) => shape.move(withBody(body, { outline }), words)}
            onturn={(north) => shape.move((now) => ({ ...now, north }), 'North turned')}
            oncancel={() => shape.drop()}
            onrelease={() => shape.draft && void shape.apply()}
            ontype={(body, side, at) => (typed = { body, side, ...at })}
          />
        </section>
        {#if chosenBody}
          <section>
            <h2>Heights <span>{chosenBody.name}</span></h2>
            <HeightSection
              body={chosenBody}
              {sheet}
              wall={thickness(chosenBody.wall ?? '')}
              roof={thickness(chosenBody.top ?? '')}
              floors={building.floor_thickness ?? 0.3}
              {perMetre}
              {units}
            />
          </section>
        {/if}
      </div>
      <h2>
        Walls, unfolded from corner 1
        <span
          >{placing
            ? `click where the ${placing} is to stand`
            : 'seen from outside; module ghosted. Drag an opening or type its distance.'}</span
        >
      </h2>
      <UnfoldedFaces
        {drawn}
        {faces}
        sides={sidesNow}
        {element}
        {perMetre}
        chosen={shape.chosen}
        {units}
        onchoose={(chosen) => (shape.chosen = chosen)}
        onmove={(opening, words) => shape.move(withOpening(opening.id, opening), words)}
        onrelease={() => shape.draft && void shape.apply()}
        {ghosts}
        placing={placing !== undefined}
        onplace={place}
        onremove={removeOpening}
        ontype={(body, side, at) => (typed = { body, side, ...at })}
      />
      {#if sheet}
        <ShapeQuantities {building} {sheet} {before} {units} />
        <OpeningSchedule
          {building}
          openings={drawn.openings}
          {units}
          chosen={shape.chosen}
          onchoose={(chosen) => (shape.chosen = chosen)}
        />
      {/if}
    </div>
    <div class="side">
      <h2>Shell</h2>
      <ShellView
        {faces}
        {element}
        station={router.place.station}
        width={232}
        height={150}
        {units}
        onvisit={(id) => {
          const found = building.elements?.find((one) => one.id === id);
          if (found) router.go({ step: 2, station: found.station, element: id });
        }}
      />
      {#if chosenOpening}
        {@const opening = chosenOpening}
        <h2>Opening</h2>
        <OpeningForm
          {opening}
          {building}
          side={chosenSide}
          onpreview={(change, words) => shape.move(withOpening(opening.id, change), words)}
          onchange={(change, words) => void shape.commit(withOpening(opening.id, change), words)}
          oncancel={() => shape.drop()}
          onremove={() => removeOpening(opening.id)}
        />
      {:else if chosenBody}
        {@const body = chosenBody}
        <h2>Heights and roof</h2>
        <BodyForm
          {body}
          {building}
          {sheet}
          side={chosenSide}
          {units}
          onpreview={(change, words) => shape.move(withBody(body.id, change), words)}
          onchange={(change, words) => void shape.commit(withBody(body.id, change), words)}
          oncancel={() => shape.drop()}
          onremove={drawn.bodies.length > 1 ? () => removeBody(body.id) : undefined}
        />
        <div class="stack north">
          <Entry
            label="plan's top faces, bearing °"
            dimension="ratio"
            decimals={1}
            value={drawn.north}
            onsave={(north) =>
              north !== null && void shape.commit((now) => ({ ...now, north }), 'North turned')}
          />
        </div>
      {/if}
      <p class="soft">
        Curved walls and dormers are not drawn yet: enter them below as flat faces with an outline.
      </p>
    </div>
  </div>
{/if}
{#if building.bodies.length}<FlatFaces {building} {sheet} {units} />{/if}
<FileReading
  {building}
  {sides}
  {units}
  onghosts={(openings) => (ghosts = openings)}
  ondraft={(body, openings, north, words) => shape.move(() => ({ bodies: [body], openings, north }), words)}
  ontake={(openings, words) =>
    shape.commit((now) => ({ ...now, openings: [...now.openings, ...openings] }), words)}
/>
{#if typed && typedSide}
  <SideEntry
    side={typedSide}
    at={{
      x: Math.min(Math.max(typed.x, 110), innerWidth - 110),
      y: Math.min(typed.y + 4, innerHeight - 230),
    }}
    {units}
    onpreview={(length) => typeLength(length, false)}
    onapply={(length) => typeLength(length, true)}
    oncancel={() => {
      typed = undefined;
      shape.drop();
    }}
  />
{/if}

<style>
  .columns {
    --columns: minmax(0, 1fr) 250px;
    gap: 16px;
  }
  .top {
    display: flex;
    flex-wrap: wrap;
    gap: 8px 20px;
    align-items: flex-end;
  }
  .north {
    margin: 4px 0 8px;
  }
  section {
    min-width: 0;
  }
  .toolbar {
    display: flex;
    flex-wrap: wrap;
    justify-content: space-between;
    gap: 6px;
    align-items: center;
  }
  .tools {
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
  }
</style>
