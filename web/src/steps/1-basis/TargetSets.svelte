<!-- Targets by name: the shipped examples and the practice's own sets; the present ones can be kept under a name. -->
<script lang="ts">
  import type { Basis, TargetSet } from '@/api/client';
  import { api, asProblem, take } from '@/api/client';
  import { session } from '@/project/session.svelte';
  import Button from '@/kit/Button.svelte';
  import Choice from '@/kit/Choice.svelte';

  interface Props {
    targets: Basis['targets'];
    ontake: (set: TargetSet) => void;
  }
  let { targets, ontake }: Props = $props();
  const FIELDS = ['R_wall', 'R_roof', 'R_floor', 'R_shell', 'f_rsi'] as const;
  let own = $state.raw<TargetSet[]>([]);
  let name = $state('');
  let why = $state('');
  let said = $state('');
  const examples = $derived(session.shipped?.target_sets ?? []);
  const same = (one: TargetSet) =>
    FIELDS.every((key) => (one.targets[key] ?? null) === (targets[key] ?? null));
  const present = $derived([...own, ...examples].find(same));
  const known = $derived(own.find((one) => one.name === name.trim()));

  async function ask(question: Parameters<typeof take<TargetSet[]>>[0], done: string): Promise<void> {
    why = said = '';
    try {
      own = await take(question);
      said = done;
    } catch (error) {
      why = asProblem(error).sentence;
    }
  }
  void ask(api.GET('/api/v1/target-sets'), '');

  async function keep(): Promise<void> {
    const kept = name.trim();
    await ask(api.PUT('/api/v1/target-sets', { body: { name: kept, targets } }), `“${kept}” kept`);
    if (!why) name = '';
  }
  function takeSet(chosen: string): void {
    const found = [...own, ...examples].find((one) => one.name === chosen);
    if (found) ontake(found);
  }
</script>

<div class="sets" data-testid="target-sets">
  <Choice
    label="take a set of targets"
    value={present?.name ?? ''}
    options={[
      { value: '', text: present ? '–' : 'targets of this project' },
      ...own.map((one) => ({ value: one.name, text: one.name, group: 'of the practice' })),
      ...examples.map((one) => ({
        value: one.name,
        text: one.name,
        group: 'examples; check your local code',
      })),
    ]}
    onsave={takeSet}
  />
  <form
    onsubmit={(event) => {
      event.preventDefault();
      void keep();
    }}
  >
    <input
      aria-label="Name of the practice's set"
      placeholder="keep these as"
      maxlength="80"
      bind:value={name}
    />
    <Button onclick={() => void keep()} disabled={!name.trim()}>{known ? 'Next version' : 'Keep'}</Button>
    {#if present?.own}
      <Button
        label="No longer offer “{present.name}”"
        onclick={() =>
          present &&
          void ask(
            api.POST('/api/v1/target-sets/withdrawal', { body: { name: present.name } }),
            `“${present.name}” is no longer offered`,
          )}>no longer offer</Button
      >
    {/if}
  </form>
  {#if why}<p class="why" role="alert">{why}</p>{/if}
  {#if said}<p class="said" role="status">{said}</p>{/if}
</div>

<style>
  .sets {
    display: grid;
    gap: 4px;
  }
  form {
    display: flex;
    gap: 8px;
    align-items: center;
    font-size: var(--fs-small);
  }
  input {
    flex: 1;
    min-width: 80px;
    min-height: 24px;
    border: 1px solid var(--line);
    background: var(--sheet-bright);
    padding: 0 6px;
  }
  .why {
    color: var(--oxide);
    font-size: var(--fs-small);
  }
  .said {
    color: var(--ink-3);
    font-size: var(--fs-small);
  }
</style>
