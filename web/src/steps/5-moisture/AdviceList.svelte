<!-- The smallest change of each kind that turns a verdict; what does not turn it is said as well. -->
<script lang="ts">
  import type { Advice } from '@/api/client';

  let { advice }: { advice: Advice[] } = $props();
</script>

<ul data-testid="advice">
  {#each advice as one (one.kind)}
    <li class:none={!one.found}>{one.text}</li>
  {/each}
</ul>

<style>
  ul {
    margin: 4px 0 0;
    padding-left: 18px;
  }
  li {
    padding: 1px 0;
  }
  .none {
    color: var(--ink-3);
  }
</style>
