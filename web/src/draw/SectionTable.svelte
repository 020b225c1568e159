<!-- A section read out: layers outside to inside. -->
<script lang="ts">
  import type { Profile } from '@/api/client';
  import type { Units } from '@/kit/units';
  import type { Slab, Words } from './section';

  interface Props {
    drawn: Slab[];
    profile: Profile | undefined;
    words: Words;
    units: Units;
  }
  let { drawn, profile, words, units }: Props = $props();
  const planes = $derived(profile?.planes ?? []);
</script>

<table class="visually-hidden">
  <caption>Layers, outside to inside</caption>
  <thead
    ><tr><th>layer</th><th>thickness</th><th>property</th><th>outer face</th><th>inner face</th></tr></thead
  >
  <tbody>
    {#each drawn as slab (slab.layer.id)}
      {@const outer = planes[slab.index + 1]}
      {@const inner = planes[slab.index]}
      <tr>
        <th>{words.name(slab.layer.material)}</th><td>{units.full(slab.layer.d, 'length')}</td><td
          >{words.detail(slab.index)}</td
        >
        <td>{outer ? units.full(outer.theta, 'temperature') : '–'}</td><td
          >{inner && words.counted(slab.index) ? units.full(inner.theta, 'temperature') : '–'}</td
        >
      </tr>
    {/each}
  </tbody>
</table>
