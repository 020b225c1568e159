<!-- The keys, listed. -->
<script lang="ts">
  import Button from '@/kit/Button.svelte';
  interface Props {
    onclose: () => void;
  }
  let { onclose }: Props = $props();
  const keys = [
    ['Ctrl K', 'do anything'],
    ['Ctrl Z, Ctrl Shift Z', 'undo, redo'],
    ['d2', 'go to a zone: station letter, step number'],
    ['[ and ]', 'previous, next step'],
    ['PgUp, PgDn', 'climb the mast'],
    [', and .', 'previous, next month'],
    ['w', 'show working of the focused figure'],
    ['n', 'next open decision'],
    ['u', 'SI or inch-pound'],
    ['← →', 'in the section: choose a layer'],
    ['↑ ↓', 'thicker, thinner by 5 mm; Shift 50, Ctrl 1'],
    ['Enter', 'type the thickness'],
    ['Alt while dragging', 'free of stock sizes'],
    ['Esc', 'close, or leave a field as it was'],
  ];
</script>

<div class="keys" role="dialog" aria-label="Keys">
  <table>
    <tbody>
      {#each keys as [key, text] (key)}<tr><th scope="row"><kbd>{key}</kbd></th><td>{text}</td></tr>{/each}
    </tbody>
  </table>
  <p>Letter keys can be turned off under “Do anything”. <Button onclick={onclose}>Close</Button></p>
</div>

<style>
  .keys {
    position: fixed;
    right: 16px;
    top: 52px;
    background: var(--sheet-bright);
    border: 1.5px solid var(--ink);
    padding: 12px 16px;
    z-index: 8;
  }
  th {
    text-align: left;
    padding: 2px 16px 2px 0;
  }
  kbd {
    font: 500 var(--fs-small) var(--mono);
  }
  p {
    margin-top: 8px;
    display: flex;
    gap: 12px;
    align-items: center;
  }
</style>
