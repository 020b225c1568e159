<!-- A unit type, typed: size, frame, glass and spacer, how it sits in the wall, what its joints are built with. -->
<script lang="ts">
  import type { DrawnUnits, UnitType } from '@/api/client';
  import Choice from '@/kit/Choice.svelte';
  import Entry from '@/kit/Entry.svelte';

  interface Props {
    unit: UnitType;
    sheet: DrawnUnits;
    currency: string;
    onpreview: (unit: UnitType) => void;
    onchange: (change: Partial<UnitType>, words: string) => void;
    oncancel: () => void;
  }
  let { unit, sheet, currency, onpreview, onchange, oncancel }: Props = $props();
  type Key =
    'w' | 'h' | 'sill' | 'division' | 'panel_U' | 'panel_psi' | 'shim' | 'flashing' | 'deep' | 'position';
  interface Field {
    key: Key;
    text: string;
    dimension: string;
  }
  const SIZE: Field[] = [
    { key: 'w', text: 'width', dimension: 'length' },
    { key: 'h', text: 'height', dimension: 'length' },
    { key: 'sill', text: 'sill above the floor', dimension: 'length' },
  ];
  const IN_WALL: Field[] = [
    { key: 'shim', text: 'shim space', dimension: 'length' },
    { key: 'flashing', text: 'flashing under it', dimension: 'length' },
    { key: 'deep', text: 'frame depth', dimension: 'length' },
    { key: 'position', text: 'place in the wall, 0 outside', dimension: 'share' },
  ];
  const SIDES = ['left', 'right', 'top', 'bottom'] as const;
  const OPENS = ['fixed', 'side hung', 'top hung', 'tilt and turn', 'sliding', 'inward', 'outward'].map(
    (value) => ({
      value,
      text: value,
    }),
  );
  const frame = $derived(unit.frame ?? { left: 0.11, right: 0.11, top: 0.11, bottom: 0.12, U: 1.1 });
  const glass = $derived(unit.glass ?? { U: 0.6, g: 0.5, psi: 0.04 });
  const edges = $derived(unit.kind === 'door' ? ['head', 'jamb', 'threshold'] : ['head', 'jamb', 'sill']);
  const variant = (edge: string) => unit.joints?.find((one) => one.edge === edge)?.variant ?? '';
  function setVariant(edge: string, word: string): void {
    const rest = (unit.joints ?? []).filter((one) => one.edge !== edge);
    const joints = word ? [...rest, { edge: edge as 'head', variant: word }] : rest;
    onchange({ joints }, `${edge} joint`);
  }
  function start(key: string): void {
    const one = sheet.frames.find((each) => each.key === key);
    if (!one) return;
    const b = one.visible;
    onchange(
      { frame: { left: b, right: b, top: b, bottom: b, U: one.U }, deep: one.deep },
      `frame: ${one.name}`,
    );
  }
  function glaze(key: string): void {
    const one = sheet.glasses.find((each) => each.key === key);
    if (one) onchange({ glass: { ...glass, U: one.U, g: one.g }, panes: one.panes }, `glass: ${one.name}`);
  }
  function space(key: string): void {
    const one = sheet.spacers.find((each) => each.key === key);
    if (one) onchange({ glass: { ...glass, psi: one.psi }, spacer: one.name }, `spacer: ${one.name}`);
  }
  const offered = (several: readonly { key: string; name: string }[]) => [
    { value: '', text: 'usual values …' },
    ...several.map((one) => ({ value: one.key, text: one.name })),
  ];
  const whole = (text: string) => Math.round(Number(text));
</script>

{#snippet quantity(field: Field)}
  <Entry
    label={field.text}
    dimension={field.dimension}
    value={unit[field.key]}
    onpreview={(value) => onpreview({ ...unit, [field.key]: value })}
    {oncancel}
    onsave={(value) => value !== null && onchange({ [field.key]: value }, field.text)}
  />
{/snippet}
{#snippet count(key: 'columns' | 'rows' | 'filled' | 'panes', text: string, least: number, most: number)}
  <label class="count"
    ><span>{text}</span><input
      type="number"
      min={least}
      max={most}
      value={unit[key] ?? least}
      onchange={(event) => {
        const value = whole(event.currentTarget.value);
        if (value >= least && value <= most) onchange({ [key]: value }, text);
        else event.currentTarget.value = String(unit[key] ?? least);
      }}
    /></label
  >
{/snippet}

<div class="form" data-testid="unit-form">
  <section>
    <h3>Size</h3>
    <label class="count wide"
      ><span>name</span><input
        value={unit.name}
        maxlength="80"
        onkeydown={(event) => event.key === 'Enter' && event.currentTarget.blur()}
        onchange={(event) =>
          event.currentTarget.value.trim() && onchange({ name: event.currentTarget.value.trim() }, 'name')}
      /></label
    >
    <Choice
      label="kind"
      value={unit.kind ?? 'window'}
      options={[
        { value: 'window', text: 'window' },
        { value: 'door', text: 'door' },
      ]}
      onsave={(kind) => onchange({ kind: kind as 'window' }, `a ${kind}`)}
    />
    <Choice
      label="opens"
      value={unit.opens ?? 'fixed'}
      options={OPENS}
      onsave={(opens) => onchange({ opens: opens as 'fixed' }, opens)}
    />
    {#each SIZE as field (field.key)}{@render quantity(field)}{/each}
    {@render count('columns', 'lights side by side', 1, 12)}
    {@render count('rows', 'lights one above another', 1, 12)}
    {#if (unit.columns ?? 1) + (unit.rows ?? 1) > 2}{@render quantity({
        key: 'division',
        text: 'mullion, visible',
        dimension: 'length',
      })}{/if}
    {@render count('filled', 'rows of panels, from below', 0, unit.rows ?? 1)}
  </section>
  <section>
    <h3>Frame and glass</h3>
    <Choice label="frame" value="" options={offered(sheet.frames)} onsave={start} />
    {#each SIDES as side (side)}
      <Entry
        label="frame, {side}"
        dimension="length"
        value={frame[side]}
        onpreview={(value) => onpreview({ ...unit, frame: { ...frame, [side]: value } })}
        {oncancel}
        onsave={(value) =>
          value !== null && onchange({ frame: { ...frame, [side]: value } }, `frame, ${side}`)}
      />
    {/each}
    <Entry
      label="U of the frame"
      dimension="transmittance"
      value={frame.U}
      positive
      onpreview={(U) => onpreview({ ...unit, frame: { ...frame, U } })}
      {oncancel}
      onsave={(U) => U !== null && onchange({ frame: { ...frame, U } }, 'U of the frame')}
    />
    <Choice label="glass" value="" options={offered(sheet.glasses)} onsave={glaze} />
    {@render count('panes', 'panes', 1, 5)}
    <Entry
      label="U of the glass"
      dimension="transmittance"
      value={glass.U}
      positive
      onpreview={(U) => onpreview({ ...unit, glass: { ...glass, U } })}
      {oncancel}
      onsave={(U) => U !== null && onchange({ glass: { ...glass, U } }, 'U of the glass')}
    />
    <Entry
      label="g of the glass"
      dimension="share"
      value={glass.g}
      onpreview={(g) => onpreview({ ...unit, glass: { ...glass, g } })}
      {oncancel}
      onsave={(g) => g !== null && onchange({ glass: { ...glass, g } }, 'g of the glass')}
    />
    <Choice label="spacer" value="" options={offered(sheet.spacers)} onsave={space} />
    <Entry
      label="ψ of the edge"
      dimension="linear"
      value={glass.psi}
      onpreview={(psi) => onpreview({ ...unit, glass: { ...glass, psi } })}
      {oncancel}
      onsave={(psi) => psi !== null && onchange({ glass: { ...glass, psi } }, 'edge of the glass')}
    />
    {#if unit.filled}
      {@render quantity({ key: 'panel_U', text: 'U of the panel', dimension: 'transmittance' })}
      {@render quantity({ key: 'panel_psi', text: 'ψ of its edge', dimension: 'linear' })}
    {/if}
    <Entry
      label="U declared"
      dimension="transmittance"
      value={unit.U_declared}
      optional
      positive
      onsave={(U_declared) => onchange({ U_declared }, U_declared === null ? 'U by its parts' : 'declared U')}
    />
    <Entry
      label="g declared"
      dimension="share"
      value={unit.g_declared}
      optional
      onsave={(g_declared) => onchange({ g_declared }, g_declared === null ? 'g by its parts' : 'declared g')}
    />
  </section>
  <section>
    <h3>In the wall</h3>
    {#each IN_WALL as field (field.key)}{@render quantity(field)}{/each}
    <Choice
      label="fastened by"
      value={unit.fin ? 'fin' : 'none'}
      options={[
        { value: 'fin', text: 'a fin on the face' },
        { value: 'none', text: 'screws in the jambs' },
      ]}
      onsave={(word) => onchange({ fin: word === 'fin' }, word === 'fin' ? 'with a fin' : 'without a fin')}
    />
    {#each edges as edge (edge)}
      <Choice
        label="{edge} built as"
        value={variant(edge)}
        options={[
          { value: '', text: 'as the joint says' },
          ...sheet.variants
            .filter((one) => one.edge === edge)
            .map((one) => ({ value: one.variant, text: one.text })),
        ]}
        onsave={(word) => setVariant(edge, word)}
      />
    {/each}
    <Entry
      label="mass of one"
      dimension="mass"
      value={unit.mass}
      optional
      onsave={(mass) => onchange({ mass }, 'mass')}
    />
    <Entry
      label="price of one{currency ? `, ${currency}` : ''}"
      dimension="ratio"
      decimals={2}
      value={unit.price}
      optional
      onsave={(price) => onchange({ price }, 'price')}
    />
  </section>
</div>

<style>
  .form {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(212px, 1fr));
    gap: 4px 18px;
  }
  section {
    display: grid;
    gap: 3px;
    justify-items: end;
    align-content: start;
  }
  h3 {
    justify-self: start;
    margin: 0;
  }
  .form :global(select) {
    max-width: 132px;
  }
  .count {
    display: flex;
    gap: 6px;
    align-items: center;
  }
  .count span {
    color: var(--ink-2);
    font-size: var(--fs-small);
  }
  .count input {
    width: 56px;
  }
  .count.wide input {
    width: 132px;
  }
</style>
