<!-- What goes to the maker: drawings, lists, labels, nesting sheets. -->
<script lang="ts">
  import type { Building } from '@/api/client';
  import { session } from '@/project/session.svelte';

  interface Props {
    building: Building;
  }
  let { building }: Props = $props();
  const PAPERS = [
    {
      file: 'setout.pdf',
      name: 'Set-out drawings',
      kind: 'PDF, to scale, A3',
      note: 'a page for each face with its panels, anchors and hold points',
    },
    {
      file: 'setout.dxf',
      name: 'Drawing of all faces',
      kind: 'DXF, in millimetres',
      note: 'panels, joints, posts, plates, anchors and dimensions on layers of their own',
    },
    {
      file: 'lists.xlsx',
      name: 'Panels, pieces, bars, works and hold points',
      kind: 'XLSX',
      note: 'a sheet each, numbers as numbers, in the units of the project',
    },
    { file: 'panels.csv', name: 'Panel list', kind: 'CSV', note: '' },
    { file: 'cut-list.csv', name: 'Cut list', kind: 'CSV', note: 'in the order that trucks ask for' },
    {
      file: 'labels.pdf',
      name: 'Labels',
      kind: 'PDF, ten on an A4',
      note: 'mark, which side is up, size, mass, edges, truck',
    },
    {
      file: 'nesting.pdf',
      name: 'Nesting sheets',
      kind: 'PDF, A4',
      note: 'every bar and board with its pieces; the first cut dashed',
    },
  ];
  const at = (file: string) =>
    `/api/v1/projects/${session.open?.project.id ?? ''}/buildings/${building.id}/${file}`;
</script>

<table>
  <thead><tr><th>what</th><th>as</th><th>with</th></tr></thead>
  <tbody>
    {#each PAPERS as one (one.file)}
      <tr>
        <th scope="row"><a href={at(one.file)} download>{one.name}</a></th>
        <td>{one.kind}</td>
        <td class="soft">{one.note}</td>
      </tr>
    {/each}
  </tbody>
</table>
<p class="soft method">
  Every PDF says the revision it was made of. One face alone as SVG stands at its elevation, in Set-out.
</p>

<style>
  a {
    display: inline-block;
    min-height: 24px;
    line-height: 24px;
  }
  td {
    padding-right: 18px;
  }
</style>
