<!-- A figure of a study inside a sentence or a row; it opens to its working. -->
<script lang="ts">
  import type { Assembly, Studied, WorkingStep } from '@/api/client';
  import { router } from './router.svelte';
  import { working } from './working.svelte';

  interface Props {
    figure: string;
    /** What it is, in words. */
    title: string;
    /** As shown, with its unit. */
    text: string;
    dimension: string;
    assembly?: Assembly;
    /** What was asked of the study. */
    of?: Studied;
    /** Of a figure whose working came along with it. */
    steps?: WorkingStep[] | undefined;
  }
  let { figure, title, text, dimension, assembly, of, steps }: Props = $props();

  function open(): void {
    const { project, building, condition } = router.place;
    const opened = { figure, title, dimension, project, building, condition, assembly, of };
    if (steps) working.lay(opened, steps);
    else void working.show(opened);
  }
</script>

<button onclick={open} aria-label="{title}: {text}, show working">{text}</button>

<style>
  button {
    border: 0;
    background: none;
    padding: 1px 0;
    min-height: 24px;
    min-width: 24px;
    font: inherit;
    color: inherit;
    text-align: inherit;
    border-bottom: 1px dotted var(--line);
  }
  button:hover {
    border-bottom: 1px solid var(--verdigris);
    color: var(--verdigris);
  }
</style>
