<!-- A figure of a face, a panel or a build-up that is set out; it opens to its working. -->
<script lang="ts">
  import Figure from '@/kit/Figure.svelte';
  import { router } from './router.svelte';
  import { working } from './working.svelte';

  interface Props {
    /** As the working knows it. */
    figure:
      | 'joints'
      | 'plates'
      | 'waste'
      | 'mass'
      | 'turn'
      | 'timber'
      | 'R'
      | 'beads'
      | 'pressure'
      | 'concrete'
      | 'mortar'
      | 'plaster'
      | 'pull';
    /** Face, run, panel or build-up that it is of. */
    of: string;
    title: string;
    value: string;
    unit?: string;
    dimension: string;
  }
  let { figure, of, title, value, unit = '', dimension }: Props = $props();

  function open(): void {
    const { project, building } = router.place;
    void working.show({ figure, title, dimension, project, building, condition: '0', panel: of });
  }
</script>

<Figure {value} {unit} label={title} onwork={open} />
