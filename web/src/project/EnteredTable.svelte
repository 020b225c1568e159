<!-- Things that somebody enters on the faces of a set-out: a row each, saved as they are typed. -->
<script lang="ts" generics="Row extends object">
  import Button from '@/kit/Button.svelte';
  import Choice from '@/kit/Choice.svelte';
  import Entry from '@/kit/Entry.svelte';
  import type { Units } from '@/kit/units';
  import type { Column } from './columns';

  interface Props {
    title: string;
    note: string;
    one: string;
    rows: readonly Row[];
    columns: readonly Column<Row>[];
    fresh: () => Row;
    units: Units;
    why: (path: string) => string | undefined;
    onsave: (rows: Row[], words: string) => void;
  }
  let { title, note, one, rows, columns, fresh, units, why, onsave }: Props = $props();
  const value = (row: Row, key: keyof Row) => row[key] as unknown;
  const change = (at: number, key: keyof Row, to: unknown, also: Partial<Row> = {}) =>
    onsave(
      rows.map((row, n) => (n === at ? { ...row, ...also, [key]: to } : row)),
      `${one} ${at + 1} changed`,
    );
  /** What was typed and cannot be read stays, with what is wrong with it. */
  let typed = $state<Record<number, string>>({});
  let wrong = $state<Record<number, string>>({});
  function places(at: number, column: Column<Row>, said: string): void {
    const found = said
      .split(';')
      .filter((part) => part.trim())
      .map((part) => units.read(part, 'length'));
    const bad = found.find((each) => !('value' in each));
    typed = { ...typed, [at]: bad ? said : undefined } as Record<number, string>;
    wrong = { ...wrong, [at]: bad ? 'lengths, with ; between them' : '' };
    if (bad) return;
    const to = found.flatMap((each) => ('value' in each ? [each.value] : []));
    change(at, column.key, to, to.length && 'clears' in column ? column.clears : {});
  }
  const text = (row: Row, key: keyof Row) => {
    const found = value(row, key);
    return typeof found === 'string' || typeof found === 'number' ? String(found) : '';
  };
</script>

<section aria-label={title}>
  <h2>{title} <span>{note}</span></h2>
  {#if rows.length}
    <table>
      <thead>
        <tr
          >{#each columns as column (column.label)}<th>{column.label}</th>{/each}<th
            ><span class="visually-hidden">remove</span></th
          ></tr
        >
      </thead>
      <tbody>
        {#each rows as row, n (n)}
          <tr>
            {#each columns as column (column.label)}
              <td>
                {#if column.kind === 'choice'}
                  <Choice
                    label="{column.label}, {one} {n + 1}"
                    showLabel={false}
                    value={text(row, column.key)}
                    options={column.options}
                    onsave={(to) => change(n, column.key, column.number ? Number(to) : to)}
                  />
                {:else if column.kind === 'text'}
                  <input
                    class="words"
                    aria-label="{column.label}, {one} {n + 1}"
                    value={text(row, column.key)}
                    maxlength="60"
                    onchange={(event) => change(n, column.key, event.currentTarget.value.trim())}
                  />
                {:else if column.kind === 'places'}
                  {@const words = (value(row, column.key) as number[]).map((u) => units.length(u)).join('; ')}
                  <input
                    class="words"
                    aria-label="{column.label}, {one} {n + 1}"
                    aria-invalid={!!wrong[n]}
                    value={typed[n] ?? words}
                    maxlength="400"
                    onchange={(event) => places(n, column, event.currentTarget.value)}
                  />
                  {#if wrong[n]}<span class="wrong" role="alert">{wrong[n]}</span>{/if}
                {:else}
                  <Entry
                    label="{column.label}, {one} {n + 1}"
                    showLabel={false}
                    dimension={column.dimension}
                    value={value(row, column.key) as number | null}
                    optional={column.optional ?? false}
                    refused={why(`/${n}/${String(column.key)}`)}
                    onsave={(to) => change(n, column.key, to, to === null ? {} : column.clears)}
                  />
                {/if}
              </td>
            {/each}
            <td>
              <button
                class="choose"
                aria-label="Remove {one} {n + 1}"
                onclick={() =>
                  onsave(
                    rows.filter((_, at) => at !== n),
                    `${one} ${n + 1} removed`,
                  )}>remove</button
              >
            </td>
          </tr>
        {/each}
      </tbody>
    </table>
  {/if}
  <div class="controls">
    <Button onclick={() => onsave([...rows, fresh()], `${one} added`)}>Add {one.toLowerCase()}</Button>
  </div>
</section>

<style>
  td {
    padding-right: 4px;
  }
  .wrong {
    color: var(--oxide);
    font-size: var(--fs-small);
  }
  .words {
    width: 84px;
    min-height: 24px;
    border: 1px solid var(--line);
    border-radius: var(--radius);
    background: var(--sheet-bright);
    padding: 2px 5px;
  }
</style>
