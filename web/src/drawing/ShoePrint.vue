<script setup lang="ts">
// One shoe from above, heel to the left: told apart by letter and hatch, lit part by part.
defineProps<{ x: number; y: number; which: 'lead' | 'trail'; lit: Set<string>; turn: number }>()
const OUTLINE =
  'M-58 0C-60-18-46-25-30-23C-14-21-4-19 10-23C30-29 56-25 60-4C63 14 44 26 22 24C6 22-8 17-24 20C-44 24-57 16-58 0Z'
</script>

<template>
  <g :transform="`translate(${x} ${y}) rotate(${turn})`">
    <pattern
      v-if="which === 'trail'"
      id="hatch"
      width="7"
      height="7"
      patternUnits="userSpaceOnUse"
      patternTransform="rotate(45)"
    >
      <line class="hatch" x1="0" y1="0" x2="0" y2="7" />
    </pattern>
    <clipPath :id="`shoe-${which}`"><path :d="OUTLINE" /></clipPath>
    <g :clip-path="`url(#shoe-${which})`">
      <rect class="sole" x="-64" y="-32" width="130" height="64" />
      <rect v-if="which === 'trail'" class="hatched" x="-64" y="-32" width="130" height="64" />
      <rect v-if="lit.has(`${which}_heel`)" class="lit" x="-64" y="-32" width="44" height="64" />
      <rect v-if="lit.has(`${which}_toe`)" class="lit" x="14" y="-32" width="56" height="64" />
      <rect v-if="lit.has(`${which}_foot`)" class="lit" x="-64" y="-32" width="130" height="64" />
    </g>
    <path class="outline" :d="OUTLINE" />
  </g>
</template>

<style scoped>
.sole {
  fill: var(--surface);
}
.hatched {
  fill: url(#hatch);
}
.hatch {
  stroke: var(--line);
  stroke-width: 2;
}
.lit {
  fill: var(--clay);
  fill-opacity: 0.8;
}
.outline {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2.5;
}
</style>
