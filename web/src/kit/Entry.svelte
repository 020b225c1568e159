<!-- A field for one quantity: typed in the project's units, checked where it stands, saved on Enter or on leaving. -->
<script lang="ts">
  import { untrack } from 'svelte';
  import { unitsInUse } from './reading';
  import { refusals } from './refusals.svelte';
  import { EXAMPLES } from './units';
  interface Props {
    value: number | null | undefined;
    dimension: string;
    label: string;
    onsave: (value: number | null) => void;
    /** Follows while typing; no save. */
    onpreview?: (value: number) => void;
    oncancel?: () => void;
    optional?: boolean;
    yours?: boolean;
    decimals?: number | undefined;
    refused?: string | undefined;
    width?: 'tiny' | 'small' | 'wide';
    showLabel?: boolean;
    positive?: boolean;
    autofocus?: boolean;
    showUnit?: boolean;
  }
  let {
    value,
    dimension,
    label,
    onsave,
    onpreview,
    oncancel,
    optional = false,
    yours = false,
    decimals,
    refused,
    width = 'small',
    showLabel = true,
    positive = false,
    autofocus = false,
    showUnit = true,
  }: Props = $props();

  const inUse = unitsInUse();
  const units = $derived(inUse());
  const shown = $derived(
    value === null || value === undefined || !units
      ? ''
      : dimension === 'length'
        ? units.length(value)
        : units.show(value, dimension, decimals),
  );
  const unit = $derived(
    !units ? '' : dimension === 'length' ? (units.system === 'SI' ? 'mm' : '') : units.symbol(dimension),
  );
  let text = $state<string>();
  // What was typed in another unit, as a fraction or as a sum is shown as it is understood.
  const understood = $derived.by(() => {
    if (text === undefined || !units || !/[a-z'"/+*×÷(°%²³]|\d,\d|[^e]-/i.test(text)) return undefined;
    const found = units.read(text, dimension);
    return 'value' in found ? `is ${units.full(found.value, dimension, decimals)}` : '';
  });
  let wrong = $state('');
  let input = $state<HTMLInputElement>();
  const uid = $props.id();
  /** What was sent last; it stands again where it is refused, until it is mended here. */
  let sent: string | undefined;
  let refusedAt = -1;
  $effect(() => {
    const last = refusals.last;
    untrack(() => {
      if (last?.field !== uid || sent === undefined) return;
      if (last.problem) {
        text ??= sent; // what is being typed by now stays
        wrong = last.problem.sentence;
        refusedAt = refusals.saved;
        refusals.shown = last.problem;
      } else if (text === sent) {
        text = undefined;
        wrong = '';
      }
    });
  });

  $effect(() => {
    if (refused && refusals.current) refusals.shown = refusals.current; // by its pointer
  });

  $effect(() => {
    if (autofocus) input?.select();
  });

  // A value set from outside loses what is selected, and what is typed next would be joined to it. Where all of the
  // field is selected, or it is empty, all of what comes is selected.
  let whole = false;
  $effect.pre(() => {
    void shown;
    whole =
      untrack(() => text) === undefined &&
      !!input &&
      document.activeElement === input &&
      input.selectionStart === 0 &&
      input.selectionEnd === input.value.length;
  });
  $effect(() => {
    void shown;
    if (whole) input?.select();
  });

  function read(typed: string): number | null | undefined {
    if (typed.trim() === '') return optional ? null : undefined;
    const found = units?.parse(typed, dimension);
    return found !== undefined && positive && found <= 0 ? undefined : found;
  }

  /** What was shown when typing began: a preview may show what is typed. */
  let stood = '';

  function typing(typed: string): void {
    if (text === undefined) stood = shown;
    text = typed;
    wrong = '';
    const found = read(typed);
    if (typeof found === 'number') onpreview?.(found);
  }

  function finish(): void {
    if (text === undefined) return;
    const typed = text;
    const found = read(typed);
    if (found === undefined) {
      wrong = hint(typed);
      return;
    }
    if (wrong && typed === sent && refusedAt === refusals.saved) return; // it was refused as it stands
    text = undefined;
    wrong = '';
    if (typed === stood) {
      refusals.withdraw(uid);
      return oncancel?.();
    }
    sent = typed;
    refusals.writing(uid, () => onsave(found));
  }

  function hint(typed: string): string {
    const found = units?.read(typed, dimension);
    const above = `${label} lies above 0`;
    if (typed.trim() === '') return `Nothing was typed: ${positive ? above : `${label} is a number`}.`;
    if (found === undefined || 'value' in found) return `“${typed}”: ${above}.`;
    const like =
      dimension === 'length' ? EXAMPLES[units?.system ?? 'SI'] : `12.5${unit ? ` ${unit}` : ''} or 3*4`;
    return `“${typed}”: ${found.why}${found.why.includes('two ways') ? '' : `; write ${like}`}.`;
  }

  function key(event: KeyboardEvent): void {
    if (event.key === 'Enter') {
      event.preventDefault();
      finish();
    } else if (event.key === 'Escape') {
      event.stopPropagation();
      text = sent = undefined;
      wrong = '';
      refusals.withdraw(uid);
      oncancel?.();
    }
  }
</script>

<span class="entry">
  <label for={uid} class:visually-hidden={!showLabel}>{label}</label>
  <span
    class="box {width}"
    class:feet={dimension === 'length' && units?.system === 'IP'}
    class:yours
    class:refused={wrong || refused}
  >
    <input
      bind:this={input}
      id={uid}
      value={text ?? shown}
      placeholder={optional ? '–' : ''}
      data-entry={text === undefined ? 'still' : 'typing'}
      autocomplete="off"
      spellcheck="false"
      aria-invalid={wrong || refused ? 'true' : undefined}
      aria-describedby={wrong || refused ? `${uid}-why` : undefined}
      oninput={(event) => typing(event.currentTarget.value)}
      onkeydown={key}
      onblur={finish}
    />
    {#if understood !== undefined}<span class="unit">{understood}</span>{:else if unit && showUnit}<span
        class="unit">{unit}</span
      >{/if}
  </span>
  {#if wrong || refused}<span class="why" id="{uid}-why" role="alert">{wrong || refused}</span>{/if}
</span>

<style>
  .entry {
    display: inline-flex;
    align-items: center;
    gap: var(--s1) var(--s2);
    flex-wrap: wrap;
  }
  label {
    color: var(--ink-2);
    font-size: var(--fs-small);
  }
  .box {
    display: inline-flex;
    align-items: baseline;
    border: 1px solid var(--line);
    border-radius: var(--radius);
    background: var(--sheet-bright);
    padding: 2px 6px;
    min-height: 24px;
  }
  .box:focus-within {
    border-color: var(--verdigris);
    box-shadow: inset 0 0 0 1px var(--verdigris);
  }
  .box.refused {
    border-color: var(--oxide);
    box-shadow: inset 0 0 0 1px var(--oxide);
  }
  input {
    border: 0;
    background: none;
    outline: none;
    font: 500 12.5px var(--mono);
    letter-spacing: -0.02em;
    text-align: right;
    width: 6ch;
  }
  .tiny input {
    width: 5.4ch;
  }
  .feet input {
    width: 10.5ch;
  }
  .wide input {
    width: 13ch;
  }
  .yours input {
    color: var(--verdigris);
    font-weight: 600;
  }
  .unit {
    color: var(--ink-3);
    font-size: var(--fs-cap);
    margin-left: 4px;
    white-space: nowrap;
  }
  .why {
    color: var(--oxide);
    font-size: var(--fs-small);
    font-weight: 500;
    flex-basis: 100%;
  }
</style>
