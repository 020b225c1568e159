<!-- A kind of fixing as a little section: the outside to the left, the insulation hatched, what crosses it in ink. -->
<script lang="ts">
  interface Props {
    kind: string;
  }
  let { kind }: Props = $props();
  // Outer skin 8–14, insulation 14–74, inner part 74–88; the axis at 18.
  const PARTS: Record<string, string> = {
    screw: 'M12 14h3v8h-3ZM14 16.5h72v3h-72Z',
    washer: 'M12 7h3v22h-3ZM14 16.5h72v3h-72Z',
    dowel: 'M10 8h4v20h-4ZM14 15h60v6h-60ZM74 16.5h12v3h-12Z',
    sunk: 'M30 8h4v20h-4ZM34 15h40v6h-40ZM74 16.5h12v3h-12Z',
    tie: 'M4 17h84v2h-84Z',
    veneer: 'M4 14h66v8h-66ZM70 10h4v16h-4Z',
    wire: 'M10 6h1.5v24h-1.5ZM11 17h70v2h-70ZM80 6h1.5v24h-1.5Z',
    web: 'M16 8h3v20h-3ZM18 15.5h62v5h-62ZM79 8h3v20h-3Z',
    bracket: 'M2 15h70v6h-70ZM71 7h3v22h-3Z',
  };
</script>

<svg width="96" height="36" aria-hidden="true">
  <rect x="8" y="2" width="6" height="32" fill="url(#h-board-s)" />
  <rect x="14" y="2" width="60" height="32" fill="url(#h-foam-s)" />
  <rect x="74" y="2" width="14" height="32" fill="url(#h-timber-s)" />
  <path class="edge" d="M8 2v32M14 2v32M74 2v32M88 2v32" />
  <path class="part" d={PARTS[kind] ?? PARTS['screw']} />
</svg>

<style>
  .part {
    fill: var(--ink);
  }
</style>
