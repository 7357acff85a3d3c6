<script setup lang="ts">
import type { CardDueView } from '../../api/client'

/** A card at true size, with what is wrong with it. */
defineProps<{ card: CardDueView }>()
</script>

<template>
  <li class="card-due">
    <img
      :src="card.piece.faceUrl ?? ''"
      :alt="`As it prints: ${card.piece.title}`"
      :style="{ width: `${card.widthInches}in` }"
      loading="lazy"
    />
    <p class="small mb-0">
      <strong>{{ card.code ?? 'in the tray' }}</strong> {{ card.size }}
    </p>
    <p v-for="problem in card.problems" :key="problem" class="warning-chip small">! {{ problem }}</p>
  </li>
</template>

<style scoped>
.card-due {
  display: grid;
  gap: 0.2rem;
  max-width: 100%;
}
.card-due img {
  max-width: 100%;
  height: auto;
  border: 1px solid var(--line);
  box-shadow: 0 2px 6px rgb(60 40 20 / 0.15);
}
.card-due p {
  max-width: 24rem;
}
</style>
