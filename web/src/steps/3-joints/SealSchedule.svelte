<!-- The seals of a joint in the order of work: which are built, what they come to, what to look at before it is covered. -->
<script lang="ts">
  import type { Building, Joint, JointSealing } from '@/api/client';
  import { joints } from './joints.svelte';
  import Choice from '@/kit/Choice.svelte';
  import Entry from '@/kit/Entry.svelte';
  import type { Units } from '@/kit/units';

  interface Props {
    building: Building;
    joint: Joint;
    sealing: JointSealing;
    units: Units;
  }
  let { building, joint, sealing, units }: Props = $props();
  const KINDS: Record<string, string> = {
    bead: 'bead',
    gasket: 'gasket',
    tape: 'tape',
    foam: 'foam',
    lap: 'lap',
    drain: 'stays open',
    work: '',
  };
  function save(change: Partial<Joint>, text: string): void {
    void joints.commit(building, change, `${joint.name}: ${text}`);
  }
  function turn(key: string, text: string): void {
    const left = joint.omitted ?? [];
    const out = !left.includes(key);
    save(
      { omitted: out ? [...left, key] : left.filter((one) => one !== key) },
      `${out ? 'left out' : 'put back'}: ${text}`,
    );
  }
</script>

<section data-testid="seals">
  <div class="head">
    <h2>Seals, in the order of work</h2>
    <div class="lines" role="list" aria-label="Lines of control">
      {#each Object.entries(sealing.lines) as [line, state] (line)}
        <span role="listitem" class={state} data-testid="line-{line}">{line} <b>{state}</b></span>
      {/each}
    </div>
  </div>
  <ol>
    {#each sealing.steps as step, at (step.key)}
      {@const left = sealing.omitted.includes(step.key)}
      <li class:left class:work={step.kind === 'work'}>
        <span class="number">{at + 1}</span>
        {#if step.kind === 'work'}
          <span class="text">{step.text}</span>
        {:else}
          <label class="text"
            ><input type="checkbox" checked={!left} onchange={() => turn(step.key, step.text)} />
            <em>{KINDS[step.kind]}</em>
            {step.text}</label
          >
        {/if}
        <small>{step.carries.join(', ')}</small>
      </li>
    {/each}
  </ol>
  <div class="side">
    <p>
      Air: <b>{sealing.grade}</b>, {units.show(sealing.leakage[0] ?? 0, 'joint_flow')} to
      {units.full(sealing.leakage[1] ?? 0, 'joint_flow')} at 50 Pa, starting values
    </p>
    <Choice
      label="sealant"
      value={joint.sealant ?? 'polyurethane'}
      options={sealing.sealants.map((value) => ({ value, text: value }))}
      onsave={(sealant) => save({ sealant }, `sealant ${sealant}`)}
    />
    <Choice
      label="tape"
      value={joint.tape ?? 'acrylic tape'}
      options={sealing.tapes.map((value) => ({ value, text: value }))}
      onsave={(tape) => save({ tape }, tape)}
    />
    {#if sealing.falls}
      <Entry
        label="falls outwards by"
        dimension="share"
        value={joint.fall}
        optional
        width="tiny"
        onsave={(fall) =>
          save({ fall }, fall === null ? 'fall not said' : `fall ${(100 * fall).toFixed(1)} %`)}
      />
      <Choice
        label="drained path ends"
        value={joint.drains_to ?? ''}
        options={[
          { value: '', text: 'not said' },
          { value: 'outside', text: 'outside' },
          { value: 'inside', text: 'inside of the rain line' },
        ]}
        onsave={(where) =>
          save({ drains_to: where as 'outside' }, `drained path ends ${where || 'not said'}`)}
      />
    {/if}
    <label class="said"
      ><input
        type="checkbox"
        checked={joint.sealed ?? false}
        onchange={(event) =>
          save(
            { sealed: event.currentTarget.checked },
            event.currentTarget.checked ? 'sealed this way' : 'sealing open again',
          )}
      /> it is sealed this way</label
    >
    <ul>
      {#each sealing.findings as one (one.text)}<li class={one.weight}>{one.text}</li>{/each}
    </ul>
  </div>
</section>

<style>
  section {
    display: grid;
    grid-template-columns: minmax(0, 3fr) minmax(220px, 2fr);
    gap: 4px 20px;
    margin-top: 14px;
    border-top: 1px solid var(--line);
    padding-top: 8px;
  }
  .head {
    grid-column: 1 / -1;
    display: flex;
    flex-wrap: wrap;
    gap: 4px 18px;
    align-items: baseline;
  }
  .lines {
    display: flex;
    gap: 14px;
    font-size: var(--fs-small);
    color: var(--ink-2);
  }
  .lines b {
    font-weight: 600;
    color: var(--ink);
  }
  .lines .broken b {
    color: var(--oxide);
  }
  .lines .undecided b {
    color: var(--ochre);
  }
  ol,
  ul {
    list-style: none;
  }
  ol li {
    display: flex;
    gap: 8px;
    border-bottom: 1px solid var(--hair);
    font-size: var(--fs-small);
    min-height: 24px;
    align-items: center;
  }
  .number {
    font: 500 var(--fs-cap) var(--mono);
    color: var(--ink-3);
    width: 18px;
    text-align: right;
  }
  .text {
    flex: 1;
  }
  em {
    font-style: normal;
    color: var(--ink-3);
    margin-right: 2px;
  }
  .left .text {
    text-decoration: line-through;
    color: var(--ink-3);
  }
  .work .text {
    color: var(--ink-2);
  }
  small {
    color: var(--ink-3);
    font-size: var(--fs-cap);
  }
  .side {
    display: flex;
    flex-direction: column;
    gap: 5px;
    font-size: var(--fs-small);
  }
  p b {
    font-weight: 600;
  }
  ul li {
    border-left: 3px solid var(--hair);
    padding-left: 8px;
    margin-top: 4px;
  }
  ul .decision {
    border-color: var(--oxide);
    background: var(--oxide-wash);
  }
  ul .caution {
    border-color: var(--ochre-line);
  }
  .said {
    display: flex;
    gap: 4px;
    align-items: center;
    min-height: 24px;
  }
  @media (max-width: 1023px) {
    section {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
