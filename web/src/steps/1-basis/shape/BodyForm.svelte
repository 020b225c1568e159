<!-- Heights and roof of one body, typed; and what lies beyond its sides. -->
<script lang="ts">
  import type { Body, Building, DrawnSide, ShapeSheet } from '@/api/client';
  import Button from '@/kit/Button.svelte';
  import Choice from '@/kit/Choice.svelte';
  import Entry from '@/kit/Entry.svelte';
  import type { Units } from '@/kit/units';

  interface Props {
    body: Body;
    building: Building;
    sheet: ShapeSheet | undefined;
    side: DrawnSide | undefined;
    units: Units;
    onpreview: (change: Partial<Body>, words: string) => void;
    onchange: (change: Partial<Body>, words: string) => void;
    oncancel: () => void;
    onremove: (() => void) | undefined;
  }
  let { body, building, sheet, side, units, onpreview, onchange, oncancel, onremove }: Props = $props();
  const name = $derived(body.name || 'Body');
  const roof = $derived(body.roof ?? {});
  const heights = $derived(sheet?.bodies.find((one) => one.id === body.id));
  const rise = $derived(heights ? heights.ridge - heights.eaves : 0);
  const elements = (part: string) =>
    (building.elements ?? [])
      .filter((one) => ({ wall: 'D', top: 'B', floor: 'FH' })[part]?.includes(one.station))
      .map((one) => ({ value: one.id, text: one.name }));
  const storeys = (n: number, height: number) => body.storeys.map((one, at) => (at === n ? height : one));
  /** Pitch for a ridge so high above the eaves: the run stays, so no pitch on its way to the server moves it. */
  const pitchFor = (above: number) =>
    heights?.run ? (Math.atan2(above, heights.run) * 180) / Math.PI : (roof.pitch ?? 0);
  const FORMS = [
    { value: 'flat', text: 'flat' },
    { value: 'one pitch', text: 'one pitch' },
    { value: 'two pitches', text: 'two pitches' },
    { value: 'hip', text: 'hip' },
  ];
  const WAYS = [
    { value: '180', text: 'down the plan' },
    { value: '0', text: 'up the plan' },
    { value: '90', text: 'to the right' },
    { value: '270', text: 'to the left' },
  ];
  const BEYOND = [
    { value: 'outside', text: 'outside' },
    { value: 'ground', text: 'ground' },
    { value: 'heated', text: 'a heated neighbour, new or existing' },
    { value: 'unheated', text: 'an unheated neighbour, new or existing' },
  ];
  const own = $derived(side && (body.sides ?? []).find((one) => one.number === side.side));
  function setSide(change: { beyond?: string; zone?: string }, words: string): void {
    if (!side) return;
    const next = { number: side.side, beyond: own?.beyond ?? 'outside', zone: own?.zone ?? '', ...change };
    const others = (body.sides ?? []).filter((one) => one.number !== side.side);
    const keep = next.beyond !== 'outside' || next.zone;
    onchange({ sides: (keep ? [...others, next] : others) as NonNullable<Body['sides']> }, words);
  }
  type Part = NonNullable<Body['parts']>[number];
  function setPart(n: number, change: Partial<Part>, words: string): void {
    onchange({ parts: (body.parts ?? []).map((one, at) => (at === n ? { ...one, ...change } : one)) }, words);
  }
  function dropPart(n: number): void {
    onchange({ parts: (body.parts ?? []).filter((_, at) => at !== n) }, `${name}: one wall again`);
  }
  function addPart(): void {
    const other = elements('wall').find((one) => one.value !== (own?.zone || body.wall));
    if (!side || !other) return;
    const part: Part = { side: side.side, zone: other.value, low: 0, high: 1, left: null, right: null };
    onchange({ parts: [...(body.parts ?? []), part] }, `${name}: another wall in side ${side.side + 1}`);
  }
</script>

<div class="form">
  <label class="name"
    ><span>body</span><input
      value={body.name}
      maxlength="80"
      onkeydown={(event) => event.key === 'Enter' && event.currentTarget.blur()}
      onchange={(event) => onchange({ name: event.currentTarget.value.trim() }, 'Body renamed')}
    /></label
  >
  {#each body.storeys.map((height, n) => ({ height, n })).toReversed() as { height, n } (n)}
    <Entry
      label={body.storeys.length === 1 ? 'storey' : `storey ${n + 1}`}
      dimension="length"
      value={height}
      positive
      onpreview={(value) => onpreview({ storeys: storeys(n, value) }, `${name}: storey ${n + 1}`)}
      {oncancel}
      onsave={(value) =>
        value !== null && onchange({ storeys: storeys(n, value) }, `${name}: storey ${n + 1}`)}
    />
  {/each}
  <span class="buttons">
    <Button
      onclick={() =>
        onchange({ storeys: [...body.storeys, body.storeys.at(-1) ?? 2.8] }, `${name}: a storey more`)}
      >Add a storey</Button
    >
    {#if body.storeys.length > 1}<Button
        onclick={() => onchange({ storeys: body.storeys.slice(0, -1) }, `${name}: a storey less`)}
        >Take one off</Button
      >{/if}
  </span>
  <Entry
    label="lowest floor at"
    dimension="length"
    value={body.base}
    onpreview={(base) => onpreview({ base }, `${name}: lowest floor`)}
    {oncancel}
    onsave={(base) => base !== null && onchange({ base }, `${name}: lowest floor`)}
  />
  <Entry
    label="ground at"
    dimension="length"
    value={body.ground}
    optional
    onpreview={(ground) => onpreview({ ground }, `${name}: ground line`)}
    {oncancel}
    onsave={(ground) => onchange({ ground }, `${name}: ground line`)}
  />
  <Choice
    label="roof"
    value={roof.form ?? 'flat'}
    options={FORMS}
    onsave={(form) =>
      onchange(
        { roof: { ...roof, form: form as 'flat', pitch: form === 'flat' ? 0 : roof.pitch || 30 } },
        `${name}: roof ${form}`,
      )}
  />
  {#if roof.form && roof.form !== 'flat'}
    <Entry
      label="pitch °"
      dimension="ratio"
      decimals={2}
      value={roof.pitch}
      onpreview={(pitch) => onpreview({ roof: { ...roof, pitch } }, `${name}: pitch`)}
      {oncancel}
      onsave={(pitch) => pitch !== null && onchange({ roof: { ...roof, pitch } }, `${name}: pitch`)}
    />
    <Entry
      label="ridge above eaves"
      dimension="length"
      value={rise}
      positive
      onpreview={(above) => onpreview({ roof: { ...roof, pitch: pitchFor(above) } }, `${name}: ridge`)}
      {oncancel}
      onsave={(above) =>
        above !== null && onchange({ roof: { ...roof, pitch: pitchFor(above) } }, `${name}: ridge`)}
    />
    {#if roof.form !== 'hip'}
      <Choice
        label="falls"
        value={String(roof.towards ?? 180)}
        options={WAYS.some((one) => one.value === String(roof.towards ?? 180))
          ? WAYS
          : [...WAYS, { value: String(roof.towards), text: `at ${roof.towards}°` }]}
        onsave={(towards) =>
          onchange({ roof: { ...roof, towards: Number(towards) } }, `${name}: roof turned`)}
      />
    {/if}
    <Entry
      label="overhang"
      dimension="length"
      value={roof.overhang}
      onsave={(overhang) =>
        overhang !== null && onchange({ roof: { ...roof, overhang } }, `${name}: overhang`)}
    />
  {:else}
    <Entry
      label="parapet"
      dimension="length"
      value={roof.parapet}
      onsave={(parapet) => parapet !== null && onchange({ roof: { ...roof, parapet } }, `${name}: parapet`)}
    />
  {/if}
  {#each [{ part: 'wall', text: 'walls' }, { part: 'below', text: 'walls in the ground' }, { part: 'top', text: 'roof is' }, { part: 'floor', text: 'floor is' }] as { part, text } (part)}
    {@const key = part as 'wall'}
    <Choice
      label={text}
      value={body[key] ?? ''}
      options={[
        { value: '', text: part === 'below' ? 'as above' : 'not counted' },
        ...elements(part === 'below' ? 'wall' : part),
      ]}
      onsave={(id) => onchange({ [key]: id }, `${name}: ${text}`)}
    />
  {/each}
  {#if side}
    <p class="soft">
      Side {side.side + 1}, {units.full(side.length, 'length')}, faces {Math.round(side.bearing)}°
    </p>
    <Choice
      label="beyond it"
      value={own?.beyond ?? 'outside'}
      options={BEYOND}
      onsave={(beyond) => setSide({ beyond }, `${name}: side ${side.side + 1} to ${beyond}`)}
    />
    <Choice
      label="its wall"
      value={own?.zone ?? ''}
      options={[{ value: '', text: 'as the body' }, ...elements('wall')]}
      onsave={(zone) => setSide({ zone }, `${name}: wall of side ${side.side + 1}`)}
    />
  {/if}
  {#if side}
    {#each (body.parts ?? [])
      .map((part, n) => ({ part, n }))
      .filter(({ part }) => part.side === side.side) as { part, n } (n)}
      <p class="soft">A part of it is another wall</p>
      <Choice
        label="that part is"
        value={part.zone}
        options={elements('wall')}
        onsave={(zone) => setPart(n, { zone }, `${name}: another wall in side ${side.side + 1}`)}
      />
      <Entry
        label="from, above the floor"
        dimension="length"
        value={part.low}
        onsave={(low) => low !== null && setPart(n, { low }, `${name}: part of side ${side.side + 1}`)}
      />
      <Entry
        label="up to"
        dimension="length"
        value={part.high}
        onsave={(high) => high !== null && setPart(n, { high }, `${name}: part of side ${side.side + 1}`)}
      />
      <Button onclick={() => dropPart(n)}>Take this part off</Button>
    {/each}
    {#if elements('wall').length > 1}<Button onclick={addPart}>Another wall in a part of it</Button>{/if}
  {/if}
  {#if onremove}<Button onclick={onremove}>Remove this body</Button>{/if}
</div>

<style>
  .form {
    display: grid;
    gap: 3px;
    justify-items: end;
  }
  .name {
    display: flex;
    gap: 6px;
    align-items: center;
  }
  .name input {
    width: 130px;
  }
  .name span {
    color: var(--ink-2);
    font-size: var(--fs-small);
  }
  .buttons {
    display: flex;
    gap: 6px;
  }
  p {
    margin: 4px 0 0;
  }
</style>
